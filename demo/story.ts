import {
  getPriority,
  DEFAULT_PRIORITY_TABLE,
  planMove,
  takenUpBy,
  type MoveInput,
  type MoveName,
  type MoverRole,
  type Door,
} from '../core/tickets';
import { openingOf } from '../server/approvals/ask';
import type { ApprovalRow, AskRow } from '../server/approvals/model';
import type { ServiceRow } from '../server/catalogue/model';
import type { Via, ChangeEntry, JournalEntry } from '../core/journal';
import { openingChanges } from '../server/tickets/create';
import { NOTHING_DUE, type MessageRow, type TicketRecord } from '../server/tickets/model';
import { ENTRY_TYPES } from '../server/tickets/move';

export type StoryEntry = JournalEntry;

type Opening = {
  number: number;
  service: ServiceRow;
  isConfidential: boolean;
  requesterId: string;
  title: string;
  answers: TicketRecord['answers'];
  place: string;
  via: Door;
  raisedById: string | null;
  at: number;
};

/** One ticket's life as it is simulated: the same rules as in the application, with given instants. */
export class Story {
  readonly ticket: TicketRecord;
  readonly entries: StoryEntry[] = [];
  readonly messages: MessageRow[] = [];
  approval: ApprovalRow | null = null;
  readonly asks: AskRow[] = [];

  constructor({ number, service, isConfidential, answers, at, ...opening }: Opening) {
    const { impact, urgency } = {
      ...service,
      ...(answers as Partial<Pick<TicketRecord, 'impact' | 'urgency'>>),
    };
    this.ticket = {
      number,
      version: 1,
      kind: service.kind,
      serviceId: service.id,
      teamId: service.teamId,
      groupId: service.groupId,
      isConfidential,
      assigneeId: null,
      heldUntil: null,
      heldReason: null,
      solution: null,
      isDeclined: false,
      serviceVersion: service.version,
      state: service.approvals.length > 0 ? 'held' : 'received',
      heldFor: service.approvals.length > 0 ? 'approval' : null,
      impact,
      urgency,
      priority: getPriority(DEFAULT_PRIORITY_TABLE, impact, urgency),
      priorityReason: null,
      answers,
      answered: false,
      takenUp: false,
      createdAt: at,
      changedAt: at,
      resolvedAt: null,
      closedAt: null,
      rating: null,
      ratingWord: null,
      dueAt: null,
      dueDate: null,
      remindAt: null,
      progressId: null,
      progressFinishedAt: null,
      tightestDueAt: NOTHING_DUE,
      waitsSince: service.approvals.length > 0 ? null : at,
      ...{ headStart: 0, underNumber: null, underAs: null, estimateMinutes: null },
      ...opening,
    };
    this.entries.push({
      at,
      actorId: opening.raisedById ?? opening.requesterId,
      via: opening.via,
      type: 'sent',
      ticketNumber: number,
      work: 'ticket',
      audience: 'requester',
      changes: openingChanges(this.ticket),
      data: { version: 1, awaitsApproval: service.approvals.length > 0 },
    });
  }

  move(name: MoveName, by: MoverRole, actorId: string | null, at: number, input: MoveInput = {}): void {
    const plan = planMove(this.ticket, { name, by, actorId, input, now: at });
    if (!plan.ok) throw new Error(`the demo's ${name} on ${this.ticket.number} is against the rules`);
    const begun = takenUpBy({ name, by, actorId, input });
    if (begun.before && begun.after === false && !this.ticket.takenUp)
      this.record({ type: 'takenUp' }, { actorId, via: 'desk', at, audience: 'team' }, { takenUp: true });
    const takenUp = begun.after === null ? {} : { takenUp: begun.after };
    const messageId =
      plan.message !== null && actorId !== null
        ? this.say(actorId, plan.message, 'requester', by === 'agent', at)
        : null;
    const answered = messageId !== null && by === 'agent' ? { answered: true } : {};
    const declined = name === 'decline' ? { isDeclined: true } : {};
    const via: Via =
      by === 'agent' ? 'desk' : by === 'requester' ? 'portal' : name === 'close' ? 'timer' : 'rule';
    this.record(
      { type: ENTRY_TYPES[name], data: { ...(messageId && { messageId }), by } },
      { actorId, via, at },
      { ...plan.changes, ...answered, ...takenUp, ...declined },
    );
  }

  answer(actorId: string, text: string, at: number): void {
    const messageId = this.say(actorId, text, 'requester', true, at);
    this.record(
      { type: 'answered', data: { messageId } },
      { actorId, via: 'desk', at },
      { answered: true, takenUp: true },
    );
  }

