import { createTargets } from './targets';
import { holds, type Condition } from '../core/conditions';
import {
  checkTarget,
  findDouble,
  toDefinition,
  toSentence,
  twoPromises,
  type TargetDefinition,
} from '../core/targets';

const all = createTargets().map(({ definition }) => definition);
const teamCalendars = all[0]!.calendars;
const own = twoPromises({ teamId: 'crewing', teamName: 'Crewing', calendarId: 'office' }).map(
  ({ definition }): TargetDefinition => ({ ...definition, warnAtPercent: [80] }),
);

/** Fields as tickets have them, in many combinations. */
function* ticketsToTry(): Generator<Record<string, unknown>> {
  for (const work of ['ticket', 'approval'])
    for (const state of ['received', 'inWork', 'held', 'done', 'withdrawn'])
      for (const heldFor of [null, 'approval', 'supplier', 'requester'])
        for (const teamId of ['network', 'desk', 'people', 'crewing'])
          for (const kind of ['incident', 'request'])
            for (const outcome of ['open', 'approved'])
              yield {
                work,
                state,
                heldFor,
                teamId,
                kind,
                outcome,
                hasPlan: kind === 'request',
                answered: false,
              };
}
const agree = (one: Condition, other: Condition): boolean =>
  [...ticketsToTry()].every((fields) => holds(one, fields) === holds(other, fields));

test.each([...all, ...own].map((definition) => [definition.name, definition] as const))(
  'a sentence and back says the same: %s',
  (_, definition) => {
    const again = toDefinition(toSentence(definition, teamCalendars), definition, teamCalendars);
    expect(agree(again.startWhen, definition.startWhen)).toBe(true);
    expect(again.stopWhen).toEqual(definition.stopWhen);
    expect(again.pauseWhen).toEqual(definition.pauseWhen);
    expect(again.limits).toEqual(definition.limits);
    expect(again.calendars).toEqual(definition.calendars);
    expect(again.cancelWhen).toEqual(definition.cancelWhen);
    expect(toSentence(again, teamCalendars)).toEqual(toSentence(definition, teamCalendars));
  },
);

test('words that are changed change just that', () => {
  const [first] = all;
  const sentence = toSentence(first!, teamCalendars);
  expect(sentence).toMatchObject({
    work: { of: 'ticket', when: 'opened' },
    stops: 'answered',
    calendar: { follows: 'team' },
  });
  const changed = toDefinition(
    { ...sentence, limits: { all: 'PT1H' }, pauses: { heldFor: ['requester'] } },
    first!,
    teamCalendars,
  );
  expect(changed).toEqual({
    ...first,
    startWhen: changed.startWhen,
    limits: [{ duration: 'PT1H' }],
    pauseWhen: {
      all: [
        { field: 'state', op: 'is', value: 'held' },
        { field: 'heldFor', op: 'in', value: ['requester'] },
      ],
    },
  });
  // What the words do not cover stays as it was.
  const odd = { ...first!, stopWhen: { field: 'rating', op: 'gt', value: 3 } } as TargetDefinition;
  expect(toSentence(odd, teamCalendars).stops).toBeNull();
  expect(toDefinition(toSentence(odd, teamCalendars), odd, teamCalendars).stopWhen).toEqual(odd.stopWhen);
});

test('limits that grow with priority, and the same promised twice, are found', () => {
  const [first, second] = all as [TargetDefinition, TargetDefinition];
  expect(checkTarget(first)).toEqual([]);
  const limits = [
    { when: { field: 'priority', op: 'is', value: 'P1' } as const, duration: 'PT9H' },
    { duration: 'PT8H' },
  ];
  expect(checkTarget({ ...first, limits })).toEqual([{ field: 'limits', code: 'limitsGrow' }]);
  expect(findDouble(first, all)).toBeNull();
  expect(findDouble({ ...first, id: 'again', name: 'Again' }, all)?.id).toBe('first-answer');
  expect(findDouble(second, all)).toBeNull();
});
