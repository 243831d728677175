import type { FormField } from '../core/forms';
import type { ServicePlan } from '../core/plans';
import type { PlannedTicket } from './plans';
import { choice, t, type DemoService } from './serviceParts';

const FIELDS: FormField[] = [
  choice(
    'program',
    t('In which program?', 'Em que programa?'),
    ['booking', 'Booking', 'Reservas'],
    ['roster', 'Roster', 'Escalas'],
    ['stock', 'Stock', 'Existências'],
    ['invoices', 'Invoices', 'Faturas'],
  ),
  { name: 'what', kind: 'longText', needed: true, label: t('What should it do?', 'O que deve fazer?') },
  {
    ...{ name: 'hours', kind: 'number', needed: true, unit: t('hours a month', 'horas por mês') },
    label: t('How much work would it save?', 'Quanto trabalho pouparia?'),
  },
  { name: 'day', kind: 'date', needed: true, label: t('From when would it help?', 'A partir de quando?') },
];

/** Weighed against the others by who leads the team; then made, written down, and tried with who asked. */
const PLAN: ServicePlan = {
  doneWords: t('Your change is in the program.', 'A sua alteração está no programa.'),
  legs: [
    { id: 'weigh', name: t('Its turn', 'A sua vez') },
    { id: 'make', name: t('Make it', 'Fazer') },
    { id: 'use', name: t('Into use', 'Pôr em uso') },
  ],
  steps: [
    {
      ...{ id: 'rank', leg: 'weigh', kind: 'ranking', teamId: 'apps', effort: 'P5D' },
      name: t('Ranked among the changes', 'Ordenado entre as alterações'),
    },
    {
      ...{ id: 'build', leg: 'make', kind: 'task', teamId: 'apps', effort: 'P6D' },
      name: t('The change itself', 'A própria alteração'),
    },
    {
      ...{ id: 'guide', leg: 'make', kind: 'task', teamId: 'desk', effort: 'PT4H', after: ['build'] },
      name: t('What to tell those who use it', 'O que dizer a quem o usa'),
    },
    {
      ...{ id: 'try', leg: 'use', kind: 'task', teamId: 'apps', effort: 'PT4H' },
      name: t('Tried with who asked', 'Experimentado com quem pediu'),
    },
  ],
};

/** Large requests: too many to do at once, so that someone says whose turn it is. */
export const CHANGE_SERVICE: DemoService = {
  ...{ id: 'program-change', kind: 'request', place: 'desk', teamId: 'apps', fields: FIELDS, plan: PLAN },
  title: t('A change to a program', 'Uma alteração num programa'),
  description: t(
    'Something that booking, roster, stock or invoices should do and does not.',
    'Algo que as reservas, escalas, existências ou faturas deviam fazer e não fazem.',
  ),
  otherWords: t(
    'improvement feature wish idea software screen button field',
    'melhoria funcionalidade desejo ideia ecrã botão campo',
  ),
};

const change = { serviceId: 'program-change' };

/** Changes that wait for their turn, and one that has had it. */
export const CHANGES: PlannedTicket[] = [
  {
    ...{ ...change, title: 'Rest times stand in the roster', by: 'aro', ago: 70, inDays: 40 },
    answers: {
      program: 'roster',
      what: 'It should say when someone has had too little rest before a watch.',
      hours: 30,
    },
    then: [
      {
        ...{ by: 'vasco', ranks: 'rank', ago: 52, goesAhead: true },
        words: 'This one first: it keeps people safe. Petra begins on Monday.',
      },
      { by: 'petra', takes: true, ago: 51 },
      { by: 'petra', step: 'build', does: 'take', ago: 50 },
    ],
  },
  {
    ...{ ...change, title: 'One booking for a car and its trailer', by: 'nuno', ago: 44, inDays: 60 },
    answers: {
      program: 'booking',
      what: 'A car with a trailer needs two bookings now, and they are often on two sailings.',
      hours: 22,
    },
    then: [
      {
        ...{ by: 'vasco', ranks: 'rank', ago: 30, goesAhead: false },
        words: 'We have seen it and want it before the summer timetable. Its turn comes after the roster.',
      },
      { by: 'luis', takes: true, ago: 43 },
      { by: 'luis', writes: 'Thank you. It stands among the changes now; Vasco says when.', ago: 42.9 },
    ],
  },
  {
    ...{ ...change, title: 'Stock shows what is on order', by: 'jonas', ago: 40, inDays: 30 },
    answers: {
      program: 'stock',
      what: 'What has been ordered should stand beside what is there.',
      hours: 14,
    },
    then: [
      { by: 'luis', takes: true, ago: 38 },
      { by: 'luis', writes: 'Noted. How many parts would it be about?', ago: 37.9 },
    ],
  },
  {
    ...{ ...change, title: 'Invoices summed by cost centre', by: 'clara', ago: 20, inDays: 35 },
    answers: {
      program: 'invoices',
      what: 'A sum for each cost centre at the end of the month, to send to those who head them.',
      hours: 9,
    },
    then: [
      { by: 'petra', takes: true, ago: 18 },
      { by: 'petra', writes: 'Clear. It stands among the changes now.', ago: 17.9 },
    ],
  },
];
