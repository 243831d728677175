import { api } from '../../contract';
import { readsDesk } from '../../core/rights';
import type { TicketState } from '../../core/tickets';
import { readBefore } from '../conversations/read';
import { ProblemError } from '../http/problems';
import { serve, type Routes } from '../http/serve';
import { getKnownFacts } from '../sessions/me';
import { visibleTo } from '../tickets/visibility';

/** What whoever helps someone sees of them: who they are, their tickets and conversations as far as these may be read. */
export const personCardRoutes: Routes = (router, listo) => {
  const { people } = api;
  const { tables, select } = listo.db;

  serve(router, people.card, async ({ viewer, params }) => {
    if (!readsDesk(viewer)) throw new ProblemError('forbidden');
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
      conversations: await readBefore({ listo, viewer }, id),
      known: getKnownFacts(person, site.name),
    };
  });
};
