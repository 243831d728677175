/** A number that should not stand in a ticket, and where it stands. */
export type Sensitive = { kind: 'card' | 'iban'; start: number; end: number };

/**
 * The check digit of card numbers (ISO/IEC 7812-1, annex B): every second digit from the right counts twice.
 * @param digits digits alone
 */
export function passesLuhn(digits: string): boolean {
  const sum = Array.from(digits)
    .reverse()
    .reduce((total, digit, i) => {
      const counted = Number(digit) * (i % 2 === 1 ? 2 : 1);
      return total + (counted > 9 ? counted - 9 : counted);
    }, 0);
  return sum % 10 === 0;
}

/** The check digits of an IBAN (ISO 13616-1, by ISO/IEC 7064 MOD 97-10). @param iban letters and digits alone */
export function passesIban(iban: string): boolean {
  const turned = iban.slice(4) + iban.slice(0, 4);
  let rest = 0;
  for (const sign of turned.toUpperCase()) {
    const value = parseInt(sign, 36);
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97;
  }
  return rest === 1;
}

/** 13 to 19 digits with spaces or hyphens between, beginning as issuers of payment cards do (2 to 6). */
const CARD = /(?<![\w-])[2-6](?:[ -]?\d){12,18}(?![\w-])/g;
/** Two letters, two digits, and 11 to 30 more, in groups or not. */
const IBAN = /(?<![A-Za-z0-9])[A-Z]{2}\d{2}(?: ?[A-Z0-9]){11,30}(?![A-Za-z0-9])/g;
/** Some numbers of one sign alone pass by chance: nobody's. */
const isOneSign = (digits: string): boolean => new Set(digits).size === 1;

/**
 * Numbers of payment cards and accounts in a text, by their check digits, in their order.
 * @example findSensitive('card 4111 1111 1111 1111') // [{ kind: 'card', start: 5, end: 24 }]
 */
export function findSensitive(text: string): Sensitive[] {
  const found = [
    ...[...text.matchAll(CARD)].map((match) => ({ match, kind: 'card' as const })),
    ...[...text.matchAll(IBAN)].map((match) => ({ match, kind: 'iban' as const })),
  ];
  return found
    .filter(({ match: [words], kind }) => {
      const bare = words.replace(/[ -]/g, '');
      return kind === 'iban' ? passesIban(bare) : !isOneSign(bare) && passesLuhn(bare);
    })
    .map(({ match, kind }) => ({ kind, start: match.index, end: match.index + match[0].length }))
    .sort((a, b) => a.start - b.start);
}

/** A text without such numbers: of each the last four signs stay, so that one knows which it was. */
export function strikeOut(text: string): string {
  return findSensitive(text).reduceRight((struck, { start, end }) => {
    const shown = text.slice(end - 4, end);
    return `${struck.slice(0, start)}…${shown}${struck.slice(end)}`;
  }, text);
}
