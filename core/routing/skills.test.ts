import * as fc from 'fast-check';
import { parseSkills, writeSkills } from './index';

test('levels may be left out, spaces do not matter, empty parts are none', () => {
  expect(parseSkills(' radio 2, card readers ,, kiosks  3')).toEqual({
    radio: 2,
    'card readers': 1,
    kiosks: 3,
  });
  expect(parseSkills('')).toEqual({});
});

test('a number that is no level belongs to the name', () => {
  expect(parseSkills('windows 11')).toEqual({ 'windows 11': 1 });
});

test('what is written is read back', () => {
  const name = fc.stringMatching(/^[a-z]{1,6}( [a-z]{1,6})?$/);
  fc.assert(
    fc.property(fc.dictionary(name, fc.integer({ min: 1, max: 3 }), { maxKeys: 5 }), (skills) =>
      expect(parseSkills(writeSkills(skills))).toEqual({ ...skills }),
    ),
  );
});
