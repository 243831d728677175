import {
  choice,
  days,
  FINANCE_OVER_500,
  from,
  impact,
  MANAGER,
  picture,
  place,
  site,
  t,
  urgency,
  what,
  whose,
  why,
  type DemoService,
} from './serviceParts';

/** Everyday matters of the teams for computers, networks, applications and people. */
export const OFFICE_SERVICES: DemoService[] = [
  {
    ...{ id: 'locked-out', kind: 'incident', place: 'desk', teamId: 'desk' },
    title: t('I cannot sign in', 'Não consigo entrar'),
    description: t(
      'A password, a code or a card that is not taken.',
      'Uma palavra-passe, um código ou um cartão recusado.',
    ),
    otherWords: t('password locked out login card code reset', 'senha palavra-passe bloqueado cartão código'),
    fields: [
      choice(
        'where',
        t('Where do you sign in?', 'Onde entra?'),
        ['computer', 'On a computer', 'Num computador'],
        ['till', 'On a till or kiosk', 'Numa caixa ou quiosque'],
        ['bridge', 'On a bridge tablet', 'Num tablet da ponte'],
      ),
      { name: 'shown', kind: 'text', needed: false, label: t('What does it say?', 'O que aparece?') },
      urgency,
    ],
  },
  {
    ...{
      id: 'laptop',
      kind: 'request',
      place: 'things',
      teamId: 'desk',
      cost: 118_000,
      approvals: [MANAGER, FINANCE_OVER_500],
    },
    title: t('A laptop', 'Um portátil'),
    description: t('New, or in place of one that is worn out.', 'Novo, ou em vez de um já gasto.'),
    otherWords: t('computer notebook pc order', 'computador pc pedir'),
    fields: [
      choice(
        'which',
        t('New or a replacement?', 'Novo ou substituição?'),
        ['new', 'New', 'Novo'],
        ['replacement', 'A replacement', 'Uma substituição'],
      ),
      { ...whose, assetKind: 'laptop', shownWhen: { field: 'which', op: 'is', value: 'replacement' } },
      {
        ...{
          name: 'extras',
          kind: 'choices',
          needed: false,
          label: t('What goes with it?', 'O que vai com ele?'),
        },
        choices: [
          { value: 'dock', label: t('A dock', 'Uma base') },
          { value: 'screen', label: t('A second screen', 'Um segundo ecrã') },
          { value: 'bag', label: t('A bag', 'Uma mala') },
        ],
      },
      why,
    ],
  },
  {
    ...{ id: 'loan', kind: 'request', place: 'things', teamId: 'desk' },
    title: t('Borrow something for a few days', 'Pedir algo emprestado por uns dias'),
    description: t('Radios, projectors, tablets.', 'Rádios, projetores, tablets.'),
    otherWords: t('loan borrow projector radio tablet event', 'emprestar projetor rádio tablet evento'),
    fields: [
      { name: 'what', kind: 'text', label: t('What?', 'O quê?'), needed: true },
      days,
      {
        name: 'by',
        kind: 'person',
        label: t('Who answers for it?', 'Quem fica responsável?'),
        needed: false,
      },
    ],
  },
  {
    ...{ id: 'other', kind: 'request', place: 'desk', teamId: 'desk' },
    title: t('Something else', 'Outra coisa'),
    description: t(
      'Say it in your own words; the Service desk finds who can help.',
      'Diga por palavras suas; a Central encontra quem ajuda.',
    ),
    otherWords: t('other help question anything', 'outro ajuda pergunta'),
    fields: [{ ...what, label: t('What do you need?', 'De que precisa?') }, picture],
  },
  {
    ...{
      id: 'passenger-screen',
      kind: 'incident',
      place: 'gate',
      teamId: 'onboard',
      groupId: 'onboard-gates',
    },
    title: t('A departure screen is wrong', 'Um ecrã de partidas está errado'),
    description: t('Dark, frozen, or showing another sailing.', 'Apagado, parado ou com outra viagem.'),
    otherWords: t('display board departures monitor sign', 'painel partidas monitor'),
    fields: [
      site,
      place,
      { name: 'since', kind: 'time', label: t('Since what time?', 'Desde que horas?'), needed: false },
      what,
      impact,
    ],
  },
  {
    ...{ id: 'wifi', kind: 'incident', place: 'onBoard', teamId: 'network' },
    title: t('The wireless network is slow or gone', 'A rede sem fios está lenta ou em baixo'),
    description: t('On board or ashore.', 'A bordo ou em terra.'),
    otherWords: t('wifi wireless internet slow network', 'wifi internet lenta rede'),
    fields: [site, place, what, impact, urgency],
  },
  {
    ...{ id: 'radio', kind: 'request', place: 'things', teamId: 'network', approvals: [MANAGER] },
    title: t('A hand radio', 'Um rádio portátil'),
    description: t('For deck, gate and yard.', 'Para convés, porta e estaleiro.'),
    otherWords: t('walkie vhf uhf radio handset', 'rádio vhf uhf portátil'),
    audience: [{ by: 'onVessel' }, { by: 'department', in: ['Terminals', 'Dockyards'] }],
    fields: [
      {
        name: 'many',
        kind: 'number',
        label: t('How many?', 'Quantos?'),
        needed: true,
        least: 1,
        most: 12,
        unit: t('pieces', 'unidades'),
      },
      {
        name: 'channel',
        kind: 'text',
        label: t('Call sign', 'Indicativo'),
        needed: false,
        pattern: '[A-Z]{2,6}-\\d{1,3}',
        patternWords: t(
          'As on your list: letters, a dash, a number.',
          'Como na sua lista: letras, um traço, um número.',
        ),
      },
      why,
    ],
  },
  {
    ...{
      id: 'access',
      kind: 'request',
      place: 'desk',
      teamId: 'apps',
      groupId: 'apps-access',
      approvals: [MANAGER],
    },
    title: t('Access to an application', 'Acesso a uma aplicação'),
    description: t('Rights to read or to change.', 'Direitos para ler ou alterar.'),
    otherWords: t('rights permission role account application', 'direitos permissão conta aplicação'),
    fields: [
      choice(
        'application',
        t('Which application?', 'Que aplicação?'),
        ['booking', 'Booking', 'Reservas'],
        ['roster', 'Roster', 'Escalas'],
        ['stock', 'Stock', 'Existências'],
        ['invoices', 'Invoices', 'Faturas'],
      ),
      choice(
        'level',
        t('To read, or to change?', 'Para ler ou para alterar?'),
        ['read', 'To read', 'Ler'],
        ['change', 'To change', 'Alterar'],
      ),
      from,
      { ...why, needed: false, neededWhen: { field: 'level', op: 'is', value: 'change' } },
    ],
  },
  {
    ...{ id: 'report', kind: 'request', place: 'desk', teamId: 'apps' },
    title: t('A list or report', 'Uma lista ou relatório'),
    description: t(
      'Figures out of booking, roster or stock.',
      'Números das reservas, escalas ou existências.',
    ),
    otherWords: t('report figures export data statistics', 'relatório números dados estatística'),
    fields: [
      { name: 'about', kind: 'heading', label: t('What it should say', 'O que deve dizer'), needed: false },
      { ...what, label: t('Which figures?', 'Que números?') },
      {
        ...{ name: 'columns', kind: 'table', label: t('Its columns', 'As colunas'), needed: false },
        columns: [
          { name: 'name', kind: 'text', label: t('Name', 'Nome') },
          { name: 'means', kind: 'text', label: t('What it means', 'O que significa') },
        ],
      },
      days,
    ],
  },
  {
    ...{ id: 'letter', kind: 'request', place: 'me', teamId: 'people' },
    title: t('A letter for the bank or an office', 'Uma declaração para o banco ou um serviço'),
    description: t(
      'That you work here, since when, what you earn.',
      'Que trabalha aqui, desde quando, quanto ganha.',
    ),
    otherWords: t(
      'certificate employment letter salary proof bank',
      'declaração comprovativo vencimento banco',
    ),
    fields: [
      choice(
        'about',
        t('What should it say?', 'O que deve dizer?'),
        ['work', 'That I work here', 'Que trabalho aqui'],
        ['salary', 'What I earn', 'Quanto ganho'],
      ),
      choice(
        'language',
        t('In which language?', 'Em que língua?'),
        ['pt', 'Portuguese', 'Português'],
        ['en', 'English', 'Inglês'],
      ),
    ],
  },
  {
    ...{ id: 'name-change', kind: 'request', place: 'me', teamId: 'people' },
    title: t('My address or bank account has changed', 'A minha morada ou conta mudou'),
    description: t('Only People services read it.', 'Só os Serviços de pessoal leem.'),
    otherWords: t('address bank iban moved account personal data', 'morada banco iban conta dados'),
    fields: [
      choice(
        'what',
        t('What has changed?', 'O que mudou?'),
        ['address', 'Address', 'Morada'],
        ['bank', 'Bank account', 'Conta bancária'],
      ),
      { name: 'new', kind: 'longText', label: t('The new one', 'A nova'), needed: true },
      from,
    ],
  },
];
