import { findDearest, note, noting } from './asked';

test('statements are noted only within what wants to know', async () => {
  await note('before', () => Promise.resolve());
  const { result, asked } = noting(async () => {
    await note('one', () => Promise.resolve());
    await note('two', () => Promise.reject(new Error('refused'))).catch(() => undefined);
  });
  await result;
  expect(asked.map(({ sql }) => sql)).toEqual(['one', 'two']);
});

test('the same statements count together, the dearest first', () => {
  const asked = [
    { sql: 'a', ms: 2 },
    { sql: 'b', ms: 3 },
    { sql: 'a', ms: 2 },
    { sql: 'c', ms: 1 },
  ];
  expect(findDearest(asked, 2)).toEqual([
    { sql: 'a', ms: 4, times: 2 },
    { sql: 'b', ms: 3, times: 1 },
  ]);
});
