const CARD = /(?<!\d)(?:\d[ -]?){12,18}\d(?!\d)/g;
const SAID = /((?:password|passcode|pin|palavra-passe|senha)\s*(?:is|:|=|é)\s*)(\S+)/giu;

/** Whether digits are a card's number, by the check digit of ISO/IEC 7812-1 (Luhn). */
export function isCardNumber(text: string): boolean {
  const digits = text.replace(/\D/g, '');
  if (digits.length < 13 || digits.length > 19) return false;
  let sum = 0;
  Array.from(digits)
    .reverse()
    .forEach((digit, i) => {
      const value = Number(digit) * (i % 2 === 0 ? 1 : 2);
      sum += value > 9 ? value - 9 : value;
    });
  return sum % 10 === 0;
}

/**
 * A text without passwords and card numbers, which nobody should have sent.
 * @example maskSecrets('my password is tern77').text // 'my password is ••••'
 */
export function maskSecrets(text: string): { text: string; isMasked: boolean } {
  const masked = text
    .replace(CARD, (number) => (isCardNumber(number) ? '••••' : number))
    .replace(SAID, (_, before: string) => `${before}••••`);
  return { text: masked, isMasked: masked !== text };
}
