import { readTicketCommand, type TicketCommand } from '../../core/chat';
import type { ChatEvent } from '../../contract/rooms';
import { isAgent } from '../../core/rights';
import { decide } from '../approvals/decide';
import { findLastResort } from '../catalogue/lastResort';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import type { TicketRecord } from '../tickets/model';
import type { SignedIn } from '../sessions/viewer';
import { changeFactsWithin } from '../tickets/changeFacts';
import { requireTicket } from '../tickets/guard';
import { writeWithin } from '../tickets/messages';
import { moveWithin } from '../tickets/move';
import { URGENCIES, type Door, type MoveInput, type MoveName } from '../../core/tickets';
import { actionForm, ticketForm, type SealedTicket } from './forms';
import type { Became } from './hear';
import { makeTicketOf, type Hearing } from './make';
import { idOf, queueChat } from './queue';
import { linkTo } from './compose';
import { say } from './says';
import { unseal } from './seal';
import { isFilledInChat, openServiceForm, readServiceForm, type SealedService } from './serviceForm';
import { readChatSettings } from './settings';

type Acting = { hearing: Hearing; viewer: SignedIn; event: ChatEvent };

const doorOf = ({ roomKind }: ChatEvent): Door =>
  roomKind === 'listo' || roomKind === 'direct' ? 'directMessage' : 'room';

/** Says something to one person alone, where they are; once for an event, also where that is heard again. */
export function whisper(
  { listo }: Hearing,
  { id, roomId, byId }: ChatEvent,
  said: string | { text: string; actions: { id: string; name: string }[] },
): Promise<void> {
  const { text, actions } = typeof said === 'string' ? { text: said, actions: [] } : said;
  return queueChat(listo, undefined, {
    body: { do: 'say', text, forId: byId, threadId: null, actions },
    to: { roomId, id: idOf('w', id) },
  });
}

export async function move(
  acting: Acting,
  number: number,
  { name, by, input }: { name: MoveName; by: 'agent' | 'requester'; input: MoveInput },
): Promise<void> {
  const { hearing, viewer, event } = acting;
  const { listo } = hearing;
  await change(listo, { id: viewer.id, idempotencyKey: event.id }, async (tx) => {
    // Right here and now: what is done by a button is done to what stands there.
    const { ticket } = await requireTicket(
      { listo, viewer, tx },
      { number, action: by === 'agent' ? 'work' : 'own' },
    );
    return moveWithin({ listo, tx, viewer }, number, {
      move: { name, by, version: ticket.version, input },
      door: doorOf(event),
    });
  });
}

/** @throws ProblemError where there is no such command: what cannot be done is not said to be done */
function requireCommand(name: unknown): TicketCommand {
  const command = readTicketCommand(name);
  if (!command) throw new ProblemError('moveNotAllowed');
  return command;
}

/** What a command does; those with a form have been filled in by now. */
async function carryOut(
  acting: Acting,
  command: TicketCommand,
  { number, values }: { number: number; values: Record<string, string> },
): Promise<void> {
  const { hearing, viewer, event } = acting;
  const { listo } = hearing;
  const actor = { id: viewer.id, idempotencyKey: event.id };
  switch (command) {
    case 'take':
      return move(acting, number, { name: 'take', by: 'agent', input: {} });
    case 'finish':
      return move(acting, number, {
        name: 'finish',
        by: 'agent',
        input: { solution: values.solution ?? '' },
      });
    case 'give':
      return move(acting, number, {
        name: 'give',
        by: 'agent',
        input: {
          teamId: values.team ?? null,
          assigneeId: values.assignee || null,
          reason: values.reason || null,
        },
      });
    case 'confirm':
      return move(acting, number, {
        name: 'confirm',
        by: 'requester',
        input: {
          rating: values.rating ? Number(values.rating) : null,
          ratingWord: values.ratingWord || null,
        },
      });
    case 'reopen':
      return move(acting, number, {
        name: 'reopen',
        by: 'requester',
        input: { stillBroken: values.stillBroken ?? '' },
      });
    case 'none':
      return move(acting, number, {
        name: 'withdraw',
        by: 'requester',
        input: { reason: say('none', viewer.language) },
      });
    case 'urgency': {
      const urgency = URGENCIES.find((each) => each === values.urgency);
      if (!urgency)
        throw new ProblemError('fieldsNotValid', { fields: [{ field: 'urgency', code: 'notAChoice' }] });
      await change(listo, actor, async (tx) => {
        const { ticket } = await requireTicket({ listo, viewer, tx }, { number, action: 'work' });
        return changeFactsWithin({ listo, tx, viewer }, number, {
          version: ticket.version,
          urgency,
        });
      });
      return;
    }
    case 'write':
    case 'note':
      await change(listo, actor, (tx) =>
        writeWithin({ listo, tx, viewer }, number, {
          ...{ text: values.text ?? '', readBy: values.readBy === 'requester' ? 'requester' : 'team' },
          ...{ links: [], fileIds: [], by: doorOf(event) },
        }),
      );
  }
}

