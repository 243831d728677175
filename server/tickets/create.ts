import type { Transaction } from 'sequelize';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import { checkAnswers, withFiles, withoutFiles, type Answers } from '../../core/forms';
import { isAgent } from '../../core/rights';
import {
  getPriority,
  IMPACTS,
  isInward,
  URGENCIES,
  type Door,
  type Impact,
  type Urgency,
} from '../../core/tickets';
import { requireOpen } from '../catalogue/opening';
import type { ServiceRow } from '../catalogue/model';
import { findService, isFor, isSwitchedOff } from '../catalogue/services';
import { nameAnswers } from './nameAnswers';
import { keepFiles } from '../files/keep';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { append } from '../journal/append';
import { headStartOf } from './weights';
import { NOTHING_DUE, type TicketRecord } from './model';
import { getOwn } from '../../core/records';
import type { Changing, UnitOfWork, Viewing } from '../unitOfWork';

/** By whichever door it comes. */
type Body = Omit<BodyOf<typeof api.tickets.create>, 'via'> & { via: Door };

function judge(service: ServiceRow, body: Body, isLenient: boolean): Answers {
  const { form } = service;
  const { answers, problems } = checkAnswers(form, withFiles(form, body.answers, body.fileIds));
  if (problems.some(({ code }) => !isLenient || code !== 'missing'))
    throw new ProblemError('fieldsNotValid', {
      fields: problems.map(({ field, ...rest }) => ({ field: `answers.${field}`, ...rest })),
    });
  // Files are kept beside the answers.
  return checkAnswers(withoutFiles(form), answers).answers;
}

/** Where it is about: what the form says, else where the person works. */
function placeOf(service: ServiceRow, answers: Answers, siteName: string): string {
  const places = service.form.fields
    .filter(({ kind }) => kind === 'place')
    .map(({ name }) => getOwn(answers, name));
  const said = places.filter((place): place is string => typeof place === 'string' && place !== '');
  return (said.length > 0 ? said.join(' · ') : siteName).slice(0, 255);
}

function choose<T extends string>(choices: readonly T[], answer: unknown, otherwise: T): T {
  return choices.find((choice) => choice === answer) ?? otherwise;
}

type Options = {
  /** What a form would ask for may be missing, where it did not come by the form. */
  isLenient?: boolean;
  /** Written by those who work in teams, and nobody is asked about it yet; whoever writes it has it. */
  isDraft?: boolean;
  /** A problem or a change: its facts beside the ticket are kept by who makes it. */
  isInward?: boolean;
  /** Said otherwise than by an answer. */
  impact?: Impact;
  urgency?: Urgency;
  /** What follows in the same transaction. */
  after?: (tx: Transaction, number: number) => Promise<void>;
};

/** Whose ticket it is; a program says for whom it asks. */
function requesterOf(viewer: Viewing['viewer'], { requesterId }: Body): string {
  if (viewer.byKey && requesterId === undefined)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'requesterId', code: 'missing' }] });
  return requesterId ?? viewer.id;
}

/** Judged, complete and ready to be stored. */
async function prepare(
  { listo, viewer }: Viewing,
  body: Body,
  { isLenient = false, ...given }: Options,
): Promise<{ row: Partial<TicketRecord>; service: ServiceRow }> {
  const rules = await findService(listo, body.serviceId);
  if (!rules)
    throw new ProblemError((await isSwitchedOff(listo, body.serviceId)) ? 'serviceOff' : 'notFound');
  const { service, isConfidential, priorities, siteNames } = rules;
  if (isInward(service.kind) !== (given.isInward ?? false)) throw new ProblemError('notFound');
  const requesterId = requesterOf(viewer, body);
  const isForOther = requesterId !== viewer.id;
  if (isForOther && !viewer.mayAskForOthers && !isAgent(viewer)) throw new ProblemError('forbidden');
  const requester = isForOther
    ? await listo.db.tables.people.findOne({ id: requesterId, leftAt: null })
    : { siteId: viewer.siteId };
  if (!requester)
    throw new ProblemError('fieldsNotValid', { fields: [{ field: 'requesterId', code: 'notAChoice' }] });
  if (!isAgent(viewer) && !(await isFor(listo, service, requesterId))) throw new ProblemError('notForThem');
  const answers = await nameAnswers(listo, service.form, judge(service, body, isLenient));
  // Only those who judge tickets say it beside the form.
  if ((body.impact ?? body.urgency) !== undefined && !isAgent(viewer)) throw new ProblemError('forbidden');
  const impact: Impact = given.impact ?? body.impact ?? choose(IMPACTS, answers.impact, service.impact);
  const urgency: Urgency =
    given.urgency ?? body.urgency ?? choose(URGENCIES, answers.urgency, service.urgency);
  const now = listo.clock.now();
  const priority = getPriority(priorities, impact, urgency);
  const place = placeOf(service, answers, siteNames.get(requester.siteId) ?? '');
  const judged = {
    ...service,
    ...{ serviceId: service.id, answers, impact, urgency, priority, place, requesterId },
  };
  const { isDraft = false } = given;
  const isHeld = !isDraft && listo.ports.tickets.isAgreedFirst(service, judged);
  const isOwn = isDraft && viewer.teams.some(({ teamId }) => teamId === service.teamId);
  const row: Partial<TicketRecord> = {
    version: 1,
    kind: service.kind,
    title: body.title,
    serviceId: service.id,
    serviceVersion: service.version,
    teamId: service.teamId,
    groupId: service.groupId,
    isConfidential,
    requesterId,
    raisedById: isForOther ? viewer.id : null,
    assigneeId: isOwn ? viewer.id : null,
    impact,
    urgency,
    priority,
    answers,
    state: isHeld ? 'held' : 'received',
    heldFor: isHeld ? 'approval' : null,
    via: body.via,
    answered: false,
    takenUp: isOwn,
    place,
    createdAt: now,
    changedAt: now,
    isDeclined: false,
    tightestDueAt: NOTHING_DUE,
    waitsSince: isHeld ? null : now,
  };
  row.headStart = await headStartOf(listo, row as TicketRecord);
  return { row, service };
}

