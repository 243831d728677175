import { factsOfEntry } from '../../core/journal';
import type { CardAction } from '../../core/chat';
import { listMissing, withoutFiles, type Language } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { isOpen } from '../../core/tickets';
import { isMailed } from '../../core/telling';
import { composeText } from '../../core/words';
import { definitionOf } from '../catalogue/versions';
import type { Listo } from '../listo';
import { euros } from '../mail/tell';
import type { Told } from '../notifications/model';
import { factsOf } from '../tickets/answered';
import type { LookUp } from '../notifications/lookUp';
import type { TicketRecord } from '../tickets/model';
import type { ChatOutBody } from './model';
import { queueChat, whenTold } from './queue';
import { sayOutcome } from '../approvals/outcome';
import { say, type Saying } from './says';
import { findChat } from './access';
import { linkTo } from './compose';
import type { UnitOfWork } from '../unitOfWork';

/** Told events that say something of their own in a direct talk; of the others the line there says enough. */
const TOLD: Partial<Record<string, Saying>> = {
  answered: 'says',
  taken: 'taken',
  held: 'held',
  givenOn: 'givenOn',
  done: 'doneTold',
  decided: 'decidedTold',
  raisedFor: 'raisedFor',
  withdrawn: 'withdrawn',
  reopened: 'reopened',
  slipTold: 'slipTold',
  sameMatter: 'sameMatter',
  outOfHours: 'outOfHours',
  ruleSaid: 'says',
  noticeTold: 'says',
  problemSolved: 'says',
  questioned: 'questioned',
  needs: 'needs',
};
/** What says words of its own, in every language. */
const OWN_WORDS = new Set<string>(['ruleSaid', 'noticeTold', 'problemSolved']);
/** What concerns the one who asked, and those who follow: what others read of, they read on the Desk. */
const RELATIONS = new Set(['requester', 'alsoTold']);

/** Tells people in direct talk, as they wish, of what they have just been told; those who decide can do it there. */
export async function chatTold(
  { listo, tx }: UnitOfWork,
  all: (Told & { ticket: TicketRecord })[],
  known: LookUp,
): Promise<void> {
  const wanted = all.filter(
    ({ event, relation }) => (RELATIONS.has(relation) && TOLD[event]) || isMailed(event, relation),
  );
  if (wanted.length === 0 || !(await findChat(listo))) return;
  for (const { personId, event, relation, entry, ticket } of wanted) {
    const nextAt = await whenTold({ listo, tx }, personId, known);
    if (nextAt === null) continue;
    const to = { ticketNumber: ticket.number, personId, nextAt };
    if (relation === 'approver') {
      const team = await known.team(ticket.teamId);
      const askId = await known.openAsk(ticket.number, personId);
      if (askId !== null && team?.decidesInChat)
        await queueChat(listo, tx, { body: { do: 'ask', askId }, to });
    } else if (RELATIONS.has(relation) && TOLD[event])
      await queueChat(listo, tx, { body: { do: 'told', event, entryId: entry.id }, to });
  }
}

/** The questions of a ticket's form that are still to be answered, and where; null: none. */
async function sayNeeded(listo: Listo, number: number | null, language: Language): Promise<string | null> {
  const ticket = number === null ? null : await listo.db.tables.tickets.findOne({ number });
  if (!ticket || !isOpen(ticket.state)) return null;
  const { fields } = withoutFiles((await definitionOf(listo, ticket)).form);
  const missing = listMissing({ fields }, ticket.answers);
  const asked = fields.filter(({ name }) => missing.includes(name));
  if (asked.length === 0) return null;
  return [...asked.map(({ label }) => `• ${label[language]}`), linkTo(listo, ticket.number, 'line')].join(
    '\n',
  );
}

type Composed = { text: string; messageId: string | null };

/** What someone is told in their direct talk; null: nothing that they may read, or that was not said there already. */
export async function composeTold(
  listo: Listo,
  { event, entryId }: Extract<ChatOutBody, { do: 'told' }>,
  language: Language,
): Promise<Composed | null> {
  const { tables } = listo.db;
  const entry = await tables.journal.findOne({ id: entryId });
  const saying = TOLD[event];
  if (!entry || !saying || entry.audience !== 'requester') return null;
  const actor = entry.actorId === null ? null : await tables.people.findOne({ id: entry.actorId });
  const { messageId, decision, words: given } = factsOfEntry(entry);
  const said = typeof given === 'string' ? given : '';
  let words = '';
  if (messageId !== undefined) {
    const message = await tables.messages.findOne({ id: messageId });
    // What is the team's never leaves by this door.
    if (message?.readBy !== 'requester') return null;
    words = message.format === 'rich' ? composeText(message.text, listo.address) : message.text;
    const files = await tables.files.find({ messageId });
    if (files.length > 0)
      words = `${words} ${say('files', language, { files: files.map(({ name }) => name).join(', ') })}`;
  } else if (event === 'decided')
    words = [say(decision === 'approve' ? 'approve' : 'decline', language).replace(' …', ''), said]
      .filter(Boolean)
      .join(': ');
  if (OWN_WORDS.has(event) && typeof given === 'object' && given) words = inLanguage(given, language);
  if (event === 'needs') {
    const needed = await sayNeeded(listo, entry.ticketNumber, language);
    if (needed === null) return null;
    words = needed;
  }
  const solution = entry.changes.solution?.to;
  if (event === 'done' && typeof solution === 'string') words = solution;
  return {
    messageId: messageId ?? null,
    text: say(saying, language, { who: actor?.name ?? 'Listo', words }),
  };
}

/** What is needed to decide, and the buttons to do it; where it is decided, what was, by whom and how. */
export async function composeAsk(
  listo: Listo,
  ticket: TicketRecord,
  { askId, personId }: { askId: string; personId: string },
): Promise<{ text: string; actions: CardAction[] } | null> {
  const { tables } = listo.db;
  const ask = await tables.asks.findOne({ id: askId });
  if (!ask) return null;
  const language = (await tables.people.findOne({ id: personId }))?.language ?? 'en';
  const requester = await tables.people.findOne({ id: ticket.requesterId });
  const service = await definitionOf(listo, ticket);
  const facts = factsOf(service.form, ticket.answers, language);
  const cost = service.cost === null ? '' : euros(service.cost, language);
  const outcome = await sayOutcome(listo, askId, language);
  return {
    text: [
      ...(outcome === null ? [] : [outcome]),
      `${ticket.number} · ${say('ask', language, { who: requester?.name ?? '', title: ticket.title })}`,
      ...[facts, cost, `${listo.address}/ask`].filter(Boolean),
    ].join('\n'),
    actions:
      outcome === null
        ? [
            { id: 'approve', name: say('approve', language), isMain: true },
            { id: 'decline', name: say('decline', language) },
          ]
        : [],
  };
}
