/** Stands at the top of what is sent: all below it is ours when it comes back. */
export const ANSWER_ABOVE: Record<'en' | 'pt', string> = {
  en: '— Please write above this line —',
  pt: '— Escreva acima desta linha, por favor —',
};

/** How programs begin what they quote: a day, someone, “wrote:”. The line may be broken into two or three. */
const BEGINS = /(?:^|[\s-])(?:On|Em|No dia|A|Às|Am|Le|El|Il|Op|Den|På)\b/g;
const WROTE = /wrote|escreveu|schrieb|a écrit|escribió|ha scritto|schreef|skrev/g;
/** What may stand between “wrote” and the end of the line: a name, where the language puts it there. */
const LONGEST_AFTER = 60;
const MOST_BROKEN = 3;
const LONGEST_HEADER = 400;
const ORIGINAL =
  /^\s*-{2,}\s*(?:Original Message|Mensagem original|Forwarded message|Mensagem encaminhada|Reply message)\s*-{2,}\s*$/i;
const HEADER_FIELD = /^\s*\*?(?:From|De|Sent|Enviad[oa]|Date|Data|To|Para|Cc|Subject|Assunto):\*?\s*\S/i;
const QUOTED = /^\s*>/;
/** “-- ” (RFC 3676, 4.3) and what phones add. */
const SIGNATURE =
  /^(?:--\s?|\s*(?:Sent from my|Enviado do meu|Enviada a partir d|Get Outlook for|Obter o Outlook)\b.*)$/i;
/** Nobody writes more above a quote. */
const LONGEST = 100_000;

/** A quote that begins at a line: how many lines say so, and what of the first is still the answer's. */
type Begin = { lines: number; before: string; isLast: boolean };

/** Where such a beginning stands in a line that it ends; null: nowhere. Work: the line is gone through three times. */
function findSomeoneWrote(line: string): number | null {
  const wrote = [...line.matchAll(WROTE)].at(-1);
  if (!wrote) return null;
  const after = trimEnd(line.slice(wrote.index + wrote[0].length));
  if (after.replace(/:$/, '').length > LONGEST_AFTER) return null;
  const lastDigit = line.slice(0, wrote.index).search(/\d[^\d]*$/);
  const [first] = line.matchAll(BEGINS);
  return first && first.index + first[0].length <= lastDigit ? first.index : null;
}

/** Without blanks and hyphens at its end. */
function trimEnd(text: string): string {
  let end = text.length;
  while (end > 0 && /[\s-]/.test(text[end - 1]!)) end--;
  return text.slice(0, end);
}

function beginAt(lines: string[], at: number): Begin | null {
  const line = lines[at]!;
  const whole: Begin = { lines: 1, before: '', isLast: true };
  if (Object.values(ANSWER_ABOVE).some((marker) => line.includes(marker)) || ORIGINAL.test(line))
    return whole;
  if (QUOTED.test(line)) return { ...whole, lines: 0, isLast: false };
  if (
    HEADER_FIELD.test(line) &&
    lines.slice(at, at + 5).filter((each) => HEADER_FIELD.test(each)).length >= 3
  )
    return whole;
  for (let count = 1; count <= MOST_BROKEN; count++) {
    const joined = lines.slice(at, at + count).join(' ');
    if (joined.length > LONGEST_HEADER) return null;
    const found = findSomeoneWrote(joined);
    // Only the first of the broken lines can hold some of the answer.
    if (found !== null && found < line.length)
      return { lines: count, before: trimEnd(line.slice(0, found)), isLast: false };
  }
  return null;
}

/** The line after what is quoted from a line on, or null where nothing is marked as quoted there. */
function endOfQuote(lines: string[], from: number): number | null {
  let end: number | null = null;
  for (let at = from; at < lines.length; at++) {
    if (QUOTED.test(lines[at]!)) end = at + 1;
    else if (lines[at]!.trim() !== '') break;
  }
  return end;
}

/**
 * What someone has written in an answer: without what it quotes and without the signature. What stands under a quote
 * is kept, where the quote is marked line by line; else all below its beginning is taken for quoted.
 * @example trimReply('Yes\n\nOn Mon 3 May, Ana wrote:\n> May I?') // 'Yes'
 */
export function trimReply(text: string): string {
  const lines = text
    .slice(0, LONGEST)
    .replace(/\r\n?/g, '\n')
    .replace(/\u00a0/g, ' ')
    .split('\n');
  const kept: string[] = [];
  for (let at = 0; at < lines.length;) {
    const begin = beginAt(lines, at);
    if (!begin) {
      kept.push(lines[at++]!);
      continue;
    }
    if (begin.before !== '') kept.push(begin.before);
    const end = begin.isLast ? null : endOfQuote(lines, at + begin.lines);
    if (end === null) break;
    at = end;
  }
  const signature = kept.findIndex((line) => SIGNATURE.test(line));
  return (signature === -1 ? kept : kept.slice(0, signature))
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}
