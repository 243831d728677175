import { foldText } from '../text';

const CARD = /(?<!\d)(?:\d[ -]?){12,18}\d(?!\d)/g;
const SAID =
  /((?<![\p{L}\p{N}])(?:password|passcode|pin|palavra[- ]passe|senha)(?:\s*[:=]\s*|\s+(is|was|é|era|e)\s+|\s+))(\S+)/giu;
/** What is said of a password without telling it. */
const ORDINARY = new Set(
  [
    'a about accepted again always an and asked blocked case changed correct denied due expired expiring for forgotten',
    'from gone good help in incorrect invalid it just known locked long longer lost missing my needed never new no not',
    'now of off ok old on once only out refused rejected required reset right safe set short so still stuck that the',
    'there this to too unknown used valid very weak what wrong your',
    'ainda aceite bloqueada certa como correta curta desconhecida errada esquecida esta expirada expirou fraca igual',
    'incorreta inválida longa mesma minha muito não nova o para pedida perdida precisa que recusada sempre só um uma',
  ]
    .join(' ')
    .split(' ')
    .map(foldText),
);

/** Whether a word that follows the name of a secret is the secret itself. */
function isSecret(word: string, isTold: boolean): boolean {
  if (/\d/.test(word) && (/\p{L}/u.test(word) || /\d{4}/.test(word))) return true;
  return isTold && !ORDINARY.has(foldText(word.replace(/[^\p{L}\p{N}]+$/u, '')));
}

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
    .replace(SAID, (all, before: string, link: string | undefined, word: string) => {
      const isTold = /[:=]/.test(before) || (link !== undefined && link.toLowerCase() !== 'e');
      return isSecret(word, isTold) ? `${before}••••` : all;
    });
  return { text: masked, isMasked: masked !== text };
}
