import { register } from 'tsx/esm/api';

/** A thread does not take over how its process reads TypeScript. */
register();
await import('../recountWorker.ts');
