import { fromHoursText, toHoursText } from './hoursText';

test.each([
  ['08:00–18:00', [{ from: '08:00', to: '18:00' }]],
  [
    '8-12, 13:00 - 17:30',
    [
      { from: '08:00', to: '12:00' },
      { from: '13:00', to: '17:30' },
    ],
  ],
  ['20:00–06:00', [{ from: '20:00', to: '06:00' }]],
  ['0800-1730', [{ from: '08:00', to: '17:30' }]],
  [
    '9 to 5; 18 até 20',
    [
      { from: '09:00', to: '05:00' },
      { from: '18:00', to: '20:00' },
    ],
  ],
  ['', []],
])('reads %s', (text, windows) => {
  expect(fromHoursText(text)).toEqual(windows);
});

test.each(['8', 'all day', '8–', '8–12–14', '8:5–9:00'])('does not read %s', (text) => {
  expect(fromHoursText(text)).toBeNull();
});

test('what is written is read again', () => {
  const windows = [
    { from: '00:00', to: '08:30' },
    { from: '22:00', to: '24:00' },
  ];
  expect(fromHoursText(toHoursText(windows))).toEqual(windows);
});
