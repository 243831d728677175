import fc from 'fast-check';
import {
  actsOf,
  adviseTemplate,
  BESIDE_MS,
  checkSubmitted,
  checkWindow,
  isBeside,
  needsReview,
  stageOf,
  WORK_OUTCOMES,
  WORK_SORTS,
  WORK_STAGES,
  type SaidWork,
  type WorkOutcome,
} from './index';

const HOUR = 3_600_000;
const facts = { submittedAt: null, startedAt: null, outcome: null };
const open = { state: 'received', heldFor: null, isDeclined: false } as const;
const asked = { ...open, state: 'held', heldFor: 'approval' } as const;

test.each([
  ['draft', facts, open],
  ['asked', { ...facts, submittedAt: 1 }, asked],
  ['planned', { ...facts, submittedAt: 1 }, open],
  ['planned', { ...facts, submittedAt: 1 }, { ...open, state: 'held', heldFor: 'supplier' }],
  ['declined', { ...facts, submittedAt: 1 }, { ...open, state: 'closed', isDeclined: true }],
  ['withdrawn', { ...facts, submittedAt: 1 }, { ...open, state: 'withdrawn' }],
  ['goingOn', { ...facts, submittedAt: 1, startedAt: 2 }, asked],
  ['failed', { submittedAt: 1, startedAt: 2, outcome: 'failed' }, { ...open, state: 'done' }],
] as const)('a change is %s', (stage, given, ticket) => expect(stageOf(given, ticket)).toBe(stage));

test('what is asked waits, but for an emergency', () => {
  expect(actsOf('asked', 'normal')).not.toContain('start');
  expect(actsOf('asked', 'emergency')).toContain('start');
  expect(actsOf('planned', 'normal')).toContain('start');
});

test('nothing is begun that was not submitted, nothing is ended that was not begun, nothing is changed once it has begun', () => {
  for (const stage of WORK_STAGES)
    for (const sort of WORK_SORTS) {
      const acts = actsOf(stage, sort);
      if (acts.includes('start')) expect(['asked', 'planned']).toContain(stage);
      if (acts.includes('end')) expect(stage).toBe('goingOn');
      if (acts.includes('change')) expect(['draft', 'asked', 'planned']).toContain(stage);
    }
});

// Common practice, no source: an emergency change is reviewed afterwards.
test.each(WORK_SORTS)('of %s changes, what went wrong is reviewed; an emergency always', (sort) => {
  expect(needsReview(sort, 'failed')).toBe(true);
  expect(needsReview(sort, 'takenBack')).toBe(true);
  expect(needsReview(sort, 'done')).toBe(sort === 'emergency');
  expect(needsReview(sort, null)).toBe(false);
});

const whole: SaidWork = {
  ...{
    sort: 'normal',
    fromAt: 10 * HOUR,
    toAt: 12 * HOUR,
    why: 'Old',
    test: 'Ping',
    takeBack: 'Old one back',
  },
  thingIds: ['switch'],
};
test.each([
  ['nothing', {}, []],
  ['where it begins', { fromAt: null }, ['fromAt missing']],
  ['an end after its beginning', { toAt: 10 * HOUR }, ['toAt endsBeforeBegins']],
  ['what it is done to', { thingIds: [] }, ['things missing']],
  ['how it is taken back', { takeBack: ' ' }, ['takeBack missing']],
  ['a beginning that has not gone by', { fromAt: HOUR }, ['fromAt isOver']],
  ['nothing where it cannot wait', { fromAt: HOUR, sort: 'emergency' as const }, []],
])('before it is submitted it lacks %s', (_, given, expected) => {
  const problems = checkSubmitted({ ...whole, ...given }, 2 * HOUR);
  expect(problems.map(({ field, code }) => `${field} ${code}`)).toEqual(expected);
});

test('a draft may lack its window, but not have one that is none', () => {
  expect(checkWindow({ fromAt: null, toAt: 1 })).toEqual([]);
  expect(checkWindow({ fromAt: 1, toAt: 1 })).toHaveLength(1);
});

const well = (count: number): WorkOutcome[] => Array.from({ length: count }, () => 'done');
test('a template is proposed once it has gone well often enough, and loses it with the first that goes wrong', () => {
  expect(adviseTemplate(well(34), false)).toBeNull();
  expect(adviseTemplate(well(35), false)).toBe('propose');
  expect(adviseTemplate([...well(60), 'failed'], false)).toBeNull();
  expect(adviseTemplate(['failed', ...well(60)], false)).toBe('propose');
  expect(adviseTemplate([...well(60), 'takenBack'], true)).toBe('lose');
  expect(adviseTemplate([], true)).toBeNull();
});

test('law: more faults never make a template fitter to be agreed beforehand', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(...WORK_OUTCOMES), { maxLength: 80 }),
      fc.nat(),
      (outcomes, place) => {
        if (outcomes.length === 0 || adviseTemplate(outcomes, false) === 'propose') return;
        const worse = outcomes.map((outcome, i) => (i === place % outcomes.length ? 'failed' : outcome));
        expect(adviseTemplate(worse, false)).toBeNull();
      },
    ),
  );
});

test('an incident is beside a change from its beginning until two days after its end', () => {
  const work = { startedAt: 10 * HOUR, endedAt: 12 * HOUR };
  expect(isBeside(work, 10 * HOUR - 1)).toBe(false);
  expect(isBeside(work, 10 * HOUR)).toBe(true);
  expect(isBeside(work, 12 * HOUR + BESIDE_MS - 1)).toBe(true);
  expect(isBeside(work, 12 * HOUR + BESIDE_MS)).toBe(false);
  expect(isBeside({ startedAt: 10 * HOUR, endedAt: null }, 9_000 * HOUR)).toBe(true);
});
