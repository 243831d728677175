import type { Transaction } from 'sequelize';
import { planOutOfHours } from '../../core/hours';
import type { Calendars } from '../../core/targets';
import { isNews } from '../../core/telling';
import { fillBlanks } from '../../core/text';
import type { Priority } from '../../core/tickets';
import { append } from '../journal/append';
import type { Consumer } from '../journal/consumer';
import type { JournalRow } from '../journal/model';
import type { Listo } from '../listo';
import type { TeamRow } from '../people/model';
import { makeMove } from '../tickets/move';
import type { TicketRecord } from '../tickets/model';
import type { UnitOfWork } from '../unitOfWork';

/** Entries by which work arrives at a team. */
const ARRIVALS = new Set(['sent', 'granted', 'givenOn', 'reopened']);

const isArrival = ({ type, via }: JournalRow): boolean =>
  ARRIVALS.has(type) && (type === 'granted' || via !== 'rule');

/** Whether a ticket has become more urgent: what its team does with what arrives so urgent, it does with this one too. */
function isRaised({ changes }: JournalRow): boolean {
  const change = changes.priority;
  return change?.from != null && (change.to as Priority) < (change.from as Priority);
}

/** When a team opens next, for the requester to read in both languages; the zone is the team's. */
function opensWords(at: number, timeZone: string, language: string): string {
  const format = { weekday: 'long', hour: '2-digit', minute: '2-digit', hourCycle: 'h23', timeZone } as const;
  return new Intl.DateTimeFormat(language, format).format(at);
}

/** The teams with their hours, as they are at one instant. */
export type Hours = { teams: TeamRow[]; calendars: Calendars; now: number };

export async function readHours(listo: Listo, tx: Transaction): Promise<Hours> {
  const calendars = await listo.calendars.getAll();
  return {
    teams: await listo.db.tables.teams.find({}, { transaction: tx }),
    calendars,
    now: listo.clock.now(),
  };
}

type Judged = Pick<TicketRecord, 'teamId' | 'priority' | 'state' | 'via'>;

/** What a ticket's team does with it at this hour. */
function judge({ teams, calendars, now }: Hours, ticket: Judged): { goTo: string | null; isTold: boolean } {
  const team = teams.find(({ id }) => id === ticket.teamId);
  if (!team || (ticket.state !== 'received' && ticket.state !== 'inWork'))
    return { goTo: null, isTold: false };
  return planOutOfHours(team.outOfHours, ticket, {
    isWorking: (teamId) =>
      calendars[teams.find(({ id }) => id === teamId)?.calendarId ?? '']?.isWorking(now) ?? false,
  });
}

/** Lets tickets follow their teams' hours: some go to a team on duty, their requesters read when the team is back. */
export async function followHours(
  { listo, tx }: UnitOfWork,
  tickets: (Judged & { number: number })[],
  { isArriving }: { isArriving: boolean },
): Promise<void> {
  const hours = await readHours(listo, tx);
  for (const candidate of tickets) {
    const { goTo, ...judged } = judge(hours, candidate);
    const isTold = isArriving && judged.isTold && isNews(candidate);
    if (goTo === null && !isTold) continue;
    const ticket = await listo.db.tables.tickets.findOne({ number: candidate.number }, tx, true);
    if (!ticket || ticket.teamId !== candidate.teamId || ticket.state !== candidate.state) continue;
    const team = hours.teams.find(({ id }) => id === ticket.teamId)!;
    if (isTold) await tell({ listo, tx }, ticket, team);
    if (goTo !== null)
      await makeMove({ listo, tx }, ticket, {
        ...{ name: 'give', by: 'system', actorId: null, via: 'rule' },
        input: { teamId: goTo, groupId: null, assigneeId: null },
      });
  }
}

async function tell({ listo, tx }: UnitOfWork, ticket: TicketRecord, team: TeamRow): Promise<void> {
  const calendar = (await listo.calendars.getAll())[team.calendarId]!;
  const { en, pt } = team.outOfHours.words!;
  const opensAt = calendar.nextWorking(listo.clock.now());
  const { timeZone } = calendar.spec;
  await append(
    { listo, tx },
    {
      actorId: null,
      via: 'rule',
      type: 'outOfHours',
      ticketNumber: ticket.number,
      audience: 'requester',
      data: {
        opensAt,
        words: {
          en: fillBlanks(en, { opens: opensWords(opensAt, timeZone, 'en-GB') }),
          pt: fillBlanks(pt, { opens: opensWords(opensAt, timeZone, 'pt-PT') }),
        },
      },
    },
  );
}

/** Work that arrives, or becomes more urgent, while its team is off. Whose ticket it is has been told when it arrived. */
export const hoursConsumer: Consumer = {
  name: 'hours',
  hears: (entry) => isArrival(entry) || isRaised(entry),
  async handle(listo, heard, tx) {
    const numbers = [...new Set(heard.map(({ ticketNumber }) => ticketNumber!))];
    const tickets = await listo.db.select<Judged & { number: number }>(
      'SELECT number, teamId, priority, state, via FROM tickets WHERE number IN (:numbers)',
      { numbers },
      tx,
    );
    const arrived = new Set(heard.filter(isArrival).map(({ ticketNumber }) => ticketNumber));
    const [fresh, raised] = [true, false].map((isArriving) =>
      tickets.filter(({ number }) => arrived.has(number) === isArriving),
    );
    await followHours({ listo, tx }, fresh!, { isArriving: true });
    await followHours({ listo, tx }, raised!, { isArriving: false });
  },
};
