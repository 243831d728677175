/** The driver's code of an error, also where Sequelize has wrapped it. */
export function codeOf(error: unknown): string | undefined {
  const { code, original } = error as { code?: string; original?: { code?: string } };
  return original?.code ?? code;
}

/** Met another transaction: of its own node, or (as it was committed) of another node. */
export function isDeadlock(error: unknown): boolean {
  const code = codeOf(error);
  return code === 'ER_LOCK_DEADLOCK' || code === 'ER_CHECKREAD';
}

/** Whether a row with such a key was there already. */
export function isDuplicate(error: unknown): boolean {
  return codeOf(error) === 'ER_DUP_ENTRY';
}

const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'ENOTFOUND',
  'EAI_AGAIN',
  // A node of a cluster that has not joined it, or is cut off from it.
  'ER_UNKNOWN_COM_ERROR',
  'ER_SERVER_SHUTDOWN',
  'ER_CONNECTION_KILLED',
  'ER_CONNECTION_TIMEOUT',
  'ER_SOCKET_UNEXPECTED_CLOSE',
  'ER_SOCKET_TIMEOUT',
  'ER_CMD_CONNECTION_CLOSED',
  'ER_CMD_NOT_EXECUTED_DESTROYED',
  'ER_NEW_CONNECTION_TIMEOUT',
  // As a node leaves while it commits: whether the others have it is not known to it.
  'ER_ERROR_DURING_COMMIT',
]);

/** Whether the server that was asked is no longer there, or no longer one of its cluster. */
export function isGone(code: string | undefined): boolean {
  return code !== undefined && GONE.has(code);
}

/** A node that has not joined the others did nothing of what it was asked. */
export function wasRefused(error: unknown): boolean {
  return codeOf(error) === 'ER_UNKNOWN_COM_ERROR';
}

/** Whether it is not known if what was to be committed is: the connection broke as it was asked. */
export function isUncertain(error: unknown): boolean {
  return (error as { isUncertain?: boolean }).isUncertain === true;
}

/** The database is away, or cannot take anything now: the same may go in a moment. */
const BUSY = new Set([
  // Waited for a row, or met another, longer than one waits.
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_LOCK_DEADLOCK',
  'ER_CHECKREAD',
  // No room on its disk.
  'ER_DISK_FULL',
  'ER_RECORD_FILE_FULL',
  'ER_ERROR_ON_WRITE',
  'ER_OPTION_PREVENTS_STATEMENT',
  'ER_CON_COUNT_ERROR',
  'ER_QUERY_INTERRUPTED',
  'ER_GET_CONNECTION_TIMEOUT',
]);

export function isAway(error: unknown): boolean {
  const code = codeOf(error);
  return isGone(code) || (code !== undefined && BUSY.has(code));
}
