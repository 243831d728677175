import type { RuleBody } from '../../../contract/rules';

const both = (en: string, pt: string) => ({ en, pt });
const OPEN = { field: 'state', op: 'in' as const, value: ['received', 'inWork', 'held'] };
const any = { all: [] };

type Ready = Omit<RuleBody, 'name' | 'teamId' | 'isLast'>;

/** Rules to begin with. What only the organisation can know, such as a team, is filled in when one is begun. */
export const READY_RULES = {
  words: {
    trigger: { on: 'received' },
    provided: {
      any: ['title', 'said'].map((field) => ({ field, op: 'hasAny' as const, value: ['card', 'cartão'] })),
    },
    effects: [{ do: 'give', teamId: '' }],
  },
  ask: {
    trigger: { on: 'silence', since: 'held', unless: ['wroteBack', 'resumed'], after: 'P3D', calendar: null },
    provided: { all: [{ field: 'heldFor', op: 'is', value: 'requester' }] },
    effects: [
      {
        do: 'answer',
        words: both(
          '{first}, we still need a word from you to go on with “{title}”.',
          '{first}, ainda precisamos de uma palavra sua para avançar com “{title}”.',
        ),
      },
    ],
  },
  close: {
    trigger: { on: 'silence', since: 'held', unless: ['wroteBack', 'resumed'], after: 'P7D', calendar: null },
    provided: { all: [{ field: 'heldFor', op: 'is', value: 'requester' }] },
    effects: [
      {
        ...{ do: 'end', as: 'done' },
        words: both(
          'We heard nothing for a week, so we close it. Write, and it goes on.',
          'Não soubemos nada durante uma semana, por isso fechamos. Escreva, e continua.',
        ),
      },
    ],
  },
  urgent: {
    trigger: { on: 'received' },
    provided: { all: [{ field: 'priority', op: 'is', value: 'P1' }] },
    effects: [
      {
        ...{ do: 'tell', whom: ['lead', 'assignee'] },
        words: both('P1: {title} ({requester}, {place})', 'P1: {title} ({requester}, {place})'),
      },
    ],
  },
  goesFirst: {
    trigger: { on: 'received' },
    provided: {
      all: [
        { field: 'goesFirst', op: 'is', value: true },
        { field: 'priority', op: 'in', value: ['P3', 'P4'] },
      ],
    },
    effects: [{ do: 'set', field: 'priority', to: 'P2' }],
  },
  reopened: {
    trigger: { on: 'reopened' },
    provided: any,
    effects: [
      {
        ...{ do: 'tell', whom: ['assignee', 'lead'] },
        words: both(
          '{title} was not mended: {requester} opened it again.',
          '{title} não ficou resolvido: {requester} reabriu-o.',
        ),
      },
    ],
  },
  badRating: {
    trigger: { on: 'rated' },
    provided: { all: [{ field: 'rating', op: 'lte', value: 2 }] },
    effects: [
      {
        ...{ do: 'tell', whom: ['lead'] },
        words: both(
          '{requester} was not content with {number}.',
          '{requester} não ficou contente com {number}.',
        ),
      },
    ],
  },
  phone: {
    trigger: { on: 'received' },
    provided: { all: [{ field: 'via', op: 'in', value: ['phone', 'inPerson'] }] },
    effects: [
      {
        do: 'answer',
        words: both(
          'We have written down what you told us, as {number}: {title}.',
          'Registámos o que nos disse, com o número {number}: {title}.',
        ),
      },
    ],
  },
  supplier: {
    trigger: { on: 'time', every: 'FREQ=WEEKLY;BYDAY=MO;BYHOUR=9;BYMINUTE=0', zone: 'Europe/Lisbon' },
    provided: { all: [{ field: 'heldFor', op: 'is', value: 'supplier' }] },
    effects: [
      {
        ...{ do: 'tell', whom: ['assignee', 'team'] },
        words: both('Ask the supplier how {number} stands.', 'Pergunte ao fornecedor como está {number}.'),
      },
    ],
  },
  late: {
    trigger: { on: 'late' },
    provided: { all: [OPEN] },
    effects: [
      { do: 'note', words: both('Past due.', 'Fora do prazo.') },
      {
        ...{ do: 'tell', whom: ['lead'] },
        words: both('{number} is past due: {title}', '{number} está fora do prazo: {title}'),
      },
    ],
  },
  untaken: {
    trigger: {
      on: 'silence',
      since: 'received',
      unless: ['taken', 'givenOn', 'answered'],
      after: 'PT24H',
      calendar: null,
    },
    provided: { all: [{ field: 'assigneeId', op: 'is', value: null }, OPEN] },
    effects: [
      {
        ...{ do: 'tell', whom: ['team', 'lead'] },
        words: both(
          'Nobody has taken {number} for a day: {title}',
          'Ninguém pegou em {number} num dia: {title}',
        ),
      },
    ],
  },
  withdrawn: {
    trigger: { on: 'withdrawn' },
    provided: any,
    effects: [
      {
        ...{ do: 'tell', whom: ['assignee'] },
        words: both('{requester} no longer needs {title}.', '{requester} já não precisa de {title}.'),
      },
    ],
  },
} as const satisfies Record<string, Ready>;
export type ReadyName = keyof typeof READY_RULES;

/** A new rule with nothing in it but that something has come. */
export const EMPTY_RULE: RuleBody = {
  ...{
    name: both('', ''),
    teamId: null,
    trigger: { on: 'received' },
    provided: any,
    effects: [],
    isLast: false,
  },
};
