/** A line of a benchmark's report. */
export function report(what: string, figure: string, note = ''): void {
  process.stdout.write(`  ${what.padEnd(58)} ${figure.padStart(14)}  ${note}\n`);
}

export function perSecond(rate: number): string {
  return `${Math.round(rate).toLocaleString('en')} /s`;
}

/** The value that such a share of them lies below. */
function at(share: number, values: number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length * share)]!;
}

export const median = (values: number[]): number => at(0.5, values);
export const p95 = (values: number[]): number => at(0.95, values);

/** Runs `work` by so many at once for so long. @returns how often a second it was done */
export async function rateOf(
  work: () => Promise<unknown>,
  { atOnce, ms }: { atOnce: number; ms: number },
): Promise<number> {
  const start = performance.now();
  let done = 0;
  const worker = async (): Promise<void> => {
    while (performance.now() - start < ms) {
      await work();
      done++;
    }
  };
  await Promise.all(Array.from({ length: atOnce }, worker));
  return (done * 1000) / (performance.now() - start);
}
