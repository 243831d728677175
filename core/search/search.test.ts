import { createFinder } from './index';

const find = createFinder(
  [
    {
      id: 'gate',
      title: 'Something is broken at a gate',
      description: 'Scanners, turnstiles and screens',
      otherWords: 'scanner reader boarding',
    },
    {
      id: 'scanner',
      title: 'A scanner for a new gate',
      description: 'Order a hand or fixed scanner',
      otherWords: 'buy device',
    },
    { id: 'leave', title: 'Licença parental', description: 'Perguntas em confiança', otherWords: 'bebé' },
  ],
  'en',
);

test.each([
  ['gate scanner', 'scanner'],
  ['gate sca', 'scanner'],
  ['gate scaner', 'scanner'],
  ['turnstile', 'gate'],
  ['licenca', 'leave'],
  ['BEBE', 'leave'],
])('%j finds %s first', (query, id) => expect(find(query)[0]).toBe(id));

test('words that say nothing find nothing by what begins with them', () => {
  expect(find('a device')).toEqual(['scanner']);
  expect(find('so')).toEqual(['gate']);
});

test('nothing fits, or nothing is asked', () => {
  expect(find('zzzz')).toEqual([]);
  expect(find('')).toEqual([]);
});
