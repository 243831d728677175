import type { Viewer } from '../../core/rights';
import { startTestListo, type TestListo } from '../testing/harness';
import { findGuarded, listRights } from './guard';
import { NOTHING_DUE } from './model';
import { visibleTo } from './visibility';

/** The right to read a ticket is said twice, in core and in SQL: here each says of every case what the other says. */
let app: TestListo;
beforeAll(async () => {
  app = await startTestListo('visibility');
});
afterAll(() => app.end());

const closed = (who: Viewer, ...closedTeamIds: string[]): Viewer => ({ ...who, closedTeamIds });
const viewer = (id: string, ...teamIds: string[]): Viewer => ({
  id,
  isAdministrator: id === 'someAdministrator',
  mayAskForOthers: true,
  teams: teamIds.map((teamId) => ({ teamId, role: 'agent' })),
});
/** Viewers, with how many of the 216 cases they may read: all but those of others that are closed to their teams. */
const VIEWERS: [Viewer, number][] = [
  [viewer('me'), 204],
  [viewer('me', 'onboard'), 214],
  [viewer('me', 'people'), 212],
  [viewer('me', 'onboard', 'people'), 215],
  [viewer('someAdministrator'), 108],
  // A team that keeps its work to itself is read by those who are part of a ticket alone.
  [closed(viewer('nobody', 'people'), 'network'), 108],
  [closed(viewer('nobody', 'network'), 'onboard', 'people'), 72],
  [closed(viewer('nobody'), 'onboard'), 0],
];

type Case = {
  teamId: string;
  isConfidential: boolean;
  requesterId: string;
  follower: 'alsoTold' | 'collaborator' | null;
  ask: 'asked' | 'voter' | null;
  stepTeamId: 'onboard' | null;
};
const CASES: Case[] = ['onboard', 'people', 'network'].flatMap((teamId) =>
  [false, true].flatMap((isConfidential) =>
    ['me', 'other'].flatMap((requesterId) =>
      ([null, 'alsoTold', 'collaborator'] as const).flatMap((follower) =>
        ([null, 'asked', 'voter'] as const).flatMap((ask) =>
          ([null, 'onboard'] as const).map((stepTeamId) => ({
            ...{ teamId, isConfidential, requesterId, follower, ask, stepTeamId },
          })),
        ),
      ),
    ),
  ),
);

async function insert({
  teamId,
  isConfidential,
  requesterId,
  follower,
  ask,
  stepTeamId,
}: Case): Promise<number> {
  const { tables } = app.listo.db;
  const number = await tables.tickets.insert({
    ...{ version: 1, kind: 'request', title: 'Any', serviceId: 'kiosk', teamId, isConfidential, requesterId },
    ...{
      state: 'received',
      priority: 'P3',
      impact: 'person',
      urgency: 'slowsWork',
      via: 'portal',
      place: '',
    },
    ...{ answers: {}, answered: false, createdAt: 1, changedAt: 1, tightestDueAt: NOTHING_DUE },
    isDeclined: false,
  });
  if (follower) await tables.followers.insert({ ticketNumber: number, personId: 'me', role: follower });
  if (ask)
    await tables.asks.insert({
      ...{ id: `ask-${number}`, approvalId: 'any', ticketNumber: number, reason: 'named', askedAt: 1 },
      voterId: ask === 'voter' ? 'me' : 'other',
      askedId: ask === 'asked' ? 'me' : 'other',
    } as never);
  // One that waits for its turn is nothing to its team yet.
  for (const [i, state] of (stepTeamId ? ['active'] : ['waiting']).entries())
    await tables.planSteps.insert({
      ...{ ticketNumber: number, stepId: `step-${i}`, position: i, state: state as 'active', neededBy: 1 },
      ...{ teamId: 'onboard', definition: {} as never, ticked: [], version: 1 },
    });
  return number;
}

test('the list and the single ticket agree on who may read, in every case', async () => {
  const { listo } = app;
  const numbers: number[] = [];
  for (const each of CASES) numbers.push(await insert(each));
  for (const [who, count] of VIEWERS) {
    const { sql, values } = visibleTo(who);
    const rows = await listo.db.select<{ number: number }>(
      `SELECT t.number FROM tickets t WHERE ${sql} ORDER BY t.number`,
      values,
    );
    const byCore: number[] = [];
    for (const number of numbers) {
      const { guarded } = (await findGuarded(listo, number))!;
      if (listRights(who, guarded, ['read']).length > 0) byCore.push(number);
    }
    expect(rows.map(({ number }) => number)).toEqual(byCore);
    expect(byCore).toHaveLength(count);
  }
});
