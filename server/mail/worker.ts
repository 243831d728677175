import { parentPort, workerData } from 'node:worker_threads';
import { lowerOwnPriority } from '../lowPriority';
import { parseMail } from './read';

/** Reads one message that is large. */
lowerOwnPriority();
void parseMail(Buffer.from(workerData as Uint8Array)).then(
  (mail) => parentPort!.postMessage(mail),
  () => parentPort!.postMessage(null),
);
