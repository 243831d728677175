import { pino } from 'pino';
import { Follower } from './follower';

/** A table in memory whose rows become visible in any order, as commits do. */
function world() {
  const rows: number[] = [];
  const passed: number[] = [];
  const state = { isWatched: true, failsNext: false, reads: 0 };
  let finished: () => void = () => undefined;
  const follower = new Follower<number>({
    everyMs: 1_000_000,
    log: pino({ level: 'silent' }),
    isWatched: () => state.isWatched,
    numberOf: (row) => row,
    read: (after, limit) => {
      state.reads++;
      return Promise.resolve(
        rows
          .filter((row) => row > after)
          .sort((a, b) => a - b)
          .slice(0, limit),
      );
    },
    pass(fresh) {
      finished();
      if (state.failsNext) {
        state.failsNext = false;
        return Promise.reject(new Error('the line broke'));
      }
      passed.push(...fresh);
      return Promise.resolve();
    },
  });
  /** Looks once, to the end. */
  const look = async () => {
    const done = new Promise<void>((resolve) => (finished = resolve));
    follower.look();
    await done;
    await follower.stop();
  };
  return { rows, passed, state, follower, look };
}

test('each row is passed on once, and what was there before is of no interest', async () => {
  const { rows, passed, follower, look } = world();
  rows.push(1, 2, 3);
  follower.begin(3);
  rows.push(4, 5);
  await look();
  rows.push(6);
  await look();
  await look();
  expect(passed).toEqual([4, 5, 6]);
});

test('a row that is committed after a later one is still passed on', async () => {
  const { rows, passed, follower, look } = world();
  follower.begin(10);
  rows.push(12);
  await look();
  rows.push(11);
  await look();
  expect(passed).toEqual([12, 11]);
});

test('what could not be passed on is passed on with the next look', async () => {
  const { rows, passed, state, follower, look } = world();
  follower.begin(0);
  rows.push(1, 2);
  state.failsNext = true;
  await look();
  expect(passed).toEqual([]);
  await look();
  expect(passed).toEqual([1, 2]);
});

test('nothing is read while nobody watches, nor before there is a beginning', () => {
  const { state, follower } = world();
  follower.look();
  follower.begin(0);
  state.isWatched = false;
  follower.look();
  expect(state.reads).toBe(0);
});
