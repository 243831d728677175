import { byNearness, nearest } from './nearness';

test.each([
  ['next up', ['Next up'], 'exact'],
  ['Próximos', ['proximos'], 'exact'],
  ['next', ['Next up'], 'begins'],
  ['up', ['Next up'], 'words'],
  ['sp ti', ['Time spent'], 'words'],
  ['ext', ['Next up'], 'within'],
  ['next up', ['Desk: Next up', 'Next up'], 'exact'],
  ['kiosk', ['Next up'], null],
  ['next kiosk', ['Next up'], null],
] as const)('“%s” to %j: %s', (typed, names, expected) => {
  expect(nearest(typed, names)).toBe(expected);
});

test('the nearest stands first, equals as they stood, what is not near is left out', () => {
  const things = ['Mine and my team', 'Remine', 'Mine', 'Done', 'Not mine', 'Mine too'].map((name) => ({
    names: [name],
  }));
  expect(byNearness('mine', things).map(({ names: [name] }) => name)).toEqual([
    ...['Mine', 'Mine and my team', 'Mine too', 'Not mine', 'Remine'],
  ]);
  expect(byNearness('', things)).toHaveLength(6);
});
