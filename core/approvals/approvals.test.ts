import fc from 'fast-check';
import {
  BadCount,
  BadPercent,
  decideStep,
  findDeciders,
  findVoters,
  NoVoters,
  type Absence,
  type Directory,
  type Vote,
} from './index';

const vote = (voter: string, decision: Vote['decision'], at: number): Vote => ({
  voter,
  by: voter,
  decision,
  at,
});
const voters = ['ana', 'rui', 'eva', 'joel'];

describe('deciding a step', () => {
  test.each([
    [{ kind: 'any' as const }, 1],
    [{ kind: 'all' as const }, 4],
    [{ kind: 'count' as const, count: 9 }, 4],
    [{ kind: 'percent' as const, percent: 50 }, 2],
    [{ kind: 'percent' as const, percent: 0 }, 1],
    [{ kind: 'percent' as const, percent: 51 }, 3],
  ])('%j of four needs %i', (needs, needed) =>
    expect(decideStep(needs, 'any', voters, []).needed).toBe(needed),
  );

  test('a first decline declines, or only when approval is out of reach', () => {
    const votes = [vote('ana', 'decline', 1), vote('rui', 'approve', 2), vote('eva', 'approve', 3)];
    const half = { kind: 'count' as const, count: 2 };
    expect(decideStep(half, 'any', voters, votes)).toMatchObject({ outcome: 'declined', decidedAt: 1 });
    const outcome = decideStep(half, 'outOfReach', voters, votes);
    expect(outcome).toMatchObject({ outcome: 'approved', decidedAt: 3, declines: 1, outstanding: ['joel'] });
  });

  test('only the first vote of a voter counts', () => {
    const votes = [vote('ana', 'decline', 1), vote('ana', 'approve', 2), vote('stranger', 'approve', 3)];
    expect(decideStep({ kind: 'any' }, 'outOfReach', voters, votes)).toMatchObject({
      outcome: 'open',
      approvals: 0,
    });
  });

  test('impossible steps are refused', () => {
    expect(() => decideStep({ kind: 'any' }, 'any', [], [])).toThrow(NoVoters);
    expect(() => decideStep({ kind: 'count', count: 0 }, 'any', voters, [])).toThrow(BadCount);
    expect(() => decideStep({ kind: 'percent', percent: 101 }, 'any', voters, [])).toThrow(BadPercent);
  });

  test('votes after the decision change nothing', () => {
    const votes = fc.array(
      fc.record({
        voter: fc.constantFrom(...voters),
        decision: fc.constantFrom('approve' as const, 'decline' as const),
      }),
    );
    fc.assert(
      fc.property(
        votes,
        fc.constantFrom('any' as const, 'outOfReach' as const),
        fc.integer({ min: 0, max: 100 }),
        (cast, declineBy, percent) => {
          const needs = { kind: 'percent' as const, percent };
          const all = cast.map(({ voter, decision }, at) => vote(voter, decision, at));
          const whole = decideStep(needs, declineBy, voters, all);
          if (whole.outcome === 'open') return;
          expect(
            decideStep(
              needs,
              declineBy,
              voters,
              all.filter(({ at }) => at <= whole.decidedAt!),
            ),
          ).toEqual(whole);
        },
      ),
    );
  });
});

