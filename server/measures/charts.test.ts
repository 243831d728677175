import fc from 'fast-check';
import type { AskedChart, BehindRow, ChartAnswer } from '../../contract/measures';
import { holds, type Condition, type Fields } from '../../core/conditions';
import {
  bucketOf,
  chartOf,
  figureOf,
  openAt,
  periodOf,
  quantile,
  timeToDone,
  type Chart,
} from '../../core/measures';
import { startTestListo, type Person, type TestListo } from '../testing/harness';
import type { TicketFactRow } from './model';

/** Figures of charts: the same as reckoned in memory from the same facts, and of nothing that the reader may not see. */
let app: TestListo;
let [elin, marta, sofia, tomas, helder]: Person[] = [];
const NOW = Date.parse('2026-11-25T10:00:00Z');
const DAY = 86_400_000;
const ZONE = 'Europe/Lisbon';
let facts: TicketFactRow[] = [];

/** Facts of every kind of value, by a seed. */
function makeFacts(): TicketFactRow[] {
  const fact = fc
    .record({
      age: fc.integer({ min: 0, max: 100 * DAY }),
      lasts: fc.option(fc.integer({ min: 1, max: 20 * DAY }), { freq: 3 }),
      teamId: fc.constantFrom('desk', 'network', 'people'),
      priority: fc.constantFrom('P1', 'P2', 'P3'),
      heldFor: fc.constantFrom('requester', null),
      isDeclined: fc.boolean(),
      rating: fc.constantFrom(1, 4, 5, null),
      reopened: fc.nat(2),
      assigneeId: fc.constantFrom('elin', 'bia', 'sten', null),
    })
    .map(({ age, lasts, ...rest }) => {
      const opened = NOW - age;
      const done = lasts !== null && opened + lasts <= NOW ? opened + lasts : null;
      return {
        ...{ opened, answered: null, done, ended: done, closed: null, kind: 'incident', serviceId: 'kiosk' },
        ...{ groupId: null, requesterId: 'ines', isConfidential: rest.teamId === 'people' },
        ...{
          state: done === null ? ('inWork' as const) : ('done' as const),
          impact: 'person',
          urgency: 'slowsWork',
        },
        ...{ via: 'mail', teams: 1, messages: 0, toAnswer: null, workToAnswer: null, own: 0, waited: 0 },
        ...{
          toDone: done === null ? null : done - opened,
          workToDone: done === null ? null : (done - opened) / 3,
        },
        ...{ heldForRequester: 0, heldForSupplier: 0, heldForApproval: 0, heldForOther: 0, upTo: 1, ...rest },
      };
    });
  return fc.sample(fact, { numRuns: 400, seed: 7 }).map((each, i) => ({
    number: 100_000 + i,
    ...each,
    workToDone: each.workToDone && Math.round(each.workToDone),
  }));
}

beforeAll(async () => {
  app = await startTestListo('charts');
  [elin, marta, sofia, tomas, helder] = await Promise.all(
    ['elin', 'marta', 'sofia', 'tomas', 'helder'].map(app.as),
  );
  facts = makeFacts();
  await app.listo.db.tables.ticketFacts.insertAll(facts);
  await app.listo.db.tables.timers.remove({ kind: 'gatherFacts' });
});
afterAll(() => app.end());

type Given = Partial<Omit<AskedChart, 'chart'>>;
const ask = (chart: Partial<Chart> & { show?: Chart['show'] }, given: Given = {}): AskedChart => ({
  chart: { ...chartOf(chart.of ?? 'tickets', chart.show ?? 'bars', chart), id: 'c' } as Chart,
  ...{ stretch: { last: 8, unit: 'week' }, beside: [], chosen: {} },
  ...given,
});
async function figures(asked: AskedChart, by = marta!): Promise<ChartAnswer> {
  const { status, body } = await by.call('POST', '/measures/chart', asked);
  if (status !== 200) throw new Error(JSON.stringify(body));
  return body;
}
async function behind(
  asked: AskedChart & { key?: unknown; bucket?: number },
  by = marta!,
): Promise<BehindRow[]> {
  return ((await by.call('POST', '/measures/behind', asked)).body as { rows: BehindRow[] }).rows;
}
const refused = async (asked: AskedChart, by = marta!): Promise<unknown> => {
  const { status, body } = await by.call('POST', '/measures/chart', asked);
  return [status, (body as { type: string }).type.split('/').at(-1)];
};

