import fc from 'fast-check';
import { parseDuration, readDuration } from './index';

test('the parts of a duration, as far as they are said', () => {
  expect(readDuration('P1DT8H')).toEqual({ days: 1, hours: 8, minutes: 0, seconds: 0 });
  expect(readDuration('PT90M')).toEqual({ days: 0, hours: 0, minutes: 90, seconds: 0 });
});

// ISO 8601-1:2019, 5.5.2: a `T` stands before hours, minutes and seconds, and something has to follow each letter.
test.each([
  '',
  'P',
  'PT',
  'P1',
  '1D',
  'P1H',
  'PT1D',
  'P1W',
  'P1M',
  'P1Y',
  'p1d',
  'P1DT',
  ' P1D',
  'P-1D',
  'P1.5D',
])('“%s” is none', (text) => expect(readDuration(text)).toBeNull());

test('it is as long as its parts, a day as long as the calendar says', () => {
  const part = fc.integer({ min: 0, max: 500 });
  fc.assert(
    fc.property(
      part,
      part,
      part,
      part,
      fc.integer({ min: 1, max: 24 }),
      (days, hours, minutes, seconds, hoursPerDay) => {
        fc.pre(days + hours + minutes + seconds > 0);
        const text = `P${days}DT${hours}H${minutes}M${seconds}S`;
        expect(readDuration(text)).toEqual({ days, hours, minutes, seconds });
        const ms = (((days * hoursPerDay + hours) * 60 + minutes) * 60 + seconds) * 1000;
        expect(parseDuration(text, { hoursPerDay })).toBe(ms);
      },
    ),
  );
});
