import { readlinkSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/**
 * Lets the threads that answer people go before this one, where the system knows threads by numbers of their own
 * (Linux does: setpriority(2)); elsewhere all stay equal.
 */
export function lowerOwnPriority(): void {
  try {
    const threadId = Number(path.basename(readlinkSync('/proc/thread-self')));
    os.setPriority(threadId, os.constants.priority.PRIORITY_BELOW_NORMAL);
  } catch {
    // They stay equal.
  }
}
