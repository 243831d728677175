const DELIMITERS = [',', ';', '\t', '|'] as const;

/** What parts the cells: whichever of the usual ones stands most often in the first line, outside quotes. */
export function guessDelimiter(text: string): string {
  const counts = new Map<string, number>(DELIMITERS.map((each) => [each, 0]));
  let isQuoted = false;
  for (const letter of text.slice(0, 20_000)) {
    if (letter === '"') isQuoted = !isQuoted;
    else if (!isQuoted && letter === '\n') break;
    else if (!isQuoted && counts.has(letter)) counts.set(letter, counts.get(letter)! + 1);
  }
  return [...counts].sort(([, one], [, other]) => other - one)[0]![0];
}
