import { findBegun } from './useCalls';

test.each([
  ['@', 1, ''],
  ['Ask @ru', 7, 'ru'],
  ['(@é', 3, 'é'],
  ['Ask @ru now', 7, 'ru'],
  ['mail rui@fer', 12, null],
  ['@Rui Bastos ', 12, null],
])('%s at %i begins %p', (text, caret, begun) => expect(findBegun(text, caret)).toBe(begun));
