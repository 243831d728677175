import { findByLetters, findUnknownBlanks } from './index';

const TEXTS = ['Password sent', 'Part on order', 'We are on it', 'Anything else?', 'Está resolvido'].map(
  (name) => ({ name }),
);
const namesOf = (q: string): string[] => findByLetters(TEXTS, q).map(({ name }) => name);

test('a few letters find a text: beginnings of words, initials, then letters in their order', () => {
  expect(namesOf('pa o')[0]).toBe('Part on order');
  expect(namesOf('ESTA')).toEqual(['Está resolvido']);
  expect(namesOf('wai')).toContain('We are on it');
  expect(namesOf('xyz')).toEqual([]);
  expect(namesOf('')).toHaveLength(TEXTS.length);
});

test('a blank that nothing fills is found', () => {
  expect(findUnknownBlanks('Dear {name}, {number} is {stauts}')).toEqual(['stauts']);
});