const OPENING_FIELDS = [
  'kind',
  'serviceId',
  'teamId',
  'groupId',
  'requesterId',
  'assigneeId',
  'state',
  'heldFor',
  'impact',
  'urgency',
  'priority',
  'answered',
  'takenUp',
  'isConfidential',
] as const;

/** The changes that the opening entry records: every field that clocks and conditions may ask for. */
export function openingChanges(row: Partial<TicketRecord>): Record<string, { from: null; to: unknown }> {
  return Object.fromEntries(
    OPENING_FIELDS.map((field) => [field, { from: null, to: row[field as keyof TicketRecord] ?? null }]),
  );
}

/** Refuses ids of people who are not there, or no longer. */
export async function requirePeople(
  { listo: { db }, tx }: UnitOfWork,
  ids: string[],
  field: string,
): Promise<void> {
  const wanted = [...new Set(ids)];
  if (wanted.length === 0) return;
  const found = await db.tables.people.find(
    { id: wanted, leftAt: null },
    { transaction: tx, attributes: ['id'] },
  );
  if (found.length !== wanted.length)
    throw new ProblemError('fieldsNotValid', { fields: [{ field, code: 'notAChoice' }] });
}

/** Takes in a request or an incident: validated, numbered and journalled in one transaction. */
export async function createTicket(
  { listo, viewer, actor }: Changing,
  body: Body,
  options: Options = {},
): Promise<{ number: number }> {
  const { row, service } = await prepare({ listo, viewer }, body, options);
  const { tables } = listo.db;
  return change(listo, actor, async (tx) => {
    // Who writes down what someone else asked may do so at any time.
    if (!(row.raisedById && isAgent(viewer)) && !options.isInward) await requireOpen({ listo, tx }, service);
    await requirePeople({ listo, tx }, body.alsoToldIds, 'alsoToldIds');
    const number = await tables.tickets.insert(row, tx);
    const ticket = { ...row, number } as TicketRecord;
    // Who asks for someone else in Ask goes on reading of it.
    const raisers = ticket.raisedById && body.via === 'portal' ? [ticket.raisedById] : [];
    const followers = [...new Set([...body.alsoToldIds, ...raisers])].filter(
      (personId) => personId !== ticket.requesterId,
    );
    await tables.followers.insertAll(
      followers.map((personId) => ({ ticketNumber: number, personId, role: 'alsoTold' })),
      tx,
    );
    if (body.fileIds.length > 0)
      await keepFiles(
        { listo, tx },
        { personId: viewer.id, fileIds: body.fileIds },
        { ticketNumber: number, messageId: null },
      );
    await append(
      { listo, tx },
      {
        at: row.createdAt!,
        actorId: viewer.id,
        via: body.via,
        type: 'sent',
        ticketNumber: number,
        audience: 'requester',
        changes: {
          ...openingChanges(row),
          // A plan makes its own promise.
          ...(service.plan && { hasPlan: { from: null, to: true } }),
        },
        data: { version: 1, awaitsApproval: row.state === 'held' || options.isDraft === true },
      },
    );
    if (!options.isDraft) await listo.ports.tickets.opened({ listo, tx }, ticket, service);
    await options.after?.(tx, number);
    return { number };
  });
}
