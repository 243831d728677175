export { bearerOf, parseApiKey, toApiKey } from './key';
export type { ApiKeyParts } from './key';
export { findKeyProblem, isFrom, isLive, mayAddKey, MOST_A_MINUTE, MOST_KEYS, toNetwork } from './program';
export type { ApiKey, KeyProblem, Program } from './program';
