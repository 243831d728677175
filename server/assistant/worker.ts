import { parentPort, workerData } from 'node:worker_threads';
import { learn, type Learned } from '../../core/assistant';
import type { Synonyms } from '../../core/search';

/** What the thread is given to learn. */
export type ToLearn = { matters: Learned[]; synonyms: Record<'en' | 'pt', Synonyms> };

const { matters, synonyms } = workerData as ToLearn;
parentPort!.postMessage(learn(matters, synonyms));
