import type { Transaction } from 'sequelize';
import type { api } from '../../contract';
import type { AnswerOf } from '../../contract/endpoint';
import type { RankedRequest } from '../../contract/plans';
import { rank, type Ranked } from '../../core/plans';
import { createRights, may, mayRank } from '../../core/rights';
import { toPlain } from '../../core/words';
import { definitionOf } from '../catalogue/versions';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { factsOf } from '../tickets/answered';
import { readPeople } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { findGuarded } from '../tickets/guard';
import type { TicketRecord } from '../tickets/model';
import type { StepRow } from './model';
import type { Viewing } from '../unitOfWork';

type RankedStep = Ranked & Pick<StepRow, 'ticketNumber' | 'stepId'>;

export const keyOf = ({ ticketNumber, stepId }: Pick<StepRow, 'ticketNumber' | 'stepId'>): string =>
  `${ticketNumber} ${stepId}`;

/** The requests that teams rank now, each team's in its order. */
export async function listRanked(
  { db }: Listo,
  teamIds: string[],
  tx?: Transaction,
): Promise<(RankedStep & { teamId: string })[]> {
  if (teamIds.length === 0) return [];
  const rows = await db.select<Omit<RankedStep, 'key'> & { teamId: string }>(
    `SELECT ps.ticketNumber, ps.stepId, ps.teamId, ps.place, ps.startedAt FROM plan_steps ps
     JOIN tickets t ON t.number = ps.ticketNumber AND t.state IN ('received', 'inWork', 'held')
     WHERE ps.teamId IN (:teamIds) AND ps.state = 'active' AND JSON_VALUE(ps.definition, '$.kind') = 'ranking'`,
    { teamIds },
    tx,
  );
  return rank(rows.map((row) => ({ ...row, key: keyOf(row) })));
}

/** The places of those steps of a ticket that are being ranked. */
export async function readPlaces(
  listo: Listo,
  steps: StepRow[],
): Promise<Map<string, { place: number; count: number }>> {
  const ranked = steps.filter(({ definition, state }) => definition.kind === 'ranking' && state === 'active');
  const all = await listRanked(
    listo,
    ranked.flatMap(({ teamId }) => teamId ?? []),
  );
  return new Map(
    ranked.map((step) => {
      const beside = all.filter(({ teamId }) => teamId === step.teamId);
      const place = beside.findIndex(({ key }) => key === keyOf(step)) + 1;
      return [step.stepId, { place, count: beside.length }];
    }),
  );
}

/** What the requester was last told by the team. */
async function readLastWord(listo: Listo, ticketNumber: number): Promise<RankedRequest['lastWord']> {
  const [word] = await listo.db.select<{ text: string; format: string; at: number; by: string }>(
    `SELECT m.text, m.format, m.at, p.name AS \`by\` FROM messages m JOIN people p ON p.id = m.authorId
     WHERE m.ticketNumber = :ticketNumber AND m.readBy = 'requester' AND m.isByTeam ORDER BY m.at DESC LIMIT 1`,
    { ticketNumber },
  );
  return word
    ? { text: word.format === 'rich' ? toPlain(word.text) : word.text, at: word.at, by: word.by }
    : null;
}

async function toRequest(
  { listo, viewer: { language } }: Viewing,
  ticket: TicketRecord,
  { stepId }: RankedStep,
): Promise<RankedRequest> {
  const { tables } = listo.db;
  const { number, title, requesterId, answers } = ticket;
  const [step, plan, service, people, lastWord] = await Promise.all([
    tables.planSteps.findOne({ ticketNumber: number, stepId }),
    tables.plans.findOne({ ticketNumber: number }),
    definitionOf(listo, ticket),
    readPeople(listo, [requesterId]),
    readLastWord(listo, number),
  ]);
  return {
    ...{ number, title, stepId, version: step!.version, step: step!.definition.name },
    ...{ service: service.title, requester: people.get(requesterId)!, lastWord },
    ...{ since: step!.startedAt!, neededBy: step!.neededBy },
    ...{ promisedAt: plan!.promisedAt, forecastAt: plan!.forecastAt },
    facts: factsOf(service.form, answers, language).split('\n').filter(Boolean),
  };
}

/** The large requests of a team that wait for their turn, in their order; those that the viewer may read. */
export async function readRanking(
  listo: Listo,
  viewer: SignedIn,
  teamId: string,
): Promise<AnswerOf<typeof api.plans.ranking>> {
  const team = await listo.db.tables.teams.findOne({ id: teamId });
  if (!team) throw new ProblemError('notFound');
  const isOfTeam = viewer.teams.some((each) => each.teamId === teamId);
  if (!isOfTeam && !mayRank(viewer, teamId)) throw new ProblemError('forbidden');
  const rights = createRights(viewer);
  const requests: RankedRequest[] = [];
  for (const ranked of await listRanked(listo, [teamId])) {
    const found = await findGuarded(listo, ranked.ticketNumber);
    if (found && may(rights, 'read', found.guarded))
      requests.push(await toRequest({ listo, viewer }, found.ticket, ranked));
  }
  return { team: { id: teamId, name: team.name }, requests, mayRank: mayRank(viewer, teamId) };
}
