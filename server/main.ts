import path from 'node:path';
import { readLearned } from './assistant/learned';
import { readConfig } from './config';
import { startListo } from './process';

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
// The start command waits for this line.
process.send?.({ port });
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
