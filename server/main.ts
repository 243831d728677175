import path from 'node:path';
import { readConfig } from './config';
import { startListo } from './process';

const webDir = process.argv.includes('--no-pages') ? null : path.resolve('dist');
const { listo, port, stop } = await startListo(readConfig(process.env), webDir);
listo.log.info({ port }, 'listening');
// The start command waits for this line.
process.send?.({ port });

let isStopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    if (isStopping) return;
    isStopping = true;
    void stop().then(() => process.exit(0));
  });
