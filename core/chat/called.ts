const CALL = /(?<![\p{L}\p{N}_@.])(@[\p{L}\p{N}][\p{L}\p{N}_-]*)/u;

/** Words in parts: every second one calls someone, as in “@rui”. */
export function splitCalls(text: string): string[] {
  return text.split(CALL);
}

/**
 * Whom words call by “@” and the name under which the chat knows them, each once, in lower case.
 * @example listCalled('@Rui, can @hanna look? Or hanna@solvarra.example') // ['rui', 'hanna']
 */
export function listCalled(text: string): string[] {
  const calls = splitCalls(text).filter((_, i) => i % 2 === 1);
  return [...new Set(calls.map((call) => call.slice(1).toLowerCase()))];
}
