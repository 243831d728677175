import { categoryOf } from './catalogue';
import { GROUND_SERVICES } from './groundServices';
import { CHANGE_SERVICE } from './changes';
import { PROBLEM_SERVICE, WORK_SERVICES } from './works';
import { LONG_SERVICES } from './longServices';
import { OFFICE_SERVICES } from './officeServices';
import {
  choice,
  impact,
  links,
  MANAGER,
  picture,
  place,
  site,
  t,
  urgency,
  vessel,
  what,
  type DemoService,
} from './serviceParts';
import type { ServiceRow } from '../server/catalogue/model';

const SERVICES: DemoService[] = [
  {
    id: 'gate-broken',
    kind: 'incident',
    place: 'gate',
    teamId: 'onboard',
    groupId: 'onboard-gates',
    title: t('Something is broken at a gate', 'Algo está avariado numa porta de embarque'),
    description: t(
      'Scanners, turnstiles and screens where people board.',
      'Leitores, torniquetes e ecrãs onde se embarca.',
    ),
    otherWords: t(
      'gate scanner reader boarding season pass turnstile',
      'leitor embarque passe torniquete porta',
    ),
    fields: [site, place, what, impact, urgency, picture, links],
  },
  {
    id: 'gate-scanner',
    kind: 'request',
    place: 'gate',
    teamId: 'onboard',
    groupId: 'onboard-gates',
    cost: 34_000,
    approvals: [MANAGER],
    title: t('A scanner for a new gate', 'Um leitor para uma porta nova'),
    description: t(
      'A hand or fixed scanner, set up for your passes.',
      'Um leitor de mão ou fixo, pronto para os passes.',
    ),
    otherWords: t('gate scanner reader order buy device hand', 'leitor comprar pedir aparelho mão'),
    fields: [
      site,
      place,
      choice(
        'sort',
        t('Which kind?', 'De que tipo?'),
        ['hand', 'In the hand', 'De mão'],
        ['fixed', 'Fixed to the gate', 'Fixo na porta'],
      ),
      { name: 'count', kind: 'number', label: t('How many?', 'Quantos?'), needed: true, least: 1, most: 20 },
      { name: 'by', kind: 'date', label: t('Needed by', 'Necessário até'), needed: false },
    ],
  },
  {
    id: 'kiosk',
    kind: 'incident',
    place: 'gate',
    teamId: 'onboard',
    groupId: 'onboard-gates',
    title: t('A ticket kiosk has a problem', 'Um quiosque de bilhetes tem um problema'),
    description: t('Frozen, no paper, refuses cards.', 'Bloqueado, sem papel, recusa cartões.'),
    otherWords: t(
      'kiosk ticket machine payment card frozen paper',
      'quiosque bilhete máquina pagamento cartão papel',
    ),
    fields: [
      site,
      {
        name: 'kiosk',
        kind: 'text',
        label: t('Which kiosk?', 'Que quiosque?'),
        help: t('The number on its side.', 'O número na lateral.'),
        needed: true,
      },
      what,
      impact,
      urgency,
      picture,
    ],
  },
  {
    id: 'sea-link',
    kind: 'incident',
    place: 'onBoard',
    teamId: 'network',
    impact: 'site',
    title: t('The link at sea drops', 'A ligação no mar falha'),
    description: t('Satellite, radio and the network on board.', 'Satélite, rádio e a rede a bordo.'),
    otherWords: t('satellite internet wifi radio connection vessel', 'satélite internet wifi rádio navio'),
    fields: [vessel, what, urgency],
  },
  {
    id: 'bridge-tablet',
    kind: 'request',
    place: 'onBoard',
    teamId: 'onboard',
    groupId: 'onboard-bridge',
    cost: 89_000,
    approvals: [MANAGER],
    title: t('A bridge tablet', 'Um tablet para a ponte'),
    description: t(
      'New or a replacement, with the charts loaded.',
      'Novo ou substituto, com as cartas carregadas.',
    ),
    otherWords: t(
      'ipad device charts screen broken glass replace',
      'aparelho cartas ecrã vidro partido substituir',
    ),
    fields: [
      vessel,
      choice(
        'sort',
        t('New or a replacement?', 'Novo ou substituto?'),
        ['new', 'New', 'Novo'],
        ['replacement', 'A replacement', 'Um substituto'],
      ),
      {
        name: 'what',
        kind: 'longText',
        needed: true,
        label: t('What is wrong with it?', 'O que tem o atual?'),
        help: t('Say what it showed last.', 'Diga o que mostrou por último.'),
        shownWhen: { field: 'sort', op: 'is', value: 'replacement' },
      },
      picture,
    ],
  },
  {
    id: 'roster',
    kind: 'request',
    place: 'desk',
    teamId: 'apps',
    groupId: 'apps-roster',
    title: t('Something is wrong in the roster', 'Algo está errado na escala'),
    description: t(
      'A shift, a swap, a day off that is not shown.',
      'Um turno, uma troca, uma folga que não aparece.',
    ),
    otherWords: t('shift schedule rota swap', 'turno horário troca folga'),
    fields: [{ name: 'day', kind: 'date', label: t('Which day?', 'Que dia?'), needed: true }, what, urgency],
  },
  {
    id: 'new-starter',
    kind: 'request',
    place: 'joining',
    teamId: 'apps',
    groupId: 'apps-access',
    approvals: [MANAGER],
    title: t('Accounts and rights for a new starter', 'Contas e acessos para quem começa'),
    description: t(
      'Everything a new colleague signs in with on the first day.',
      'Tudo com que um novo colega entra no primeiro dia.',
    ),
    otherWords: t('account access login user onboarding rights', 'conta acesso utilizador entrada'),
    fields: [
      { name: 'who', kind: 'text', label: t('Who starts?', 'Quem começa?'), needed: true },
      { name: 'day', kind: 'date', label: t('First day', 'Primeiro dia'), needed: true },
      site,
      { name: 'crew', kind: 'yesNo', label: t('Crew?', 'Tripulação?'), needed: false },
    ],
  },
  {
    id: 'printing',
    kind: 'incident',
    place: 'desk',
    teamId: 'desk',
    title: t('Printing does not work', 'A impressora não funciona'),
    description: t(
      'Boarding lists, labels and office printers.',
      'Listas de embarque, etiquetas e impressoras.',
    ),
    otherWords: t('printer paper boarding list label toner', 'impressora papel lista etiqueta toner'),
    fields: [site, place, what, impact, urgency],
  },
  {
    id: 'building',
    kind: 'incident',
    place: 'building',
    teamId: 'facilities',
    title: t('Doors, keys, heating and light', 'Portas, chaves, aquecimento e luz'),
    description: t('Whatever is wrong with a building.', 'O que estiver mal num edifício.'),
    otherWords: t('door reader key card heating lamp water', 'porta chave cartão aquecimento luz água'),
    fields: [site, place, what, urgency, picture],
  },
  {
    id: 'safety-gear',
    kind: 'request',
    place: 'things',
    teamId: 'stores',
    title: t('Safety boots, vests and gloves', 'Botas, coletes e luvas'),
    description: t(
      'Gear in your size, sent to your site.',
      'Equipamento do seu tamanho, enviado ao seu local.',
    ),
    otherWords: t('shoes clothing equipment ppe size', 'sapatos roupa equipamento epi tamanho'),
    fields: [
      choice(
        'sort',
        t('What do you need?', 'De que precisa?'),
        ['boots', 'Boots', 'Botas'],
        ['vest', 'Vest', 'Colete'],
        ['gloves', 'Gloves', 'Luvas'],
      ),
      { name: 'size', kind: 'text', label: t('Which size?', 'Que tamanho?'), needed: true, most: 20 },
      site,
    ],
  },
  {
    id: 'invoice',
    kind: 'request',
    place: 'money',
    teamId: 'finance',
    title: t('A question on a supplier invoice', 'Uma questão sobre uma fatura'),
    description: t('An amount, a due date, a missing order.', 'Um valor, uma data, uma encomenda em falta.'),
    otherWords: t('bill payment supplier order', 'conta pagamento fornecedor encomenda'),
    fields: [
      { name: 'invoice', kind: 'text', label: t('Invoice number', 'Número da fatura'), needed: true },
      {
        name: 'amount',
        kind: 'number',
        label: t('Amount in euros', 'Valor em euros'),
        needed: false,
        least: 0,
      },
      { ...what, label: t('What is the question?', 'Qual é a questão?') },
      { name: 'scan', kind: 'files', label: t('The invoice', 'A fatura'), needed: false },
    ],
  },
  {
    id: 'in-confidence',
    kind: 'request',
    place: 'me',
    teamId: 'people',
    title: t(
      'Ask in confidence about leave or contract',
      'Perguntar em confiança sobre licenças ou contrato',
    ),
    description: t('Only People services read it.', 'Só os Serviços de pessoal leem.'),
    otherWords: t(
      'parental leave sick contract salary pregnancy',
      'licença parental doença contrato salário gravidez',
    ),
    fields: [
      choice(
        'about',
        t('What about?', 'Sobre quê?'),
        ['leave', 'Leave', 'Licença'],
        ['contract', 'Contract', 'Contrato'],
        ['other', 'Something else', 'Outra coisa'],
      ),
      { ...what, label: t('What would you like to know?', 'O que gostaria de saber?') },
    ],
  },
];