  /** The requester's words, which end being held for them. */
  reply(text: string, at: number): void {
    const { requesterId, state, heldFor, assigneeId } = this.ticket;
    const messageId = this.say(requesterId, text, 'requester', false, at);
    const isWaited = state === 'held' && heldFor === 'requester';
    const goesOn = {
      state: assigneeId === null ? 'received' : 'inWork',
      heldFor: null,
      heldUntil: null,
      heldReason: null,
    } as const;
    this.record(
      { type: 'answered', data: { messageId } },
      { actorId: requesterId, via: 'portal', at },
      isWaited ? goesOn : {},
    );
  }

  note(actorId: string, text: string, at: number): void {
    const messageId = this.say(actorId, text, 'team', true, at);
    this.record(
      { type: 'noted', data: { messageId } },
      { actorId, via: 'desk', at, audience: 'team' },
      { takenUp: true },
    );
  }

  /** Asks the approver at the opening. */
  ask(service: ServiceRow, approverId: string, reason: AskRow['reason']): void {
    const { number, createdAt } = this.ticket;
    const { name, needs, declineBy } = service.approvals[0]!;
    this.approval = {
      id: `a${number}`,
      ticketNumber: number,
      ...{ stepId: null, place: 0, silence: null, name, needs, declineBy },
      outcome: 'open',
      startedAt: createdAt,
      decidedAt: null,
    };
    this.asks.push({
      id: `k${number}`,
      approvalId: `a${number}`,
      ticketNumber: number,
      voterId: approverId,
      askedId: approverId,
      reason,
      askedAt: createdAt,
      decision: null,
      decidedById: null,
      decidedAt: null,
      words: null,
      ...{ silentSince: createdAt, reminders: 0, how: null, questionAt: null },
    });
    this.entries.push({
      ...{ at: createdAt, actorId: null, via: 'rule', type: 'asked', ticketNumber: number },
      ...{ work: `approval:a${number}`, audience: 'requester', changes: openingOf(this.ticket) },
      data: { approvalId: `a${number}`, personId: approverId },
    });
  }

  decide(decision: 'approve' | 'decline', words: string, at: number): void {
    const ask = this.asks[0]!;
    const outcome = decision === 'approve' ? 'approved' : 'declined';
    Object.assign(ask, { decision, decidedById: ask.askedId, decidedAt: at, words: words || null });
    Object.assign(this.approval!, { outcome, decidedAt: at });
    this.entries.push({
      ...{ at, actorId: ask.askedId, via: 'portal', type: 'decided', ticketNumber: this.ticket.number },
      ...{ work: `approval:${this.approval!.id}`, audience: 'requester' },
      changes: { outcome: { from: 'open', to: outcome } },
      data: { askId: ask.id, approvalId: this.approval!.id, decision, outcome, words },
    });
    this.move(decision === 'approve' ? 'grant' : 'decline', 'system', null, at + 1);
  }

  private say(
    authorId: string,
    text: string,
    readBy: MessageRow['readBy'],
    isByTeam: boolean,
    at: number,
  ): string {
    const id = `m${this.ticket.number}-${this.messages.length + 1}`;
    if (readBy === 'requester') this.ticket.waitsSince = isByTeam ? null : (this.ticket.waitsSince ?? at);
    const via = isByTeam ? 'desk' : 'portal';
    this.messages.push({
      id,
      ticketNumber: this.ticket.number,
      at,
      authorId,
      via,
      readBy,
      isByTeam,
      isPublic: false,
      text,
      // The team writes in the Desk's editor.
      format: isByTeam ? 'rich' : 'plain',
      links: [],
    });
    return id;
  }

  private record(
    change: ChangeEntry,
    {
      actorId,
      via,
      at,
      audience = 'requester',
    }: Pick<StoryEntry, 'actorId' | 'via' | 'at'> & {
      audience?: StoryEntry['audience'];
    },
    wanted: Partial<TicketRecord>,
  ): void {
    const before = this.ticket as Record<string, unknown>;
    const changed = Object.entries(wanted).filter(([field, to]) => before[field] !== to);
    const changes = Object.fromEntries(changed.map(([field, to]) => [field, { from: before[field], to }]));
    const version = this.ticket.version + (changed.length > 0 ? 1 : 0);
    Object.assign(this.ticket, wanted, { version, changedAt: at });
    const frame = { at, actorId, via, ticketNumber: this.ticket.number, work: 'ticket', audience, changes };
    this.entries.push({ ...frame, type: change.type, data: { ...change.data, version } } as StoryEntry);
  }
}
