import { escapeLike } from '../database/like';
import { api } from '../../contract';
import { isAgent, maySetUp } from '../../core/rights';
import type { TicketState } from '../../core/tickets';
import { ProblemError } from '../http/problems';
import type { SignedIn } from '../sessions/viewer';
import { comeBackAgain, leave, readLeaving } from './leaving';
import { readBefore } from '../conversations/read';
import { getKnownFacts } from '../sessions/me';
import { visibleTo } from '../tickets/visibility';
import { DEFAULT_WEIGHTS } from '../../core/worklist';
import { mayLead } from '../worklists/lists';
import { serve, type Routes } from '../http/serve';

const FOUND = 12;
/** A telephone number is found by its end, nearly whole: by single digits it could be tried out. */
const FEWEST_DIGITS = 6;
type Card = { id: string; name: string; goesFirst: boolean | number; title: string; site: string };

export const peopleRoutes: Routes = (router, listo) => {
  const { people } = api;
  const { tables, select } = listo.db;

  serve(router, people.search, async ({ query }) => {
    const pattern = `%${escapeLike(query.q.trim())}%`;
    const rows = await select<Card>(
      `SELECT p.id, p.name, p.goesFirst, p.title, s.name AS site FROM people p JOIN sites s ON s.id = p.siteId
       WHERE (p.name LIKE :pattern OR p.device LIKE :pattern OR p.vessel LIKE :pattern OR s.name LIKE :pattern
         OR (:digits <> '' AND REPLACE(REPLACE(p.phone, ' ', ''), '-', '') LIKE CONCAT('%', :digits)))
         AND p.leftAt IS NULL ORDER BY p.name NOT LIKE :pattern, p.name LIMIT :limit`,
      {
        pattern,
        limit: FOUND,
        digits: query.q.replace(/\D/g, '').length >= FEWEST_DIGITS ? query.q.replace(/\D/g, '') : '',
      },
    );
    return rows.map((row) => ({ ...row, goesFirst: Boolean(row.goesFirst) }));
  });

  serve(router, people.card, async ({ viewer, params }) => {
    if (!isAgent(viewer)) throw new ProblemError('forbidden');
    const person = await tables.people.findOne({ id: params.id, leftAt: null });
    const site = person && (await tables.sites.findOne({ id: person.siteId }));
    if (!person || !site) throw new ProblemError('notFound');
    const manager = person.managerId === null ? null : await tables.people.findOne({ id: person.managerId });
    const visible = visibleTo(viewer);
    const tickets = await select<{
      number: number;
      title: string;
      state: TicketState;
      createdAt: number;
      rating: number | null;
    }>(
      `SELECT t.number, t.title, t.state, t.createdAt, t.rating FROM tickets t WHERE t.requesterId = :requesterId AND ${visible.sql}
       ORDER BY t.state IN ('received', 'inWork', 'held') DESC, t.number DESC LIMIT 12`,
      { ...visible.values, requesterId: person.id },
    );
    const { id, name, goesFirst, title, phone, email, department } = person;
    return {
      ...{ id, name, goesFirst, title, phone, email, department, site: site.name, tickets },
      manager: manager?.name ?? null,
      conversations: await readBefore(listo, viewer, id),
      known: getKnownFacts(person, site.name),
    };
  });

  const mustAdminister = ({ isAdministrator }: SignedIn): void => {
    if (!isAdministrator) throw new ProblemError('forbidden');
  };
  serve(router, people.leavers, async ({ viewer }) => {
    mustAdminister(viewer);
    const rows = await select<Card & { leftAt: number }>(
      `SELECT p.id, p.name, p.goesFirst, p.title, s.name AS site, p.leftAt FROM people p JOIN sites s ON s.id = p.siteId
       WHERE p.leftAt IS NOT NULL ORDER BY p.leftAt DESC, p.name LIMIT 200`,
    );
    return rows.map((row) => ({ ...row, goesFirst: Boolean(row.goesFirst) }));
  });
  serve(router, people.leaving, async ({ viewer, params }) => {
    mustAdminister(viewer);
    return readLeaving(listo, params.id);
  });
  serve(router, people.leave, async ({ viewer, actor, params, body }) => {
    mustAdminister(viewer);
    return leave(listo, viewer, actor, params.id, body.version);
  });
  serve(router, people.comeBack, async ({ viewer, actor, params, body }) => {
    mustAdminister(viewer);
    return comeBackAgain(listo, viewer, actor, params.id, body.version);
  });

  serve(router, people.teams, async ({ viewer }) => {
    const teams = await tables.teams.find({}, { order: ['id'] });
    const groups = await tables.groups.find({}, { order: ['name'] });
    const members = await select<{
      teamId: string;
      id: string;
      name: string;
      role: string;
      groupId: string | null;
    }>(
      `SELECT m.teamId, p.id, p.name, m.role, m.groupId FROM team_members m
       JOIN people p ON p.id = m.personId AND p.leftAt IS NULL ORDER BY p.name`,
    );
    return teams.map(
      ({
        id,
        name,
        isConfidential,
        calendarId,
        outOfHours,
        decidesInChat,
        answersMail,
        givenOnBy,
        progressLabels,
        orderWeights,
        version,
      }) => ({
        outOfHours,
        decidesInChat,
        answersMail,
        givenOnBy,
        progressLabels,
        version,
        orderWeights: orderWeights ?? DEFAULT_WEIGHTS,
        mayEdit: maySetUp(viewer, id),
        mayLead: mayLead(viewer, id),
        id,
        name,
        isConfidential,
        calendarId,
        groups: groups
          .filter(({ teamId }) => teamId === id)
          .map(({ id: groupId, name: groupName }) => ({ id: groupId, name: groupName })),
        members: members.filter(({ teamId }) => teamId === id).map(({ teamId: _, ...member }) => member),
      }),
    );
  });
};