/** The facts that a chart counts, found in memory. */
function counted(chart: Chart, where: Condition, isSeen = (fact: TicketFactRow) => !fact.isConfidential) {
  const { from, to } = periodOf({ last: 8, unit: 'week' }, NOW, ZONE);
  return facts.filter((fact) => {
    const at = (fact as unknown as Record<string, number | null>)[chart.at] ?? null;
    return at !== null && at >= from && at < to && isSeen(fact) && holds(where, fact as unknown as Fields);
  });
}

describe('the same as in memory', () => {
  const WHATS: Chart['what'][] = [
    'count',
    { sum: 'toDone' },
    { mean: 'rating' },
    { median: 'workToDone' },
    { p90: 'toDone' },
    { share: { field: 'priority', op: 'in', value: ['P1', 'P2'] } },
  ];
  const WHERE: Condition = { not: { field: 'reopened', op: 'gt', value: 1 } };

  test.each(
    WHATS.flatMap((what) =>
      (['teamId', 'heldFor', 'isDeclined', null] as const).flatMap((by) =>
        (['week', null] as const).map((every) => [what, by, every] as const),
      ),
    ),
  )('%j by %s every %s', async (what, by, every) => {
    const show = every === null ? (by === null ? 'number' : 'bars') : 'line';
    const { chart, ...rest } = ask({ what, by, every, show, at: 'done', where: WHERE });
    const answer = await figures({ chart, ...rest });
    const all = counted(chart, WHERE);
    const keyOf = (fact: TicketFactRow): unknown => (by === null ? null : fact[by]);
    const figure = (some: TicketFactRow[]): number | null => {
      const field = typeof what === 'object' && !('share' in what) ? Object.values(what)[0]! : null;
      const values = some.flatMap((fact) =>
        field === null ? [] : ((fact as never as Record<string, number | null>)[field] ?? []),
      );
      return figureOf(what, {
        ...{ count: some.length, known: values.length, values },
        sum: values.reduce((sum, value) => sum + value, 0),
        met:
          typeof what === 'object' && 'share' in what
            ? some.filter((fact) => holds(what.share, fact as never)).length
            : 0,
      });
    };
    expect(answer.count).toBe(all.length);
    const close = (one: number | null, other: number | null): void =>
      other === null ? expect(one).toBeNull() : expect(one).toBeCloseTo(other, 4);
    close(answer.total, figure(all));
    expect(new Set(answer.groups.map(({ key }) => key))).toEqual(new Set(all.map(keyOf)));
    for (const group of answer.groups) {
      const own = all.filter((fact) => keyOf(fact) === group.key);
      expect(group.count).toBe(own.length);
      close(group.total, figure(own));
      answer.buckets.forEach((bucket, i) => {
        const inIt = own.filter((fact) => bucketOf(fact.done!, 'week', ZONE) === bucket);
        close(group.values[i]!, figure(inIt));
      });
    }
  });

  test('compared with the stretch before', async () => {
    const answer = await figures(ask({ isCompared: true, by: null, show: 'number' }));
    const { from } = periodOf({ last: 8, unit: 'week' }, NOW, ZONE);
    const earlier = periodOf({ last: 8, unit: 'week' }, from - 1, ZONE).from;
    const before = facts.filter(
      ({ opened, isConfidential }) => !isConfidential && opened >= earlier && opened < from,
    );
    expect(answer.before).toBe(before.length);
  });

  test('how they spread', async () => {
    const { groups } = await figures(
      ask({ what: { median: 'toDone' }, by: 'teamId', show: 'box', at: 'done' }),
    );
    const own = counted(ask({ at: 'done' }).chart, { field: 'teamId', op: 'is', value: 'desk' }).map(
      ({ toDone }) => toDone!,
    );
    expect(groups.find(({ key }) => key === 'desk')!.spread).toEqual(
      [0, 0.25, 0.5, 0.75, 1].map((q) => quantile(own, q)),
    );
  });

  test('how they came, went and stayed', async () => {
    const { course, buckets } = await figures(ask({ show: 'flow', every: 'week' }));
    const seen = facts.filter(({ isConfidential }) => !isConfidential);
    const ends = [...buckets.slice(1), periodOf({ last: 1, unit: 'week' }, NOW, ZONE).to];
    expect(course!.flow.map(({ open }) => open)).toEqual(
      openAt(
        seen,
        ends.map((end) => Math.min(end - 1, NOW)),
      ),
    );
    course!.flow.forEach(({ opened, ended }, i) => {
      const isIn = (at: number | null): boolean => at !== null && at >= buckets[i]! && at < ends[i]!;
      expect([opened, ended]).toEqual([
        seen.filter((fact) => isIn(fact.opened)).length,
        seen.filter((fact) => isIn(fact.ended)).length,
      ]);
    });
    // What was open at one end, came and went is open at the next.
    course!.flow.slice(1).forEach(({ opened, ended, open }, i) => {
      expect(open).toBe(course!.flow[i]!.open + opened - ended);
    });
  });

  test('how long it takes with the open ones counted', async () => {
    const { course, at } = await figures(ask({ show: 'survival', by: null }));
    const lengths = counted(ask({}).chart, { all: [] }).map(({ opened, done }) => ({
      length: (done ?? at) - opened,
      isDone: done !== null,
    }));
    const expected = timeToDone(lengths);
    expect(course!.survival!.median).toBe(expected.median);
    for (const { after, share } of course!.survival!.shares)
      expect(share).toBeCloseTo(expected.share(after), 9);
    expect(course!.survival!.usual).toBeLessThan(expected.median!);
    expect(course!.survival!.open).toBe(lengths.filter(({ isDone }) => !isDone).length);
  });

  test('for how long they are open', async () => {
    const { course, count } = await figures(ask({ show: 'ageing', by: null }));
    const open = facts.filter(({ isConfidential, ended }) => !isConfidential && ended === null);
    expect(count).toBe(open.length);
    expect(course!.ageing.reduce((sum, each) => sum + each.count, 0)).toBe(open.length);
    expect(course!.ageing[0]!.count).toBe(open.filter(({ opened }) => NOW - opened < DAY).length);
  });

  test('what is expected, for two weeks by the hour', async () => {
    const { course } = await figures(ask({ show: 'expected', by: null }));
    expect(course!.expected).toHaveLength(14 * 24);
    // The hour that goes on is the first that is not yet known.
    expect(course!.expected[0]!.at).toBe(NOW);
    for (const { low, mean, high, agents } of course!.expected) {
      expect(low).toBeLessThanOrEqual(mean);
      expect(high).toBeGreaterThanOrEqual(Math.floor(mean));
      // How many people it takes is reckoned of conversations alone.
      expect(agents).toBeNull();
    }
  });
});

