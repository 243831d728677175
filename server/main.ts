import path from 'node:path';
import { readLearned } from './assistant/learned';
import { readConfig } from './config';
import { startListo } from './process';
import { readSetUpCode } from './sessions/setUp';

// What is written here is for this account alone.
process.umask(0o077);
const webDir = process.argv.includes('--no-pages') ? null : path.resolve('dist');
const config = readConfig(process.env);
const { listo, port, stop } = await startListo(config, webDir).catch((error: unknown) => {
  if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE') throw error;
  process.stderr.write(
    `Port ${config.PORT} is in use by another program. End that one, or choose another port: PORT=${config.PORT + 1} npm start\n`,
  );
  return process.exit(1);
});
listo.log.info({ port }, 'listening');
const setUpCode = await readSetUpCode(listo);
if (setUpCode !== null) listo.log.warn({ setUpCode }, 'empty: the page asks for this code');
// The start command waits for this line.
process.send?.({ port, setUpCode });
// Whoever asks the assistant first does not wait until it has learned.
readLearned(listo, 'employees').catch((error: unknown) =>
  listo.log.warn({ err: error }, 'the assistant learns when it is asked first'),
);

let isStopping = false;
function end(): void {
  if (isStopping) return;
  isStopping = true;
  void stop().then(() => process.exit(0));
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, end);
// Where the start command is gone without a word, nobody would end this one.
process.on('disconnect', end);
