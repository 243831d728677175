import type { Card, CardAction } from '../../core/chat';
import type { Language } from '../../core/forms';
import { composeText } from '../../core/words';
import { isPastDue, tightestClock, tightestDue } from '../../core/targets';
import { isOpen, listMoves } from '../../core/tickets';
import { readClocks } from '../clocks/read';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
import { say, sayState } from './says';

const FILES_SHOWN = 5;

export type CardRole = 'card' | 'line' | 'direct';

/** What can be done from a message about the ticket: by its team, or by the one who asked. */
function actionsOf(ticket: TicketRecord, role: CardRole, language: Language): CardAction[] {
  const named = (
    id: 'take' | 'write' | 'give' | 'finish' | 'urgency' | 'confirm' | 'reopen',
    isMain = false,
  ) => ({
    ...{ id, name: say(id, language) },
    ...(isMain && { isMain }),
  });
  if (role === 'line') return [];
  if (role === 'direct') return ticket.state === 'done' ? [named('confirm', true), named('reopen')] : [];
  const moves = listMoves(ticket, 'agent');
  if (!isOpen(ticket.state)) return [];
  return [
    ...(ticket.assigneeId === null && moves.includes('take') ? [named('take', true)] : []),
    ...(moves.includes('give') ? [named('write'), named('give'), named('urgency')] : []),
    ...(moves.includes('finish') && ticket.assigneeId !== null ? [named('finish')] : []),
  ];
}

/** Where its reader goes on with it. */
export function linkTo({ address }: Listo, number: number, role: CardRole): string {
  return role === 'card' ? `${address}/desk/everything/${number}` : `${address}/ask/tickets/${number}`;
}

/** A ticket as a message in chat shows it now. */
export async function composeCard(
  listo: Listo,
  ticket: TicketRecord,
  { role, language }: { role: CardRole; language: Language },
): Promise<Card> {
  const { tables } = listo.db;
  const { number, title, state, heldFor, priority, place } = ticket;
  const nameOf = async (id: string | null): Promise<string | null> =>
    id === null ? null : ((await tables.people.findOne({ id }))?.name ?? null);
  const requester = await nameOf(ticket.requesterId);
  const assignee = await nameOf(ticket.assigneeId);
  const clocks = (await readClocks(listo, [number])).get(number) ?? [];
  const promised = clocks.filter(({ kind }) => role === 'card' || kind === 'serviceLevel');
  const now = listo.clock.now();
  const clock = tightestClock(promised);
  const whose = state === 'received' && assignee === null ? say('nobody', language) : assignee;
  const facts =
    role === 'card'
      ? [requester, place, priority, sayState(state, heldFor, language), whose]
      : [sayState(state, heldFor, language), whose];
  return {
    ...{
      number,
      title,
      dueAt: tightestDue(promised),
      isOver: !isOpen(state),
      link: linkTo(listo, number, role),
    },
    facts: facts.filter(Boolean).join(' · '),
    clock: clock && {
      ...{ state: clock.state, elapsed: clock.elapsed, limit: clock.limit, dueAt: clock.dueAt },
      ...{ breachedAt: clock.breachedAt, calendarId: clock.calendarId },
    },
    isLate: promised.some((clock) => isPastDue(clock, now)),
    actions: actionsOf(ticket, role, language),
  };
}

/** Words of a ticket's thread as one line of chat, with who wrote them and the names of their files. */
export async function composeWords(
  listo: Listo,
  messageId: string,
  language: Language,
): Promise<{ text: string; readBy: 'requester' | 'team'; isPublic: boolean } | null> {
  const { tables } = listo.db;
  const message = await tables.messages.findOne({ id: messageId });
  if (!message) return null;
  const author = await tables.people.findOne({ id: message.authorId });
  const files = await tables.files.find({ messageId }, { limit: FILES_SHOWN });
  const words = message.format === 'rich' ? composeText(message.text, listo.address) : message.text;
  const named =
    files.length > 0 ? ` ${say('files', language, { files: files.map(({ name }) => name).join(', ') })}` : '';
  return {
    readBy: message.readBy,
    isPublic: message.isPublic,
    text: say(message.readBy === 'team' ? 'readByTeam' : 'says', language, {
      ...{ who: author?.name ?? '', words: `${words}${named}` },
    }),
  };
}