describe('narrowing', () => {
  const beside = [
    { id: 'teams', by: 'teamId', of: 'tickets' as const },
    { id: 'c', by: 'priority', of: 'tickets' as const },
  ];
  test('by what is chosen in other charts, not by its own', async () => {
    const answer = await figures(
      ask({ by: 'priority' }, { beside, chosen: { teams: ['network'], c: ['P1'] } }),
    );
    const own = counted(ask({}).chart, { field: 'teamId', op: 'is', value: 'network' });
    expect(answer.count).toBe(own.length);
    expect(answer.groups.length).toBe(3);
  });

  test('by what is not there', async () => {
    const held = { id: 'held', by: 'heldFor', of: 'tickets' as const };
    const answer = await figures(ask({ by: 'teamId' }, { beside: [held], chosen: { held: [null] } }));
    expect(answer.count).toBe(counted(ask({}).chart, { field: 'heldFor', op: 'is', value: null }).length);
  });

  test('by a field that there is not is refused', async () => {
    expect(await refused(ask({}, { beside: [{ id: 'x', by: 'sky', of: 'tickets' }] }))).toEqual([
      422,
      'fieldsNotValid',
    ]);
  });
});

describe('what stands behind a figure', () => {
  test.each([['desk'], ['network']])('of %s is what it counts', async (key) => {
    const asked = ask({ by: 'teamId' });
    const { groups } = await figures(asked);
    const own = counted(asked.chart, { field: 'teamId', op: 'is', value: key });
    expect(groups.find((group) => group.key === key)!.count).toBe(own.length);
    const rows = await behind({ ...asked, key });
    expect(rows.map(({ number }) => number)).toEqual(
      [...own]
        .sort((one, other) => other.opened - one.opened || other.number - one.number)
        .map(({ number }) => number),
    );
  });

  test('of a week is what fell into it', async () => {
    const asked = ask({ every: 'week', show: 'line' });
    const { buckets, groups } = await figures(asked);
    const rows = await behind({ ...asked, bucket: buckets[3]! });
    expect(rows).toHaveLength(groups[0]!.counts[3]!);
    for (const { at } of rows) expect(bucketOf(at, 'week', ZONE)).toBe(buckets[3]);
  });
});

