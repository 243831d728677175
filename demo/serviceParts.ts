import type { ProcessStep } from '../core/approvals';
import type { Condition } from '../core/conditions';
import type { FormField, LocalText } from '../core/forms';
import type { ServiceRow } from '../server/catalogue/model';

export const t = (en: string, pt: string): LocalText => ({ en, pt });

export const site: FormField = {
  name: 'site',
  kind: 'place',
  label: t('Which site?', 'Em que local?'),
  needed: true,
  filledFrom: 'site',
};
export const place: FormField = {
  name: 'place',
  kind: 'place',
  needed: false,
  filledFrom: 'place',
  label: t('Where inside it?', 'Onde, lá dentro?'),
  help: t('A gate, a deck or a room.', 'Uma porta, um convés ou uma sala.'),
};
export const vessel: FormField = {
  name: 'vessel',
  kind: 'place',
  label: t('Which vessel?', 'Que navio?'),
  needed: true,
  filledFrom: 'vessel',
};
export const what: FormField = {
  name: 'what',
  kind: 'longText',
  needed: true,
  label: t('What happens?', 'O que acontece?'),
  help: t('What you did, what it showed, since when.', 'O que fez, o que apareceu, desde quando.'),
};
export const urgency: FormField = {
  name: 'urgency',
  kind: 'choice',
  needed: true,
  label: t('Can you still work?', 'Consegue trabalhar?'),
  choices: [
    { value: 'stopsWork', label: t('No, it stops work', 'Não, parou o trabalho') },
    { value: 'slowsWork', label: t('Yes, but slower', 'Sim, mas mais devagar') },
    { value: 'canWait', label: t('Yes, it can wait', 'Sim, pode esperar') },
  ],
};
export const impact: FormField = {
  name: 'impact',
  kind: 'choice',
  needed: true,
  label: t('Who is affected?', 'Quem é afetado?'),
  choices: [
    { value: 'person', label: t('Only me', 'Só eu') },
    { value: 'team', label: t('My team', 'A minha equipa') },
    { value: 'site', label: t('The whole site or vessel', 'Todo o local ou navio') },
    { value: 'fleet', label: t('Several sites', 'Vários locais') },
  ],
};
export const picture: FormField = {
  name: 'picture',
  kind: 'files',
  label: t('A picture of it', 'Uma fotografia'),
  needed: false,
};
export const links: FormField = {
  name: 'links',
  kind: 'links',
  label: t('Links that help', 'Ligações úteis'),
  needed: false,
};
export const why: FormField = {
  name: 'why',
  kind: 'longText',
  label: t('What is it for?', 'Para que é?'),
  needed: true,
};
export const from: FormField = {
  name: 'from',
  kind: 'date',
  label: t('From when?', 'A partir de quando?'),
  needed: true,
};
export const days: FormField = {
  name: 'days',
  kind: 'dateRange',
  label: t('From when until when?', 'De quando até quando?'),
  needed: true,
};
export const whose: FormField = {
  ...{ name: 'thing', kind: 'asset', needed: true },
  label: t('Which one?', 'Qual?'),
  help: t('Yours come first, then those where you work.', 'Primeiro os seus, depois os de onde trabalha.'),
};

export const choice = (
  name: string,
  label: LocalText,
  ...choices: [value: string, en: string, pt: string][]
): FormField => ({
  ...{ name, kind: 'choice', label, needed: true },
  choices: choices.map(([value, en, pt]) => ({ value, label: t(en, pt) })),
});
export const yesNo = (name: string, label: LocalText, help?: LocalText): FormField => ({
  ...{ name, kind: 'yesNo', label, needed: false },
  ...(help && { help }),
});
/** Holds once a question was answered with yes. */
export const wants = (field: string): Condition => ({ field, op: 'is', value: true });

export const MANAGER: ProcessStep = {
  name: t('Your manager agrees', 'A sua chefia concorda'),
  refs: [{ manager: 'ofRequester' }],
  ...{ needs: { kind: 'any' }, declineBy: 'any' },
  silence: { after: 'P2D', then: 'passUp' },
};
/** Over 500 €, someone who leads Finance services too. */
export const FINANCE_OVER_500: ProcessStep = {
  name: t('Finance agrees, over 500 €', 'As finanças concordam, acima de 500 €'),
  when: { field: 'cost', op: 'gt', value: 50_000 },
  refs: [{ team: 'finance', only: 'leads' }],
  ...{ needs: { kind: 'any' }, declineBy: 'any', carry: true },
  silence: { after: 'P1D', then: 'remind', most: 3 },
};

/** A service as the demo says it: what is not said is as usual. */
export type DemoService = Pick<
  ServiceRow,
  'id' | 'kind' | 'place' | 'title' | 'description' | 'otherWords' | 'teamId'
> &
  Partial<ServiceRow> & { fields: FormField[] };
