import type { FormField, LocalText } from '../forms';
import type { ServiceDefinition } from './types';

const t = (en: string, pt: string): LocalText => ({ en, pt });

const site: FormField = {
  ...{ name: 'site', kind: 'place', needed: true, filledFrom: 'site' },
  label: t('Which site?', 'Em que local?'),
};
const what: FormField = {
  ...{ name: 'what', kind: 'longText', needed: true },
  label: t('What happens?', 'O que acontece?'),
};
const picture: FormField = {
  ...{ name: 'picture', kind: 'files', needed: false },
  label: t('A picture of it', 'Uma fotografia'),
};
const urgency: FormField = {
  ...{ name: 'urgency', kind: 'choice', needed: true },
  label: t('Can you still work?', 'Consegue trabalhar?'),
  choices: [
    { value: 'stopsWork', label: t('No, it stops work', 'Não, parou o trabalho') },
    { value: 'slowsWork', label: t('Yes, but slower', 'Sim, mas mais devagar') },
    { value: 'canWait', label: t('Yes, it can wait', 'Sim, pode esperar') },
  ],
};

type Kit = Pick<ServiceDefinition, 'kind' | 'form' | 'approvals' | 'plan'>;

/** Ready sets that a service can begin from. */
export const SERVICE_KITS = {
  question: {
    ...{ kind: 'request', approvals: [], plan: null },
    form: { fields: [{ ...what, label: t('What would you like to know?', 'O que gostaria de saber?') }] },
  },
  broken: {
    ...{ kind: 'incident', approvals: [], plan: null },
    form: { fields: [site, what, urgency, picture] },
  },
  order: {
    ...{ kind: 'request', plan: null },
    form: {
      fields: [
        {
          name: 'many',
          kind: 'number',
          label: t('How many?', 'Quantos?'),
          needed: true,
          least: 1,
          default: 1,
        },
        { name: 'why', kind: 'longText', label: t('What is it for?', 'Para que é?'), needed: true },
        { name: 'until', kind: 'date', label: t('Needed on', 'Preciso em'), needed: false },
      ],
    },
    approvals: [
      {
        name: t('Your manager agrees', 'A sua chefia concorda'),
        refs: [{ manager: 'ofRequester' }],
        ...{ needs: { kind: 'any' }, declineBy: 'any', silence: { after: 'P2D', then: 'passUp' } },
      },
    ],
  },
} as const satisfies Record<string, unknown>;

/** A kit to begin a service from. */
export type KitName = keyof typeof SERVICE_KITS;

/** A new service's definition: what its kit says, and the rest as is usual. */
export function fromKit(name: KitName, teamId: string, title: LocalText): ServiceDefinition {
  const kit = structuredClone(SERVICE_KITS[name]) as unknown as Kit;
  return {
    ...{ place: 'desk', categoryId: null, icon: null, title, description: t('', ''), otherWords: t('', '') },
    ...{ teamId, groupId: null, ownerId: null, audience: [], fallbackApproverId: null, cost: null },
    ...{
      impact: 'person',
      urgency: 'canWait',
      stateWords: {},
      articleLabels: null,
      opening: null,
      thanks: null,
    },
    ...kit,
  };
}
