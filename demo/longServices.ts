import type { FormField } from '../core/forms';
import type { ServicePlan } from '../core/plans';
import { choice, t, wants, yesNo, type DemoService } from './serviceParts';

/** The stand-in of the directory that accounts and rights live in. */
const DIRECTORY = '/stand-in/directory';

/** The terminals that crews sail from, by the name of the site. */
const BASES = [
  ...['Port Alder', 'Quell Harbour', 'Santa Ombra', 'Ilha Curva', 'Marrow Point'],
  ...['Fenwick Sound', 'Baía Longa', 'Tarn Quay', 'Cape Lorne'],
].map((name): [string, string, string] => [name, name, name]);

const TRANSFER_FIELDS: FormField[] = [
  choice('from', t('From which base?', 'De que base?'), ...BASES),
  choice('to', t('To which base?', 'Para que base?'), ...BASES),
  { name: 'day', kind: 'date', label: t('First day there', 'Primeiro dia lá'), needed: true },
  yesNo('gear', t('Safety gear needed there?', 'Precisa de equipamento de segurança?')),
  {
    ...choice(
      'size',
      t('Which size?', 'Que tamanho?'),
      ['s', 'Small', 'Pequeno'],
      ['m', 'Middle', 'Médio'],
      ['l', 'Large', 'Grande'],
    ),
    shownWhen: wants('gear'),
  },
  yesNo('tablet', t('A bridge tablet?', 'Um tablet para a ponte?')),
  yesNo(
    'berth',
    t('Somewhere to live?', 'Alojamento?'),
    t('Near the base, for the first weeks.', 'Perto da base, nas primeiras semanas.'),
  ),
];

/** Both base managers and the crewing lead, two of three; then four teams at once; then rights; then the welcome. */
const TRANSFER: ServicePlan = {
  doneWords: t('You have moved. Welcome at your new base.', 'A mudança está feita. Bem-vindo à nova base.'),
  legs: [
    { id: 'agree', name: t('Agree', 'Acordar') },
    { id: 'prepare', name: t('Prepare', 'Preparar') },
    { id: 'switch', name: t('Switch over', 'Trocar') },
    { id: 'arrive', name: t('Arrive', 'Chegar') },
  ],
  steps: [
    {
      ...{
        id: 'consent',
        leg: 'agree',
        kind: 'approval',
        name: t('Both bases and crewing agree', 'As duas bases e a escala concordam'),
      },
      refs: [{ headOfSite: 'from' }, { headOfSite: 'to' }, { person: 'iben' }],
      ...{ needs: { kind: 'count', count: 2 }, declineBy: 'outOfReach', effort: 'P1D' },
    },
    {
      ...{
        id: 'contract',
        leg: 'prepare',
        kind: 'task',
        teamId: 'people',
        name: t('Contract change', 'Alteração do contrato'),
        effort: 'P1DT4H',
      },
      checklist: [
        t('Base allowance looked up', 'Subsídio de base verificado'),
        t('Letter sent', 'Carta enviada'),
      ],
    },
    {
      id: 'centre',
      leg: 'prepare',
      kind: 'task',
      teamId: 'finance',
      name: t('Cost centre', 'Centro de custo'),
      effort: 'PT6H',
    },
    {
      ...{
        id: 'gear',
        leg: 'prepare',
        kind: 'task',
        teamId: 'stores',
        name: t('Safety gear in the right size', 'Equipamento no tamanho certo'),
      },
      ...{ effort: 'P4D', when: wants('gear') },
      checklist: [t('Boots', 'Botas'), t('Vest', 'Colete'), t('Gloves', 'Luvas')],
    },
    {
      ...{ id: 'tablet', leg: 'prepare', kind: 'task', teamId: 'onboard', groupId: 'onboard-bridge' },
      ...{
        name: t('Bridge tablet handed over', 'Tablet da ponte entregue'),
        effort: 'P1D',
        when: wants('tablet'),
      },
    },
    {
      ...{
        id: 'berth',
        leg: 'prepare',
        kind: 'task',
        teamId: 'facilities',
        name: t('Accommodation', 'Alojamento'),
        effort: 'P2D',
        when: wants('berth'),
      },
    },
    {
      ...{
        id: 'rights',
        leg: 'switch',
        kind: 'automatic',
        name: t('Door and roster rights', 'Acessos às portas e à escala'),
      },
      ...{ action: { do: 'send', address: DIRECTORY }, effort: 'PT2H' },
    },
    {
      ...{ id: 'list', leg: 'switch', kind: 'automatic', name: t('Berth list', 'Lista de beliches') },
      action: { do: 'setField', field: 'onList', value: true },
    },
    {
      id: 'welcome',
      leg: 'arrive',
      kind: 'task',
      teamId: 'desk',
      name: t('Welcome at the base', 'Boas-vindas na base'),
      effort: 'P1D',
    },
    {
      ...{
        id: 'how',
        leg: 'arrive',
        kind: 'task',
        teamId: 'desk',
        name: t('Ask how it went', 'Perguntar como correu'),
      },
      ...{ effort: 'PT1H', after: ['welcome'] },
    },
  ],
};