describe('what one may not see', () => {
  test('is not counted: a team that works in confidence is counted for itself alone', async () => {
    const asked = ask({ by: 'teamId' });
    expect((await figures(asked)).groups.map(({ key }) => key).sort()).toEqual(['desk', 'network']);
    const own = await figures(asked, sofia);
    expect(own.groups.map(({ key }) => key).sort()).toEqual(['desk', 'network', 'people']);
    expect(await behind({ ...asked, key: 'people' })).toEqual([]);
  });

  test('figures are for those who work in teams', async () => {
    expect(await refused(ask({}), tomas)).toEqual([403, 'forbidden']);
    for (const path of ['/measures/boards', '/measures/boards/given-today'])
      expect((await tomas!.call('GET', path)).status).toBe(403);
  });

  test('figures of single people are for themselves, who leads them, and who sets up', async () => {
    const asked = ask({ by: 'assigneeId' });
    const keysOf = async (by: Person) => (await figures(asked, by)).groups.map(({ key }) => key);
    expect((await keysOf(elin!)).sort()).toEqual(['elin', null].sort());
    expect(new Set(await keysOf(marta!))).toEqual(new Set(['elin', 'bia', null]));
    expect(new Set(await keysOf(helder!))).toEqual(new Set(['elin', 'bia', 'sten', null]));
    expect((await figures(asked, elin)).more).toBe(2);
    const other = ask({ where: { field: 'assigneeId', op: 'is', value: 'bia' }, by: 'priority' });
    expect(await refused(other, elin)).toEqual([403, 'notYourPeople']);
    expect((await elin!.call('POST', '/measures/behind', { ...asked, key: 'bia' })).status).toBe(403);
    expect((await figures(other)).count).toBeGreaterThan(0);
  });
});

describe('bad input', () => {
  test.each<[string, Partial<Chart>]>([
    ['a field that is gone', { by: 'shoeSize' }],
    ['a way in which it cannot be drawn', { by: 'teamId', show: 'heat' }],
    ['more buckets than are shown', { every: 'hour', show: 'line', stretch: { last: 1, unit: 'year' } }],
    ['a condition on what there is not', { where: { field: 'sky', op: 'is', value: 'blue' } }],
  ])('%s is refused with the field at fault', async (_, chart) => {
    expect(await refused(ask(chart))).toEqual([422, 'fieldsNotValid']);
  });

  test('a period without anything has figures all the same', async () => {
    const none = ask({
      where: { field: 'via', op: 'is', value: 'room' },
      by: null,
      every: 'week',
      show: 'line',
    });
    expect(await figures(none)).toMatchObject({ count: 0, total: 0, groups: [] });
    const mean = ask({
      what: { mean: 'rating' },
      where: { field: 'via', op: 'is', value: 'room' },
      by: null,
      show: 'number',
    });
    expect((await figures(mean)).total).toBeNull();
  });
});

test('every kind of fact can be counted, parted and looked behind', async () => {
  for (const [of, by] of [
    ['approvals', 'decision'],
    ['steps', 'stepTeamId'],
    ['time', 'category'],
    ['conversations', 'lineId'],
    ['assistant', 'outcome'],
    ['articles', 'articleId'],
    ['outages', 'notice'],
    ['works', 'risk'],
  ] as const) {
    const asked = ask({ of, by });
    expect([of, (await figures(asked)).groups]).toEqual([of, []]);
    expect([of, await behind(asked)]).toEqual([of, []]);
  }
});

describe('as a file', () => {
  const file = async (asked: AskedChart, as: string, what = 'figures') => {
    const query = new URLSearchParams({ asked: JSON.stringify(asked), as, what });
    const cookie = (await app.as('marta')) as Person;
    return cookie.call('GET', `/measures/out?${query.toString()}`);
  };
  test('the figures are those of the chart', async () => {
    const asked = ask({ by: 'teamId' });
    const { groups } = await figures(asked);
    const { body } = await file(asked, 'json');
    expect((body as { key: string; figure: number }[]).map(({ key, figure }) => [key, figure])).toEqual(
      groups.map(({ key, total }) => [key, total]),
    );
  });

  test('what stands behind it is all of it', async () => {
    const asked = ask({ by: 'teamId' });
    const { body } = await file(asked, 'json', 'behind');
    expect(body).toHaveLength((await figures(asked)).count);
  });

  test('what cannot be read is refused', async () => {
    const { status } = await marta!.call('GET', '/measures/out?asked=%7B&as=csv&what=figures');
    expect(status).toBe(400);
  });
});
