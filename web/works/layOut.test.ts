import fc from 'fast-check';
import type { WorkCalendar, WorkCard } from '../../contract/works';
import { layOut } from './layOut';

const work = (
  number: number,
  fromAt: number,
  toAt: number,
  thingIds: string[],
  given: Partial<WorkCard> = {},
): WorkCard => ({
  ...{
    number,
    title: `Work ${number}`,
    sort: 'normal',
    stage: 'planned',
    fromAt,
    toAt,
    startedAt: null,
    endedAt: null,
  },
  ...{ risk: null, teamId: 'net', team: { en: 'Network', pt: 'Rede' }, thingIds, mayMove: true, version: 1 },
  requester: { id: 'a', name: 'A', goesFirst: false },
  ...given,
});
const thing = (id: string) => ({
  ...{ id, name: id.toUpperCase(), kind: { en: '', pt: '' } },
  ...{ state: 'inUse' as const, standing: 'up' as const },
});
const calendarOf = (works: WorkCard[], given: Partial<WorkCalendar> = {}): WorkCalendar => ({
  ...{ works, freezes: [], notices: [], clashes: [], maySetFreezes: false },
  things: [thing('a'), thing('b')],
  ...given,
});

test('a change stands in the row of each of its things; without one that is seen, in a row of its own', () => {
  const rows = layOut(calendarOf([work(1, 0, 2, ['a', 'b']), work(2, 0, 2, ['hidden'])]), 'things', {
    until: 9,
  });
  expect(rows.map(({ id, bars }) => [id, bars.map(({ key }) => key)])).toEqual([
    ['a', ['w1']],
    ['b', ['w1']],
    ['', ['w2']],
  ]);
});

test('by teams, each change stands once; notices are of things', () => {
  const notice = {
    id: 'n',
    title: { en: 'Down', pt: '' },
    kind: 'outage' as const,
    fromAt: 1,
    untilAt: null,
    thingIds: ['a'],
  };
  const calendar = calendarOf([work(1, 0, 2, ['a', 'b'])], { notices: [notice] });
  expect(layOut(calendar, 'teams', { until: 9 }).map(({ bars }) => bars.length)).toEqual([1]);
  const [row] = layOut(calendar, 'things', { until: 9 });
  expect(row!.bars.find(({ key }) => key === 'nn')).toMatchObject({ from: 1, to: 9, noticeId: 'n' });
});

test('what was begun and ended stands where it was', () => {
  const [row] = layOut(calendarOf([work(1, 10, 20, ['a'], { startedAt: 12, endedAt: 30 })]), 'things', {
    until: 99,
  });
  expect(row!.bars[0]).toMatchObject({ from: 12, to: 30 });
});

test('law: no bar lies on another, and none is lost', () => {
  const stretches = fc.array(fc.tuple(fc.nat(40), fc.integer({ min: 1, max: 20 })), { maxLength: 15 });
  fc.assert(
    fc.property(stretches, (given) => {
      const works = given.map(([from, length], i) => work(i + 1, from, from + length, ['a']));
      const [row] = layOut(calendarOf(works), 'things', { until: 99 });
      const bars = row?.bars ?? [];
      expect(bars).toHaveLength(works.length);
      for (const one of bars)
        for (const other of bars)
          if (one.key !== other.key && one.lane === other.lane)
            expect(one.to <= other.from || other.to <= one.from).toBe(true);
      expect(Math.max(0, ...bars.map(({ lane }) => lane + 1))).toBe(row ? row.lanes : 0);
    }),
  );
});
