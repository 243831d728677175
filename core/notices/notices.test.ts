import fc from 'fast-check';
import { compileCalendar } from '../calendar';
import { serviceTime } from '../estate';
import {
  CALL_BACK_MS,
  checkNotice,
  fitsNotice,
  isLongerThanSaid,
  isShownNow,
  mayCallBack,
  NOTICE_KINDS,
  noticeState,
  STILL_SHOWN_MS,
  toLine,
  toOutages,
  type LinePoint,
  type NoticeTimes,
} from './index';

const HOUR = 3_600_000;
const at = (text: string): number => Date.parse(`2026-11-${text}:00Z`);
const outage = (given: Partial<NoticeTimes> = {}): NoticeTimes => ({
  ...{ kind: 'outage', fromAt: at('25T09:00'), untilAt: null, endedAt: null, calledBackAt: null },
  ...given,
});
const text = (en: string, pt = ''): { en: string; pt: string } => ({ en, pt });

test.each([
  ['an outage that has begun', outage(), '25T10:00', 'on'],
  ['one that is later than it was to end', outage({ untilAt: at('25T09:30') }), '25T10:00', 'on'],
  ['one that somebody ended', outage({ endedAt: at('25T09:30') }), '25T10:00', 'ended'],
  ['work to come', outage({ kind: 'planned', untilAt: at('25T10:00') }), '25T08:00', 'coming'],
  ['work at its end', outage({ kind: 'planned', untilAt: at('25T10:00') }), '25T10:00', 'ended'],
  ['what was called back', outage({ calledBackAt: at('25T09:01') }), '25T10:00', 'calledBack'],
] as const)('%s', (_, notice, now, state) => expect(noticeState(notice, at(now))).toBe(state));

test('an outage lasts until somebody says that it is over, and says when it lasts longer than was thought', () => {
  const notice = outage({ untilAt: at('25T09:30') });
  expect(isLongerThanSaid(notice, at('25T09:29'))).toBe(false);
  expect(isLongerThanSaid(notice, at('25T09:31'))).toBe(true);
  expect(isLongerThanSaid({ ...notice, endedAt: at('25T09:40') }, at('25T10:00'))).toBe(false);
});

test('what is over is shown for a while, what was called back not at all', () => {
  const ended = outage({ endedAt: at('25T10:00') });
  expect(isShownNow(ended, at('25T10:00') + STILL_SHOWN_MS - 1)).toBe(true);
  expect(isShownNow(ended, at('25T10:00') + STILL_SHOWN_MS)).toBe(false);
  expect(isShownNow(outage({ calledBackAt: at('25T09:01') }), at('25T09:01'))).toBe(false);
});

test('a notice can be called back once, within a minute', () => {
  const made = { createdAt: 0, calledBackAt: null };
  expect(mayCallBack(made, CALL_BACK_MS - 1)).toBe(true);
  expect(mayCallBack(made, CALL_BACK_MS)).toBe(false);
  expect(mayCallBack({ ...made, calledBackAt: 1 }, 2)).toBe(false);
});

test.each([
  ['without a title', { title: text(' ') }, ['title missing']],
  ['a title in one language is enough', { title: text('', 'Rede em baixo') }, []],
  ['that ends before it begins', { untilAt: at('25T09:00') }, ['untilAt endsBeforeBegins']],
  ['planned without an end', { kind: 'planned' as const }, ['untilAt missing']],
  ['planned for what has gone by', { kind: 'planned' as const, untilAt: at('25T09:30') }, ['untilAt isOver']],
])('a notice %s', (_, given, expected) => {
  const said = { ...outage(), title: text('Network down'), words: text(''), ...given };
  expect(checkNotice(said, at('25T12:00')).map(({ field, code }) => `${field} ${code}`)).toEqual(expected);
});

const network = {
  title: text('No network at Port Alder', 'Sem rede em Port Alder'),
  words: text('Pay at the desk meanwhile.', 'Pague ao balcão entretanto.'),
  serviceIds: ['network'],
};
test.each([
  ['the network at the port is gone', [], true],
  ['a rede em Port Alder caiu', [], true],
  ['network', [], false],
  ['network', ['network'], true],
  ['my badge is lost', [], false],
  ['my badge is lost', ['network'], true],
  ['', ['network'], true],
  ['', [], false],
  ['kiosk 4 5 6 network', [], false],
])('“%s” at the form of %j is about the notice: %s', (words, serviceIds, expected) =>
  expect(fitsNotice(network, { words, serviceIds }) > 0).toBe(expected),
);

test('who writes more of the same words fits no less', () => {
  const known = ['network', 'Alder', 'Port', 'rede'];
  fc.assert(
    fc.property(
      fc.subarray(known, { minLength: 2 }),
      fc.array(fc.constantFrom('badge', 'lamp')),
      (shared, others) => {
        const fit = (words: string[]): number =>
          fitsNotice(network, { words: words.join(' '), serviceIds: [] });
        expect(fit([...shared, ...others])).toBeLessThanOrEqual(fit(shared));
        expect(fit(shared)).toBe(1);
      },
    ),
  );
});

test('a line of time is in order, and counts what came together', () => {
  const point = (minute: number, kind: LinePoint['kind']): LinePoint => ({
    ...{ at: minute * 60_000, kind, count: 1, by: null, words: '' },
  });
  const line = toLine([
    point(9, 'ended'),
    point(0, 'began'),
    ...[1, 2, 3, 8].map((each) => point(each, 'tied')),
    point(4, 'said'),
  ]);
  expect(line.map(({ kind, count }) => `${kind} ${count}`)).toEqual([
    'began 1',
    'tied 3',
    'said 1',
    'tied 1',
    'ended 1',
  ]);
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(60), fc.constantFrom('tied' as const, 'said' as const))),
      (given) => {
        const points = given.map(([minute, kind]) => point(minute, kind));
        const out = toLine(points);
        expect(out.reduce((sum, { count }) => sum + count, 0)).toBe(points.length);
        expect(out.map((each) => each.at)).toEqual([...out.map((each) => each.at)].sort((a, b) => a - b));
      },
    ),
  );
});

test('only outages that have begun and were not called back cost time', () => {
  const notices = [
    outage({ endedAt: at('25T10:00') }),
    outage({ fromAt: at('25T20:00') }),
    outage({ calledBackAt: at('25T09:01') }),
    outage({ kind: 'planned', untilAt: at('25T12:00') }),
  ];
  const outages = toOutages(notices, at('25T12:00'));
  expect(outages).toEqual([{ from: at('25T09:00'), to: at('25T10:00') }]);
  const always = compileCalendar({
    ...{ name: 'always', timeZone: 'UTC', hoursPerDay: 24, exceptions: [] },
    weekly: { wed: [{ from: '00:00', to: '24:00' }] },
  });
  const time = serviceTime(outages, always, at('25T00:00'), at('25T12:00'));
  expect(time).toMatchObject({ lost: HOUR, failures: 1, toRestore: HOUR, betweenFailures: 11 * HOUR });
  expect(NOTICE_KINDS).toHaveLength(2);
});
