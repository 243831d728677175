import http from 'node:http';
import os from 'node:os';
import path from 'node:path';

/** Where the cluster of this account keeps its data, and the socket by which it is told what to do. */
export const BASE = path.join(os.tmpdir(), `listo-cluster-${process.getuid?.() ?? 0}`);
export const CONTROL = path.join(BASE, 'control');

/**
 * Tells the running cluster to do something. @throws where none runs
 * @param {string[]} words
 * @returns {Promise<{ text: string, isDone: boolean }>}
 */
export function askCluster(words) {
  return new Promise((resolve, reject) => {
    const request = http.request(
      { socketPath: CONTROL, path: `/${words.join('/')}`, method: 'POST' },
      (answer) => {
        let text = '';
        answer.on('data', (piece) => (text += piece));
        answer.on('end', () => resolve({ text, isDone: answer.statusCode === 200 }));
      },
    );
    request.on('error', reject).end();
  });
}