/** Asks in a form what ticket is to be made of some messages. @param title a title that was given */
export async function askForTicket({ hearing, viewer, event }: Acting, title = ''): Promise<Became> {
  const { listo, chat } = hearing;
  const { messages = [] } = event;
  const settings = await readChatSettings(listo);
  const isTheirOwn = messages.every(({ byId }) => byId === event.byId);
  if (!isTheirOwn && !(isAgent(viewer) && settings.isOn)) {
    await whisper(hearing, event, say('agentsOnly', viewer.language));
    return { outcome: 'refused', detail: 'agentsOnly' };
  }
  const made = await listo.db.tables.chatMarks.findOne({ messageId: messages[0]?.id ?? '' });
  if (made?.role === 'source') {
    const link = linkTo(listo, made.ticketNumber, 'line');
    await whisper(
      hearing,
      event,
      say('already', viewer.language, { number: String(made.ticketNumber), link }),
    );
    return { outcome: 'already', ticketNumber: made.ticketNumber };
  }
  await chat.openForm({
    roomId: event.roomId,
    personId: event.byId!,
    form: await ticketForm(hearing, viewer, { messages, title }),
  });
  return { outcome: 'asked' };
}

async function decideBy(
  { hearing, viewer, event }: Acting,
  askId: string,
  { decision, words }: { decision: 'approve' | 'decline'; words: string },
): Promise<Became> {
  const { listo } = hearing;
  await decide(
    listo,
    { personId: viewer.id, actor: { id: viewer.id, idempotencyKey: event.id }, via: 'directMessage' },
    { askId, decision: { decision, words } },
  );
  await whisper(hearing, event, say('decided', viewer.language));
  return { outcome: 'decided', detail: decision };
}

/** Where a team has it decided on the page alone since it was asked in chat, the way there; else null. */
async function sendElsewhere(
  { hearing, viewer, event }: Acting,
  { number, teamId }: Pick<TicketRecord, 'number' | 'teamId'>,
): Promise<Became | null> {
  const { listo } = hearing;
  if ((await listo.db.tables.teams.findOne({ id: teamId }))?.decidesInChat) return null;
  const link = linkTo(listo, number, 'line');
  await whisper(hearing, event, say('decidesElsewhere', viewer.language, { link }));
  return { outcome: 'refused', detail: 'decidesElsewhere', ticketNumber: number };
}

/** A button was pressed on a message, or the action beside any message. */
export async function hearAction(acting: Acting): Promise<Became> {
  const { hearing, viewer, event } = acting;
  const { listo, chat } = hearing;
  if (event.action === 'ticket') return askForTicket(acting);
  const action = event.action ?? '';
  const [separate, numbered] = action.split(':');
  if (separate === 'fill') {
    const serviceId = numbered ?? '';
    // It may have been taken from chat since the button was offered.
    if (!(await isFilledInChat(listo, serviceId))) throw new ProblemError('notFound');
    await openServiceForm(hearing, viewer, {
      event,
      carried: {
        ...{ serviceId, forId: viewer.id, messages: [], title: '', urgency: null },
      },
    });
    return { outcome: 'asked' };
  }
  const mark = await listo.db.tables.chatMarks.findOne({ messageId: event.messages?.[0]?.id ?? '' });
  const number = mark?.ticketNumber ?? Number(numbered);
  const ticket = Number.isSafeInteger(number) ? await listo.db.tables.tickets.findOne({ number }) : null;
  if (!ticket) return { outcome: 'unknownMessage' };
  const elsewhere = mark?.role === 'ask' ? await sendElsewhere(acting, ticket) : null;
  if (elsewhere) return elsewhere;
  if (mark?.role === 'ask' && action === 'approve')
    return decideBy(acting, mark.wordsId!, { decision: 'approve', words: '' });
  // Someone without the right is told before they fill anything in.
  const isOwn = mark?.role === 'direct' || separate === 'none';
  const needed = isOwn ? 'own' : mark?.role === 'ask' ? 'read' : 'work';
  await requireTicket({ listo, viewer }, { number, action: needed });
  const form = await actionForm({ listo, viewer }, separate!, ticket);
  if (form) {
    const callback = { ...form.callback, ...(mark?.role === 'ask' && { askId: mark.wordsId }) };
    await chat.openForm({ roomId: event.roomId, personId: event.byId!, form: { ...form, callback } });
    return { outcome: 'asked', ticketNumber: number };
  }
  const command = requireCommand(separate);
  await carryOut(acting, command, { number, values: {} });
  if (command === 'none')
    await whisper(hearing, event, say('takenBack', viewer.language, { number: String(number) }));
  return { outcome: 'done', detail: command, ticketNumber: number };
}

