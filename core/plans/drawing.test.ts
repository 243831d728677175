import fc from 'fast-check';
import type { ProcessStep } from '../approvals';
import { parseDuration } from '../calendar';
import { expectAnswer, withApprovalTimes } from './approvalTime';
import { checkPlan } from './checkPlan';
import {
  agreeFirst,
  approvalsOf,
  beginPlan,
  keyOfWords,
  moveLeg,
  nameKeys,
  newStep,
  orderSteps,
} from './drawing';
import type { ServicePlan, ServiceStep } from './servicePlan';

const WALL = { hoursPerDay: 24 };
const MINUTE = 60_000;
const words = (en: string) => ({ en, pt: en });
const agreed = (en: string, more: Partial<ProcessStep> = {}): ProcessStep => ({
  ...{ name: words(en), refs: [{ manager: 'ofRequester' }], needs: { kind: 'any' }, declineBy: 'any' },
  ...more,
});
const shapeOf = ({ legs, steps }: ServicePlan) => ({
  legs: legs.map(({ id }) => id),
  steps: steps.map(({ id, leg, kind, after }) => ({
    ...{ id, leg, kind, effort: 0, calendarId: '' },
    ...(after && { after }),
  })),
});

describe('how long an answer is expected to take', () => {
  const silence = { after: 'P2D', then: 'remind' } as const;

  test.each<[string, number[], string]>([
    ['the median of an odd number', [9, 1, 5, 3, 7].map((n) => n * MINUTE), 'PT5M'],
    ['between the two in the middle', [1, 2, 4, 5, 9, 9].map((n) => n * MINUTE), 'PT5M'],
    ['never nothing', [0, 0, 0, 0, 0], 'PT1M'],
    ['too few known: its silence period', [MINUTE, MINUTE, MINUTE, MINUTE], 'P2D'],
  ])('%s', (_, taken, expected) => expect(expectAnswer(taken, silence)).toBe(expected));

  test('nothing known and no silence period: a working day', () =>
    expect(expectAnswer([], undefined)).toBe('P1D'));

  test('it lies between the shortest and the longest, to the minute', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: MINUTE, max: 1e9 }), { minLength: 5 }), (taken) => {
        const expected = parseDuration(expectAnswer(taken, undefined), WALL);
        expect(expected).toBeGreaterThanOrEqual(Math.min(...taken));
        expect(expected).toBeLessThan(Math.max(...taken) + MINUTE);
      }),
    );
  });

  test('what was said by hand stays, and work is not touched', () => {
    const plan = beginPlan([agreed('One'), agreed('Other', { silence })], 'desk');
    const said = plan.steps.map((step) => (step.id === 'one' ? { ...step, effort: 'PT4H' } : step));
    const timed = withApprovalTimes({ ...plan, steps: said }, new Map([['one', [1, 1, 1, 1, 1]]]));
    expect(timed.steps.map(({ effort }) => effort)).toEqual(['PT4H', 'P2D', undefined]);
  });
});

describe('a drawing that begins', () => {
  test('approvals are its first part, in their order, with all that was said of them', () => {
    const when = { field: 'cost', op: 'over', value: 100 } as unknown as NonNullable<ProcessStep['when']>;
    const { legs, steps } = beginPlan([agreed('The budget is there'), agreed('Agreed', { when })], 'desk');
    expect(legs.map(({ id }) => id)).toEqual(['agree', 'do']);
    expect(steps.map(({ id, leg, kind, after, when: only }) => [id, leg, kind, after, only])).toEqual([
      ['theBudgetIsThere', 'agree', 'approval', undefined, undefined],
      ['agreed', 'agree', 'approval', ['theBudgetIsThere'], when],
      ['newStep1', 'do', 'task', undefined, undefined],
    ]);
  });

  test('without approvals there is one part with one step', () => {
    const { legs, steps } = beginPlan([], 'desk');
    expect([legs.length, steps.length]).toEqual([1, 1]);
  });

  test('whatever approvals there were, it is a sound plan, from which they come back as they were', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 6 }), (names) => {
        const approvals = names.map((name) => agreed(name));
        const plan = beginPlan(approvals, 'desk');
        expect(checkPlan(shapeOf(plan))).toEqual([]);
        expect(approvalsOf(plan)).toEqual(approvals);
        expect(checkPlan(shapeOf(agreeFirst(plan, approvals)))).toEqual([]);
      }),
    );
  });

  test('a step that is named gets a key of its name, and who waits for it waits for it still', () => {
    const [first, next] = [newStep({ steps: [] }, 'do', 'desk'), 'clean'];
    const plan: ServicePlan = {
      legs: [{ id: 'do', name: words('Do') }],
      steps: [
        { ...first, name: words('Pack the box') },
        { ...first, id: next, name: words('Clean'), after: [first.id] },
      ],
    };
    const named = nameKeys(plan);
    expect(named.steps.map(({ id, after }) => [id, after])).toEqual([
      ['packTheBox', undefined],
      ['clean', ['packTheBox']],
    ]);
    expect(nameKeys(named)).toBe(named);
  });

  test('a key is made of words, without accents, and no two are alike', () => {
    expect(keyOfWords('Preparar a secretária nº 3!', [])).toBe('prepararASecretariaN3');
    expect(keyOfWords('…', [])).toBe('step');
    expect(keyOfWords('Desk', ['desk', 'desk2'])).toBe('desk3');
  });

  test('each new step has a name and a key of its own', () => {
    const steps: ServiceStep[] = [];
    for (let i = 0; i < 3; i++) steps.push(newStep({ steps }, 'do', 'desk'));
    expect(steps.map(({ name }) => name.en)).toEqual(['New step 1', 'New step 2', 'New step 3']);
    expect(new Set(steps.map(({ id }) => id)).size).toBe(3);
  });
});

describe('another order', () => {
  const step = (id: string, leg: string): ServiceStep => ({
    ...{ id, leg, kind: 'task', teamId: 'desk', name: words(id) },
  });
  const plan: ServicePlan = {
    legs: ['x', 'y'].map((id) => ({ id, name: words(id) })),
    steps: [step('a', 'x'), step('p', 'y'), step('b', 'x'), step('c', 'x')],
  };

  test('of the steps of a part: those of others stay where they are', () => {
    expect(orderSteps(plan, ['c', 'a', 'b']).steps.map(({ id }) => id)).toEqual(['c', 'p', 'a', 'b']);
  });

  test('of parts: one place at a time, and not past an end', () => {
    const orderOf = ({ legs }: ServicePlan): string => legs.map(({ id }) => id).join('');
    expect(orderOf(moveLeg(plan, 'x', 1))).toBe('yx');
    expect(orderOf(moveLeg(plan, 'x', -1))).toBe('xy');
    expect(orderOf(moveLeg(plan, 'y', 1))).toBe('xy');
  });
});
