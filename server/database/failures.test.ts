import { isAway, isDeadlock, isGone, isUncertain, wasRefused } from './failures';

const failed = (code: string): object => ({ code });
/** As Sequelize wraps what the driver says. */
const wrapped = (code: string): object => ({ name: 'SequelizeDatabaseError', original: { code } });

test.each([failed, wrapped])('what met another transaction is told from what found its node gone', (as) => {
  expect(isDeadlock(as('ER_LOCK_DEADLOCK'))).toBe(true);
  expect(isGone('ER_LOCK_DEADLOCK')).toBe(false);
  expect(isDeadlock(as('ECONNRESET'))).toBe(false);
  expect(isGone('ECONNRESET')).toBe(true);
});

test('both may go in a moment; a statement that does not fit never does', () => {
  expect(['ER_LOCK_DEADLOCK', 'ECONNREFUSED', 'ER_DISK_FULL'].map((code) => isAway(failed(code)))).toEqual([
    ...[true, true, true],
  ]);
  expect(isAway(failed('ER_PARSE_ERROR'))).toBe(false);
  expect(isAway(new Error('of our own'))).toBe(false);
});

test('a node that has not joined the others did nothing; one whose connection broke may have', () => {
  expect(wasRefused(wrapped('ER_UNKNOWN_COM_ERROR'))).toBe(true);
  expect(wasRefused(failed('ECONNRESET'))).toBe(false);
  expect(isUncertain(Object.assign(new Error('broke'), { isUncertain: true }))).toBe(true);
  expect(isUncertain(failed('ECONNRESET'))).toBe(false);
});
