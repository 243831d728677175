const GATHER_MS = 120;
/** What takes longer, as where the network has gone, holds up nothing more. */
const MOST_MS = 10_000;

/** Waits for work, but not for ever. */
function finish(work: unknown): Promise<unknown> {
  let timer: ReturnType<typeof setTimeout>;
  const most = new Promise((resolve) => (timer = setTimeout(resolve, MOST_MS)));
  return Promise.race([work, most]).finally(() => clearTimeout(timer));
}

/**
 * Gathers what comes and works it off together, one time after the other: however fast it comes, work never piles up.
 * What comes meanwhile has its turn after.
 * @param merge of two with the same key; the later one, unless said otherwise
 */
export function gather<K, V>(
  work: (gathered: Map<K, V>) => unknown,
  merge: (before: V | undefined, next: V) => V = (_before, next) => next,
): (key: K, value: V) => void {
  let gathered = new Map<K, V>();
  let isBusy = false;
  async function run(): Promise<void> {
    isBusy = true;
    while (gathered.size > 0) {
      await new Promise((resolve) => setTimeout(resolve, GATHER_MS));
      const turn = gathered;
      gathered = new Map();
      try {
        await finish(work(turn));
      } catch (error) {
        console.error(error);
      }
    }
    isBusy = false;
  }
  return (key, value) => {
    gathered.set(key, merge(gathered.get(key), value));
    if (!isBusy) void run();
  };
}
