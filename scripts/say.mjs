/** What the commands tell the person who runs them. */
export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** A line that is written over as work goes on; on a file, only its beginning and end are written. */
export function sayProgress(what, share) {
  const text = `  ${what}: ${Math.round(share * 100)} %`;
  if (process.stdout.isTTY) process.stdout.write(`\r\x1b[K${text}${share >= 1 ? '\n' : ''}`);
  else if (share >= 1) process.stdout.write(`${text}\n`);
}

export function giveUp(text) {
  process.stderr.write(`\n${text}\n`);
  process.exit(1);
}
