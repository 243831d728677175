import fc from 'fast-check';
import { parseDuration } from '../calendar';
import { toIsoSpan, toTypedSpan } from './index';

test.each([
  ['1 d 8 h', 'P1DT8H'],
  ['90 min', 'PT90M'],
  ['2h30', 'PT2H30M'],
  ['4 horas', 'PT4H'],
  ['45', 'PT45M'],
  ['', null],
  ['0 h', null],
  ['soon', null],
])('a length of time as people type it: %s', (typed, iso) => {
  expect(toIsoSpan(typed)).toBe(iso);
});

test('there and back, and what comes out is a duration', () => {
  fc.assert(
    fc.property(fc.nat(30), fc.nat(23), fc.nat(59), (d, h, min) => {
      fc.pre(d + h + min > 0);
      const iso = toIsoSpan(`${d} d ${h} h ${min} min`)!;
      expect(toIsoSpan(toTypedSpan(iso))).toBe(iso);
      expect(parseDuration(iso, { hoursPerDay: 8 })).toBe(((d * 8 + h) * 60 + min) * 60_000);
    }),
  );
});
