import fc from 'fast-check';
import { getOwn, setOwn } from './index';

/** What plain objects answer to without having it. */
const INHERITED = ['constructor', 'valueOf', 'toString', 'hasOwnProperty', '__proto__', '__defineGetter__'];

test.each(INHERITED)('a record without %s has none, and keeps one that it is given', (key) => {
  const record: Record<string, number> = {};
  expect(getOwn(record, key)).toBeUndefined();
  setOwn(record, key, 7);
  expect(getOwn(record, key)).toBe(7);
  expect(Object.keys(record)).toEqual([key]);
  expect(Object.getPrototypeOf(record)).toBe(Object.prototype);
});

test('what is written under any key is read under it, and nothing else is', () => {
  const key = fc.oneof(fc.string(), fc.constantFrom(...INHERITED));
  fc.assert(
    fc.property(key, key, fc.integer(), (one, other, value) => {
      const record: Record<string, number> = {};
      setOwn(record, one, value);
      expect(getOwn(record, other)).toBe(one === other ? value : undefined);
    }),
  );
});
