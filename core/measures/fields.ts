import { FINISHED_ALONE, NEEDED_A_PERSON } from '../assistant';
import { NOTICE_KINDS } from '../notices';
import { SPENT_ON } from '../spent';
import { LIST_FIELDS, type ListField } from '../worklist';
import { WORK_OUTCOMES, WORK_SORTS } from '../works';

/** What can be counted: a row each. */
export const FACT_KINDS = [
  ...(['tickets', 'approvals', 'steps', 'time', 'conversations', 'assistant', 'articles'] as const),
  ...(['outages', 'works'] as const),
];
/** What is counted. */
export type FactKind = (typeof FACT_KINDS)[number];

/**
 * A field of a fact. `split`: it has values by which facts are parted and asked for. `length`: ms. `amount`: a number that
 * is added up. `instant`: by which a fact falls into a period.
 */
export type FactField =
  { is: 'split'; as: ListField } | { is: 'length' } | { is: 'amount' } | { is: 'instant' };

const split = (as: ListField): FactField => ({ is: 'split', as });
const choice = (...choices: string[]): FactField => split({ kind: 'choice', choices });
/** Something of ours that has a name. */
const NAMED = choice();
const LENGTH: FactField = { is: 'length' };
const AMOUNT: FactField = { is: 'amount' };
const INSTANT: FactField = { is: 'instant' };

/** The splits of a ticket, which what belongs to a ticket has too. */
const OF_TICKET = {
  ...Object.fromEntries(
    (
      [
        ...([
          'kind',
          'teamId',
          'groupId',
          'serviceId',
          'priority',
          'impact',
          'urgency',
          'via',
          'state',
        ] as const),
        ...(['heldFor', 'siteId', 'department', 'vessel', 'requesterId'] as const),
      ] as const
    ).map((name) => [name, split(LIST_FIELDS[name])]),
  ),
};
const PERSON = split(LIST_FIELDS.assigneeId);
const TEAM = split(LIST_FIELDS.teamId);

/** All that figures may count, part by, ask for and reckon with, by what is counted. The first instant is the usual one. */
export const FACT_FIELDS: Record<FactKind, Record<string, FactField>> = {
  tickets: {
    ...{ opened: INSTANT, done: INSTANT, answered: INSTANT, closed: INSTANT },
    ...{ ...OF_TICKET, assigneeId: PERSON, promise: choice('met', 'missed', 'running', 'none') },
    ...{ isDeclined: split({ kind: 'flag' }) },
    ...{ workToDone: LENGTH, toDone: LENGTH, workToAnswer: LENGTH, toAnswer: LENGTH, own: LENGTH },
    ...{ waited: LENGTH, heldForRequester: LENGTH, heldForSupplier: LENGTH, heldForApproval: LENGTH },
    ...{ rating: AMOUNT, teams: AMOUNT, reopened: AMOUNT, messages: AMOUNT },
  },
  approvals: {
    ...{ asked: INSTANT, decided: INSTANT, ...OF_TICKET },
    ...{ decision: choice('open', 'approved', 'declined', 'withdrawn'), toDecision: LENGTH },
  },
  steps: {
    ...{ finished: INSTANT, began: INSTANT, ...OF_TICKET, stepTeamId: TEAM, assigneeId: PERSON },
    ...{ late: split({ kind: 'flag' }), toFinish: LENGTH },
  },
  time: {
    ...{ began: INSTANT, ...OF_TICKET, personId: PERSON },
    ...{ category: choice(...SPENT_ON), spent: LENGTH },
  },
  conversations: {
    ...{ began: INSTANT, ended: INSTANT, lineId: NAMED, teamId: TEAM },
    ...{ agentId: PERSON, endedBy: choice('person', 'agent', 'silence', 'left') },
    ...{ toTaken: LENGTH, lasted: LENGTH, rating: AMOUNT },
  },
  assistant: {
    ...{ began: INSTANT, matterId: NAMED },
    ...{ outcome: choice(...FINISHED_ALONE, ...NEEDED_A_PERSON, 'left'), language: choice('en', 'pt') },
    ...{ lasted: LENGTH, rating: AMOUNT },
  },
  articles: {
    ...{ used: INSTANT, articleId: NAMED, use: choice('shown', 'opened', 'helped', 'notHelped', 'shared') },
  },
  outages: {
    ...{ began: INSTANT, ended: INSTANT, notice: choice(...NOTICE_KINDS), teamId: TEAM },
    ...{ isMajor: split({ kind: 'flag' }), lasted: LENGTH },
  },
  works: {
    ...{ began: INSTANT, finished: INSTANT, ...OF_TICKET },
    ...{ sort: choice(...WORK_SORTS), risk: choice('low', 'middle', 'high') },
    ...{ workOutcome: choice(...WORK_OUTCOMES), lasted: LENGTH },
  },
};

/** Whether a field says which people did the work: their figures are not for everyone. */
export const isOfPeople = (field: string): boolean =>
  field === 'assigneeId' || field === 'personId' || field === 'agentId';

/** A field of what is counted; null: there is none. */
export function getFactField(of: FactKind, name: string): FactField | null {
  return Object.hasOwn(FACT_FIELDS[of], name) ? FACT_FIELDS[of][name]! : null;
}

/** The names of the fields of one kind, in the order in which they are offered. */
export function listFactFields(of: FactKind, is: FactField['is']): string[] {
  return Object.keys(FACT_FIELDS[of]).filter((name) => FACT_FIELDS[of][name]!.is === is);
}
