import type { Effect } from '../core/rules';
import type { RuleDefinition, RuleRow } from '../server/rules/model';

const both = (en: string, pt: string) => ({ en, pt });
const always = { all: [] };
const tell = (whom: Extract<Effect, { do: 'tell' }>['whom'], en: string, pt: string): Effect => ({
  ...{ do: 'tell', whom, words: both(en, pt) },
});

type Written = Pick<RuleRow, 'id' | 'name' | 'teamId' | 'isOn'> & Omit<RuleDefinition, 'isLast'>;

const WRITTEN: Written[] = [
  {
    ...{ id: 'ask-once', teamId: null, isOn: true },
    name: both('Held for the requester: ask once', 'À espera de quem pediu: perguntar uma vez'),
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
  {
    ...{ id: 'bad-rating', teamId: null, isOn: true },
    name: both('Badly rated: tell the lead', 'Mal avaliado: avisar o responsável'),
    trigger: { on: 'rated' },
    provided: { all: [{ field: 'rating', op: 'lte', value: 2 }] },
    effects: [
      tell(
        ['lead'],
        '{requester} was not content with {number}.',
        '{requester} não ficou contente com {number}.',
      ),
    ],
  },
  {
    ...{ id: 'gate-cards', teamId: 'onboard', isOn: false },
    name: both('Cards at the gates go to the network', 'Cartões nos portões vão para a rede'),
    trigger: { on: 'received' },
    provided: {
      any: ['title', 'said'].map((field) => ({ field, op: 'hasAny', value: ['card', 'season pass'] })),
    },
    effects: [
      { do: 'give', teamId: 'network' },
      {
        do: 'note',
        words: both(
          'A card at {place}: the reader is the network’s.',
          'Um cartão em {place}: o leitor é da rede.',
        ),
      },
    ],
  },
  {
    ...{ id: 'supplier-monday', teamId: null, isOn: false },
    name: both('Every Monday: what waits for a supplier', 'À segunda-feira: o que espera por um fornecedor'),
    trigger: { on: 'time', every: 'FREQ=WEEKLY;BYDAY=MO;BYHOUR=9;BYMINUTE=0', zone: 'Europe/Lisbon' },
    provided: { all: [{ field: 'heldFor', op: 'is', value: 'supplier' }] },
    effects: [
      tell(
        ['assignee', 'team'],
        'Ask the supplier how {number} stands.',
        'Pergunte ao fornecedor como está {number}.',
      ),
    ],
  },
  {
    ...{ id: 'reopened', teamId: null, isOn: false },
    name: both(
      'Reopened: more urgent, and its lead hears of it',
      'Reaberto: mais urgente, e o responsável sabe',
    ),
    trigger: { on: 'reopened' },
    provided: always,
    effects: [
      { do: 'set', field: 'priority', to: 'P2' },
      tell(
        ['lead', 'assignee'],
        '{title} was not mended: {requester} opened it again.',
        '{title} não ficou resolvido: {requester} reabriu-o.',
      ),
    ],
  },
];

/** The rules of Solvarra Ferries: two in use, three that wait to be tried. @param now ms since 1970 */
export function createRules(now: number): RuleRow[] {
  return WRITTEN.map(({ id, name, teamId, isOn, trigger, provided, effects }, i) => ({
    ...{ id, name, teamId, isOn, ownerId: 'helder', position: i + 1, version: 1, changedAt: now },
    definition: { trigger, provided, effects, isLast: false },
    ...{ failures: 0, failedAt: null, failedWith: null, onSince: isOn ? now : null },
  }));
}
