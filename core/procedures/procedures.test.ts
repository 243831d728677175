import * as fc from 'fast-check';
import { chooseProcedure, findPlace } from './index';

test('a service’s own procedure goes before that of its kind of work', () => {
  const ofKind = { serviceId: null, kind: 'incident' as const };
  const own = { serviceId: 'kiosk', kind: null };
  const work = { serviceId: 'kiosk', kind: 'incident' as const };
  expect(chooseProcedure([ofKind, own], work)).toBe(own);
  expect(chooseProcedure([ofKind], work)).toBe(ofKind);
  expect(chooseProcedure([ofKind], { ...work, kind: 'request' })).toBeNull();
  expect(chooseProcedure([{ serviceId: 'radio', kind: null }], work)).toBeNull();
});

test('it is at the first step that is not done, also where later ones are', () => {
  expect(findPlace(['a', 'b', 'c'], ['a', 'c'])).toEqual({ done: 2, at: 'b' });
  expect(findPlace(['a', 'b'], ['b', 'a'])).toEqual({ done: 2, at: null });
  expect(findPlace([], [])).toEqual({ done: 0, at: null });
});

test('ticks of steps that are no more change nothing, and ticking where it is brings it on', () => {
  const steps = fc.uniqueArray(fc.stringMatching(/^[a-z]{1,4}$/), { maxLength: 8 });
  fc.assert(
    fc.property(steps, fc.array(fc.boolean(), { minLength: 8, maxLength: 8 }), (ids, ticked) => {
      const done = ids.filter((_, i) => ticked[i]);
      const place = findPlace(ids, done);
      expect(findPlace(ids, [...done, 'GONE'])).toEqual(place);
      if (place.at === null) expect(place.done).toBe(ids.length);
      else expect(findPlace(ids, [...done, place.at]).done).toBe(place.done + 1);
    }),
  );
});
