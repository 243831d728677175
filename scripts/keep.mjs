import { spawn } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const LOOK_MS = 1_000;

/** Starts what clears up after this program, whatever way it ends. @returns its end, for when there is nothing to clear up */
export function startKeeper(kept) {
  const program = path.join(import.meta.dirname, 'keeper.mjs');
  let isOver = false;
  let keeper;
  const begin = () => {
    keeper = spawn(process.execPath, [program, JSON.stringify(kept)], {
      detached: true,
      stdio: ['pipe', 'ignore', 'ignore'],
    });
    keeper.stdin.on('error', () => undefined);
    // It does not keep this program from ending, and is started again where something ends it.
    keeper.unref();
    keeper.stdin.unref?.();
    keeper.once('exit', () => !isOver && begin());
  };
  begin();
  return {
    end() {
      isOver = true;
      keeper.kill('SIGKILL');
    },
  };
}

function parentOf(pid) {
  try {
    return Number(readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ')[1]);
  } catch {
    return 0;
  }
}

/** Calls back where npm, which started this, is gone without having told it: directly, or through the shell between. */
export function endWithParent(onGone) {
  if (process.env.npm_lifecycle_event === undefined) return;
  const parent = process.ppid;
  const above = parentOf(parent);
  const timer = setInterval(() => {
    if (process.ppid === parent && parentOf(parent) === above) return;
    clearInterval(timer);
    onGone();
  }, LOOK_MS);
  timer.unref();
}

/** Whether a process is there and runs this program. */
function isRunning(pid, program) {
  try {
    if (/\) [ZX] /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'))) return false;
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(program);
  } catch {
    return false;
  }
}

/** Takes a lock that one program holds at a time; one whose holder is dead is free. @returns it, or null where another has it */
export function takeLock(file, program) {
  for (let tries = 0; tries < 3; tries++) {
    try {
      writeFileSync(file, String(process.pid), { flag: 'wx', mode: 0o600 });
      return { free: () => rmSync(file, { force: true }) };
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      const holder = Number(readFileSync(file, 'utf8'));
      if (holder !== process.pid && isRunning(holder, program)) return null;
      rmSync(file, { force: true });
    }
  }
  return null;
}
