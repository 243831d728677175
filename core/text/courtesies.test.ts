import { courtesyOf, withoutCourtesies } from './index';

test.each([
  ['Hello, I forgot my password.\nThanks, Tomas', 'I forgot my password.'],
  ['Dear Bia,\nthe kiosk is dead.\nBest regards\nTomás Veiga\nPurser, MV Petrel', 'the kiosk is dead.'],
  ['Bom dia,\na impressora não imprime.\n\nCumprimentos,\nLena', 'a impressora não imprime.'],
  ['hi all, can someone look at gate 4? thanks', 'look at gate 4?'],
  // What only looks like courtesy is the matter.
  ['Best regards are missing in my signature', 'Best regards are missing in my signature'],
  ['The message says "thank you" twice', 'The message says "thank you" twice'],
  ['Hi printer broken\nSince yesterday.', 'printer broken\nSince yesterday.'],
  ['It froze.\nBest would be a new one', 'It froze.\nBest would be a new one'],
  [
    'Kiosk 3 runs.\nThanks for looking at it, now kiosk 4',
    'Kiosk 3 runs.\nThanks for looking at it, now kiosk 4',
  ],
  ['It froze.\nThanks\nGate 4 is broken, too.', 'It froze.\nThanks\nGate 4 is broken, too.'],
  // Nothing else is said.
  ['Thanks', 'Thanks'],
  ['hello', 'hello'],
])('%j', (text, bare) => {
  expect(withoutCourtesies(text)).toBe(bare);
});

test.each([
  ['hello', 'greeting'],
  ['Hi there!', 'greeting'],
  ['Bom dia', 'greeting'],
  ['Olá, boa tarde!', 'greeting'],
  ['thanks', 'thanks'],
  ['Thank you so much!', 'thanks'],
  ['ok, muito obrigada', 'thanks'],
  ['Obrigado pela ajuda.', 'thanks'],
  // There is more to it.
  ['hello, the kiosk is frozen', null],
  ['thanks, but it still does not print', null],
  ['bom dia, é possível trocar o turno?', null],
  ['good morning sailing is missing', null],
  ['', null],
])('nothing but a courtesy: %j is %s', (text, courtesy) => {
  expect(courtesyOf(text)).toBe(courtesy);
});
