import { jest } from '@jest/globals';
import { gather } from './gather';

test('what comes while something is worked off is gathered, each key once, and has its turn after', async () => {
  const turns: [string, number][][] = [];
  let finish = (): void => undefined;
  let began = (): void => undefined;
  const begins = (): Promise<void> => new Promise((resolve) => (began = resolve));
  const put = gather<string, number>(
    (gathered) => {
      turns.push([...gathered]);
      began();
      return new Promise<void>((resolve) => (finish = resolve));
    },
    (before = 0, next) => before + next,
  );
  const first = begins();
  put('a', 1);
  await first;
  const second = begins();
  for (let i = 0; i < 1000; i++) put('a', 1);
  put('b', 5);
  finish();
  await second;
  expect(turns).toEqual([
    [['a', 1]],
    [
      ['a', 1000],
      ['b', 5],
    ],
  ]);
  finish();
});

test('what fails holds up nothing', async () => {
  const said = jest.spyOn(console, 'error').mockImplementation(() => undefined);
  const turns: string[] = [];
  let began = (): void => undefined;
  const put = gather<string, true>((gathered) => {
    turns.push(...gathered.keys());
    began();
    throw new Error('not reached');
  });
  for (const key of ['a', 'b'])
    await new Promise<void>((resolve) => {
      began = resolve;
      put(key, true);
    });
  expect(turns).toEqual(['a', 'b']);
  expect(said).toHaveBeenCalled();
  said.mockRestore();
});