/** Who made a ticket is told so, and may go on with it at once where they work on it. */
async function sayMade({ hearing: { listo }, viewer, event }: Acting, number: number): Promise<void> {
  const said = say('madeYou', viewer.language, {
    number: String(number),
    link: linkTo(listo, number, isAgent(viewer) ? 'card' : 'line'),
  });
  await queueChat(listo, undefined, {
    body: {
      ...{ do: 'say', text: said, forId: event.byId, threadId: null },
      actions: isAgent(viewer)
        ? [
            { id: `give:${number}`, name: say('give', viewer.language) },
            { id: `note:${number}`, name: say('note', viewer.language) },
          ]
        : [],
    },
    to: { roomId: event.roomId, id: idOf('w', event.id) },
  });
}

/** A service's own form came back: asked again where something is wrong or more is to be asked, else it is a ticket. */
async function hearServiceForm(acting: Acting, carried: SealedService): Promise<Became> {
  const { hearing, viewer, event } = acting;
  const filled = await readServiceForm(hearing, viewer, { carried, values: event.values ?? {} });
  if ('problems' in filled) {
    await openServiceForm(hearing, viewer, { event, carried: filled.carried, problems: filled.problems });
    return { outcome: 'asked' };
  }
  const { serviceId, messages, urgency } = carried;
  const { number } = await makeTicketOf({ hearing, viewer }, event.id, {
    ...{ requesterId: viewer.id, serviceId, messages, urgency, ...filled },
    room: { id: event.roomId, isDirect: doorOf(event) === 'directMessage' },
  });
  await sayMade(acting, number);
  return { outcome: 'newTicket', ticketNumber: number };
}

/** A form came back. */
export async function hearForm(acting: Acting): Promise<Became> {
  const { hearing, viewer, event } = acting;
  const { callback = {}, values = {} } = event;
  if (callback.do === 'decline' && typeof callback.askId === 'string') {
    const { asks, tickets } = hearing.listo.db.tables;
    const ask = await asks.findOne({ id: callback.askId });
    const ticket = ask && (await tickets.findOne({ number: ask.ticketNumber }));
    // It may have been switched off while the form was open.
    const elsewhere = ticket && (await sendElsewhere(acting, ticket));
    return elsewhere ?? decideBy(acting, callback.askId, { decision: 'decline', words: values.words ?? '' });
  }
  if (callback.do === 'service') {
    const carried = unseal(hearing.secret, callback.sealed) as SealedService | null;
    if (carried?.forId !== viewer.id) throw new ProblemError('forbidden');
    return hearServiceForm(acting, carried);
  }
  if (callback.do !== 'ticket') {
    const number = Number(callback.number);
    if (!Number.isSafeInteger(number)) throw new ProblemError('notFound');
    const command = requireCommand(callback.do);
    await carryOut(acting, command, { number, values });
    return { outcome: 'done', detail: command, ticketNumber: number };
  }
  return hearNewTicket(acting);
}

/** The form of a new ticket came back. */
async function hearNewTicket(acting: Acting): Promise<Became> {
  const { hearing, viewer, event } = acting;
  const { callback = {}, values = {} } = event;
  const asked = unseal(hearing.secret, callback.sealed) as SealedTicket | null;
  if (asked?.forId !== viewer.id) throw new ProblemError('forbidden');
  const { messages } = asked;
  const [teamId, groupId] = (values.team ?? '').split('/');
  const serviceId = values.service || (await findLastResort(hearing.listo));
  const isOwnForm = !isAgent(viewer) && (await isFilledInChat(hearing.listo, serviceId));
  if (isOwnForm) {
    await openServiceForm(hearing, viewer, {
      event,
      carried: {
        ...{
          serviceId,
          forId: viewer.id,
          messages,
          title: values.title ?? '',
          urgency: values.urgency || null,
        },
      },
    });
    return { outcome: 'asked' };
  }
  const { number } = await makeTicketOf({ hearing, viewer }, event.id, {
    ...{ requesterId: values.requester || viewer.id, serviceId, messages },
    title: values.title ?? '',
    // To whom it goes is the agents' to say.
    ...(isAgent(viewer) && {
      teamId: teamId || null,
      groupId: groupId || null,
      assigneeId: values.assignee || null,
    }),
    ...{
      urgency: values.urgency || null,
      room: { id: event.roomId, isDirect: doorOf(event) === 'directMessage' },
    },
  });
  await sayMade(acting, number);
  return { outcome: 'newTicket', ticketNumber: number };
}