/** What some of them are marked by. */
const ICONS: Record<string, string> = {
  ...{ 'gate-broken': 'gauge', 'gate-scanner': 'deviceMobile', kiosk: 'deviceDesktop', 'sea-link': 'wifi' },
  ...{ 'bridge-tablet': 'deviceTablet', roster: 'clock', 'new-starter': 'userPlus', printing: 'printer' },
  ...{ building: 'tool', 'safety-gear': 'lifebuoy', invoice: 'fileText', 'in-confidence': 'lock' },
  ...{ badge: 'id', room: 'coffee', cleaning: 'home', expenses: 'coin', supplier: 'truck', spares: 'tool' },
  ...{ workwear: 'shirt', 'locked-out': 'key', laptop: 'deviceDesktop', loan: 'deviceTablet' },
  ...{ wifi: 'wifi', radio: 'headset', access: 'shield', report: 'fileText', letter: 'mail' },
  ...{ 'crew-transfer': 'speedboat', starter: 'userPlus' },
};

/** The catalogue that Solvarra begins with. */
export function createServices(): ServiceRow[] {
  return [
    ...SERVICES,
    ...OFFICE_SERVICES,
    ...GROUND_SERVICES,
    ...LONG_SERVICES,
    CHANGE_SERVICE,
    ...WORK_SERVICES,
    PROBLEM_SERVICE,
  ].map(({ fields, ...service }, position) => ({
    ...{ groupId: null, ownerId: null, approvals: [], plan: null, fallbackApproverId: 'helge', cost: null },
    ...{ impact: 'person', urgency: 'canWait', audience: [], stateWords: {}, articleLabels: [service.id] },
    ...{ opening: null, thanks: null },
    ...{ categoryId: categoryOf(service.id), icon: ICONS[service.id] ?? null, position: position * 10 },
    ...{ isOn: true, offWords: null, version: 1, publishedAt: null },
    form: { fields },
    ...service,
  }));
}