const STARTER_FIELDS: FormField[] = [
  { name: 'who', kind: 'text', label: t('Who starts?', 'Quem começa?'), needed: true },
  { name: 'job', kind: 'text', label: t('As what?', 'Em que função?'), needed: true },
  {
    name: 'department',
    kind: 'text',
    label: t('In which department?', 'Em que departamento?'),
    needed: true,
    filledFrom: 'department',
  },
  { name: 'day', kind: 'date', label: t('First day', 'Primeiro dia'), needed: true },
  {
    name: 'site',
    kind: 'place',
    label: t('At which site?', 'Em que local?'),
    needed: true,
    filledFrom: 'site',
  },
  choice(
    'hours',
    t('Full or part time?', 'A tempo inteiro ou parcial?'),
    ['full', 'Full time', 'Tempo inteiro'],
    ['part', 'Part time', 'Tempo parcial'],
  ),
  yesNo('laptop', t('A laptop?', 'Um portátil?')),
  yesNo('phone', t('A phone?', 'Um telefone?')),
];

const STARTER: ServicePlan = {
  doneWords: t(
    'Everything is ready, and the first day has begun.',
    'Está tudo pronto, e o primeiro dia começou.',
  ),
  legs: [
    { id: 'agree', name: t('Agree', 'Acordar') },
    { id: 'prepare', name: t('Prepare', 'Preparar') },
    { id: 'begin', name: t('First day', 'Primeiro dia') },
  ],
  steps: [
    {
      ...{
        id: 'place',
        leg: 'agree',
        kind: 'approval',
        name: t('The post is agreed', 'O lugar está aprovado'),
      },
      ...{ refs: [{ manager: 'ofRequester' }], needs: { kind: 'any' }, declineBy: 'any', effort: 'PT8H' },
    },
    {
      ...{
        id: 'interview',
        leg: 'prepare',
        kind: 'task',
        teamId: 'people',
        name: t('Interview and contract', 'Entrevista e contrato'),
        effort: 'P2D',
      },
      checklist: [
        t('Interview held', 'Entrevista feita'),
        t('Contract signed', 'Contrato assinado'),
        t('Safety course booked', 'Curso de segurança marcado'),
      ],
    },
    {
      ...{
        id: 'accounts',
        leg: 'prepare',
        kind: 'automatic',
        name: t('Accounts', 'Contas'),
        after: ['interview'],
      },
      ...{ action: { do: 'send', address: DIRECTORY }, effort: 'PT1H' },
    },
    {
      ...{
        id: 'laptop',
        leg: 'prepare',
        kind: 'task',
        teamId: 'desk',
        name: t('Laptop set up', 'Portátil preparado'),
      },
      ...{ effort: 'PT6H', when: wants('laptop'), after: ['accounts'] },
    },
    {
      id: 'phone',
      leg: 'prepare',
      kind: 'task',
      teamId: 'stores',
      name: t('Phone', 'Telefone'),
      effort: 'P1D',
      when: wants('phone'),
    },
    {
      ...{
        id: 'badge',
        leg: 'prepare',
        kind: 'task',
        teamId: 'facilities',
        name: t('Badge and desk', 'Cartão e secretária'),
        effort: 'PT4H',
      },
      notBefore: { field: 'day', daysBefore: 5 },
    },
    {
      ...{
        id: 'welcome',
        leg: 'begin',
        kind: 'task',
        teamId: 'desk',
        name: t('Welcome and first sign-in', 'Boas-vindas e primeira entrada'),
      },
      ...{ effort: 'PT2H', notBefore: { field: 'day', daysBefore: 0 } },
    },
  ],
};

/** The two long services: several teams in the right order, and one date for who asked. */
export const LONG_SERVICES: DemoService[] = [
  {
    kind: 'request',
    ...{ id: 'crew-transfer', place: 'joining', teamId: 'desk', fields: TRANSFER_FIELDS, plan: TRANSFER },
    title: t('Move to another base', 'Mudar para outra base'),
    description: t(
      'For crew: contract, gear, rights and a welcome, all in one.',
      'Para tripulantes: contrato, equipamento, acessos e boas-vindas.',
    ),
    otherWords: t('crew transfer relocate base vessel change', 'transferência tripulação mudança base navio'),
  },
  {
    kind: 'request',
    ...{ id: 'starter', place: 'joining', teamId: 'desk', fields: STARTER_FIELDS, plan: STARTER },
    title: t('Someone new starts', 'Alguém novo começa'),
    description: t(
      'From the interview to the first day, everything they need.',
      'Da entrevista ao primeiro dia, tudo o que precisa.',
    ),
    otherWords: t(
      'new starter hire joiner onboarding employee laptop',
      'novo colega contratação entrada funcionário portátil',
    ),
  },
];
