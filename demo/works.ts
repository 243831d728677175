import type { ProcessStep } from '../core/approvals';
import type { LocalText } from '../core/forms';
import type { WorkTemplateRow } from '../server/works/model';
import { t, type DemoService } from './serviceParts';

/** Whoever leads the team agrees to what is not without risk; the board to what may stop a vessel. */
const LEAD = (team: string): ProcessStep => ({
  name: t('Whoever leads the team agrees', 'Quem dirige a equipa concorda'),
  when: { field: 'risk', op: 'in', value: ['medium', 'high'] },
  refs: [{ team, only: 'leads' }],
  ...{ needs: { kind: 'any' }, declineBy: 'any' },
  silence: { after: 'P1D', then: 'remind', most: 3 },
});
const BOARD: ProcessStep = {
  name: t('The board agrees', 'O conselho concorda'),
  when: { field: 'risk', op: 'is', value: 'high' },
  refs: [{ person: 'ana' }, { person: 'marta' }, { person: 'helge' }],
  ...{ needs: { kind: 'count', count: 2 }, declineBy: 'any' },
  silence: { after: 'P2D', then: 'remind', most: 3 },
};

const shared: Pick<DemoService, 'place' | 'kind' | 'fields' | 'fallbackApproverId'> = {
  ...{ place: 'desk', kind: 'change', fields: [], fallbackApproverId: 'helge' },
};

/** What changes begin from. They are the teams' own: nobody asks for them. */
export const WORK_SERVICES: DemoService[] = [
  {
    ...{ ...shared, id: 'work-network', teamId: 'network', approvals: [LEAD('network'), BOARD] },
    title: t('Work on a line or a switch', 'Trabalho numa linha ou num comutador'),
    description: t(
      'Whatever carries the network ashore and on board.',
      'O que leva a rede, em terra e a bordo.',
    ),
    otherWords: t('network switch line router mast', 'rede comutador linha mastro'),
  },
  {
    ...{ ...shared, id: 'work-firmware', teamId: 'onboard', approvals: [LEAD('onboard')] },
    title: t('New firmware for readers', 'Novo firmware para leitores'),
    description: t('One site or vessel at a time.', 'Um local ou navio de cada vez.'),
    otherWords: t('firmware reader scanner update', 'firmware leitor atualização'),
  },
  {
    ...{ ...shared, id: 'work-program', teamId: 'apps', approvals: [LEAD('apps'), BOARD] },
    title: t('A new version of a program', 'Uma nova versão de um programa'),
    description: t('Booking, roster, stock or invoices.', 'Reservas, escalas, existências ou faturas.'),
    otherWords: t('program version release booking roster', 'programa versão reservas escalas'),
  },
];

/** Where the causes of incidents are looked into. */
export const PROBLEM_SERVICE: DemoService = {
  ...{ id: 'cause', place: 'desk', kind: 'problem', fields: [], teamId: 'network' },
  title: t('The cause of incidents', 'A causa de incidentes'),
  description: t('What keeps breaking, until it does not.', 'O que avaria sempre, até deixar de avariar.'),
  otherWords: t('problem root cause', 'problema causa'),
};

const NOTHING: LocalText = t('', '');
const template = (row: Pick<WorkTemplateRow, 'serviceId'> & Partial<WorkTemplateRow>): WorkTemplateRow => ({
  ...{
    isStandard: false,
    minutes: 120,
    why: NOTHING,
    test: NOTHING,
    takeBack: NOTHING,
    thingIds: [],
    version: 1,
  },
  ...row,
});

/** What they fill in. */
export const WORK_TEMPLATES: WorkTemplateRow[] = [
  template({
    serviceId: 'work-network',
    test: t('The terminals and the public screens answer.', 'Os terminais e os ecrãs públicos respondem.'),
    takeBack: t('The old part goes back in; ten minutes.', 'A peça antiga volta; dez minutos.'),
  }),
  template({
    ...{ serviceId: 'work-firmware', isStandard: true, minutes: 45 },
    why: t('The version that reads the new season passes.', 'A versão que lê os novos passes de época.'),
    test: t('Three passes of each sort are read.', 'São lidos três passes de cada tipo.'),
    takeBack: t(
      'The version before is on the reader; hold both keys.',
      'A versão anterior está no leitor; prima as duas teclas.',
    ),
  }),
  template({
    ...{ serviceId: 'work-program', minutes: 90 },
    test: t('A booking is made and cancelled.', 'Faz-se e anula-se uma reserva.'),
    takeBack: t('The version before is switched back on.', 'Volta-se a ligar a versão anterior.'),
  }),
];
