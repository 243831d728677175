import { sayAnswer, sayDay } from './sayAnswer';
import type { AnswerValue, FormField } from './types';

const both = (text: string) => ({ en: text, pt: `${text} (pt)` });
const choices = [
  { value: 'hand', label: both('In the hand') },
  { value: 'fixed', label: both('Fixed') },
];
const columns = [
  { name: 'what', kind: 'text' as const, label: both('What') },
  { name: 'by', kind: 'date' as const, label: both('By') },
  { name: 'spare', kind: 'yesNo' as const, label: both('Spare') },
];

test.each<[FormField['kind'], AnswerValue, string | null]>([
  ['text', 'Screen stays black', 'Screen stays black'],
  ['number', 2, '2'],
  ['money', 34_050, '€340.50'],
  ['yesNo', false, 'no'],
  ['choice', 'hand', 'In the hand'],
  ['choices', ['hand', 'fixed'], 'In the hand, Fixed'],
  ['choices', [], null],
  ['date', '2026-12-16', 'Wed, 16 Dec 2026'],
  ['date', 'soon', 'soon'],
  ['dateRange', { from: '2026-12-16', to: '2026-12-18' }, 'Wed, 16 Dec 2026 – Fri, 18 Dec 2026'],
  ['person', { id: 'ana', name: 'Ana Lobo' }, 'Ana Lobo'],
  ['links', [{ url: 'https://quay.example', name: 'Plan' }], 'Plan https://quay.example'],
  [
    'table',
    [
      { what: 'Boots', by: '2026-12-16', spare: true },
      { what: 'Vest', by: null, spare: false },
    ],
    'Boots, Wed, 16 Dec 2026, yes; Vest, no',
  ],
  ['text', null, null],
])('%s %j is said as %j', (kind, value, said) => {
  expect(
    sayAnswer({ name: 'it', kind, needed: false, label: both('It'), choices, columns }, value, 'en'),
  ).toBe(said);
});

test('it is said in the language of who reads it', () => {
  const field: FormField = { name: 'it', kind: 'choice', needed: false, label: both('It'), choices };
  expect(sayAnswer(field, 'hand', 'pt')).toBe('In the hand (pt)');
  expect(sayAnswer({ ...field, kind: 'number', unit: both('hours') }, 4, 'pt')).toBe('4 hours (pt)');
  expect(sayAnswer({ ...field, kind: 'yesNo' }, true, 'pt')).toBe('sim');
  expect(sayDay('2026-12-16', 'pt')).toMatch(/16\/12\/2026/);
});
