import fc from 'fast-check';
import { asItWas, escapeValue, toFrame, toLine, toSyslog, type AuditEntry, type Facts } from './index';

const entry = (given: Partial<AuditEntry> = {}): AuditEntry =>
  ({
    ...{ id: 7, at: Date.parse('2026-11-25T10:00:00.125Z'), actorId: 'rui', via: 'desk', type: 'taken' },
    ...{ ticketNumber: 20_418, work: 'ticket', audience: 'requester', data: { version: 2, by: 'agent' } },
    changes: { assigneeId: { from: null, to: 'rui' } },
    ...given,
  }) as AuditEntry;

test('an entry is one line, the same in whichever order its parts were read', () => {
  const { changes, ...rest } = entry();
  const turned = { changes, ...Object.fromEntries(Object.entries(rest).reverse()) } as AuditEntry;
  expect(toLine(turned)).toBe(toLine(entry()));
  expect(toLine(entry())).not.toContain('\n');
  expect(JSON.parse(toLine(entry()))).toMatchObject({
    ...{ id: 7, at: '2026-11-25T10:00:00.125Z', actorId: 'rui', ticketNumber: 20_418 },
    changes: { assigneeId: { to: 'rui' } },
  });
});

test('lines of entries that differ in anything differ', () => {
  expect(toLine(entry({ data: { version: 3, by: 'agent' } } as never))).not.toBe(toLine(entry()));
  expect(toLine(entry({ keyId: 'k1' }))).not.toBe(toLine(entry()));
});

/** The grammar of RFC 5424, 6, as far as it is used here. */
const SYSLOG =
  /^<(\d{1,3})>1 (\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{1,6}Z) ([!-~]{1,255}) ([!-~]{1,48}) (-|[!-~]{1,128}) ([!-~]{1,32}) (\[[!-~]+(?: [!-~]{1,32}="(?:[^"\\\]]|\\["\\\]])*")*\]) \ufeff(.+)$/;

test('a message has the form of RFC 5424, whatever stands in the entry', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', minLength: 1 }), fc.string(), (actorId, host) => {
      const message = toSyslog(entry({ actorId }), host);
      const [, priority, at, , app, , kind] = SYSLOG.exec(message)!;
      // Facility 13, severity 5: 13 * 8 + 5.
      expect([priority, at, app, kind]).toEqual(['109', '2026-11-25T10:00:00.125Z', 'listo', 'taken']);
    }),
  );
});

test('values are escaped as RFC 5424, 6.3.3 says', () => {
  expect(escapeValue('a"b\\c]d')).toBe('a\\"b\\\\c\\]d');
});

test('on the wire the length in bytes goes first (RFC 5425, 4.3)', () => {
  expect(toFrame('<109>1 é')).toBe('9 <109>1 é');
});

test('what happened later is taken back, and what is otherwise since is said', () => {
  const entries = [
    { at: 10, changes: { state: { from: null, to: 'received' } } },
    { at: 20, changes: { state: { from: 'received', to: 'inWork' }, assigneeId: { from: null, to: 'rui' } } },
    { at: 30, changes: { state: { from: 'inWork', to: 'done' } } },
  ];
  const now = { state: 'done', assigneeId: 'rui', title: 'Dark' };
  expect(asItWas(now, entries, 20)).toEqual({
    then: { state: 'inWork', assigneeId: 'rui', title: 'Dark' },
    since: { state: { then: 'inWork', now: 'done' } },
  });
  expect(asItWas(now, entries, 15).then).toEqual({ state: 'received', assigneeId: null, title: 'Dark' });
  expect(asItWas(now, entries, 30).since).toEqual({});
});

test('taken back to any instant, and done again from there, it is as it is now', () => {
  const change = fc.record({ field: fc.constantFrom('a', 'b', 'c'), to: fc.integer() });
  fc.assert(
    fc.property(fc.array(change, { maxLength: 20 }), fc.integer({ min: -1, max: 21 }), (changes, at) => {
      const now: Facts = { a: 0, b: 0, c: 0 };
      const entries = changes.map(({ field, to }, i) => {
        const from = now[field];
        now[field] = to;
        return { at: i, changes: { [field]: { from, to } } };
      });
      const again = { ...asItWas(now, entries, at).then };
      for (const { changes: each } of entries.filter((one) => one.at > at))
        for (const [field, { to }] of Object.entries(each)) again[field] = to;
      expect(again).toEqual(now);
    }),
  );
});
