import { prefixLines } from './prefixLines';

const apply = (text: string, start: number, end: number, mark = '- ') => {
  const change = prefixLines({ text, start, end }, mark);
  return text.slice(0, change.start) + change.with + text.slice(change.end);
};

test('every line that a choice touches gets the mark', () => {
  expect(apply('one\ntwo\nthree', 1, 5)).toBe('- one\n- two\nthree');
});

test('where all have it already, it is taken away', () => {
  expect(apply('- one\n- two', 0, 11)).toBe('one\ntwo');
});

test('an empty line alone can begin a list', () => {
  expect(apply('one\n', 4, 4, '- [ ] ')).toBe('one\n- [ ] ');
});