describe('finding the voters', () => {
  const directory: Directory = {
    people: {
      tomas: { manager: 'ana' },
      ana: { manager: 'gone' },
      gone: { manager: 'eva', left: true },
      eva: {},
      rui: {},
      joel: {},
      sofia: {},
    },
    teams: { finance: { members: ['rui', 'joel'], leads: ['rui'] } },
    owners: { service: {}, costCentre: { harbour: 'joel' }, asset: {} },
    fallback: { tablet: 'sofia' },
  };
  const asked = { requester: 'tomas', recipient: 'tomas', service: 'tablet', costCentre: 'harbour' };
  const find = (refs: Parameters<typeof findVoters>[0], absences: Absence[] = [], who = asked) =>
    findVoters(refs, who, directory, absences, 100);
  const away = (person: string, delegate?: string): Absence => ({
    person,
    from: 0,
    to: 200,
    ...(delegate && { delegate }),
  });

  test('the manager, the second one up past someone who left, the owner, the leads', () => {
    const { voters: found } = find([
      { manager: 'ofRequester' },
      { manager: 'ofRequester', levels: 2 },
      { ownerOf: 'costCentre' },
      { team: 'finance', only: 'leads' },
    ]);
    expect(found.map(({ voter, reason }) => [voter, reason])).toEqual([
      ['ana', 'manager'],
      ['eva', 'manager'],
      ['joel', 'owner'],
      ['rui', 'lead'],
    ]);
  });

  test('nobody decides their own request: one up, then the fallback, then a problem', () => {
    expect(find([{ person: 'tomas' }]).voters).toMatchObject([{ voter: 'ana', reason: 'oneUp' }]);
    const top = { ...asked, requester: 'eva', recipient: 'eva' };
    expect(find([{ person: 'eva' }], [], top).voters).toMatchObject([{ voter: 'sofia', reason: 'fallback' }]);
    expect(find([{ person: 'eva' }], [], { ...top, service: 'other' })).toEqual({
      voters: [],
      problems: [{ code: 'noVoter' }],
    });
  });

  test('an absent person is asked through their delegate, hop by hop', () => {
    expect(find([{ person: 'ana' }], [away('ana', 'rui'), away('rui', 'joel')]).voters).toEqual([
      { voter: 'ana', by: 'joel', reason: 'named', via: ['ana', 'rui'] },
    ]);
  });

  test('a ring or the requester as delegate leaves the ask where it was, with a problem', () => {
    const ring = find([{ person: 'ana' }], [away('ana', 'rui'), away('rui', 'ana')]);
    expect(ring).toMatchObject({
      voters: [{ voter: 'ana', by: 'rui' }],
      problems: [{ code: 'delegateCannot', person: 'ana' }],
    });
    expect(find([{ person: 'ana' }], [away('ana', 'tomas')]).voters).toMatchObject([{ by: 'ana', via: [] }]);
  });

  test('two absent people with one delegate are two voters, one found twice is one', () => {
    const absences = [away('ana', 'joel'), away('rui', 'joel')];
    expect(find([{ person: 'ana' }, { person: 'rui' }], absences).voters).toHaveLength(2);
    expect(find([{ person: 'rui' }, { team: 'finance', only: 'leads' }]).voters).toMatchObject([
      { voter: 'rui', reason: 'named' },
    ]);
  });

  test('with nobody there to say anything, the fallback takes it alone', () => {
    const decide = (refs: Parameters<typeof findVoters>[0], absences: Absence[] = [], who = asked) =>
      findDeciders(refs, who, directory, absences, 100).voters;
    const alone = [{ voter: 'sofia', by: 'sofia', reason: 'fallback', via: [] }];
    expect(decide([{ team: 'nobodies' }])).toEqual(alone);
    expect(decide([{ person: 'ana' }, { person: 'rui' }], [away('ana'), away('rui')])).toEqual(alone);
    // One who is there, or someone in their place, is enough.
    expect(decide([{ person: 'ana' }, { person: 'rui' }], [away('ana')])).toHaveLength(2);
    expect(decide([{ person: 'ana' }], [away('ana', 'rui')])).toMatchObject([{ voter: 'ana', by: 'rui' }]);
    // It stays where it is while the fallback is away too, or is the one who asks.
    expect(decide([{ person: 'ana' }], [away('ana'), away('sofia')])).toMatchObject([{ voter: 'ana' }]);
    const own = { ...asked, requester: 'sofia', recipient: 'sofia' };
    expect(decide([{ person: 'ana' }], [away('ana')], own)).toMatchObject([{ voter: 'ana' }]);
    expect(decide([{ team: 'nobodies' }], [], own)).toEqual([]);
  });
});
