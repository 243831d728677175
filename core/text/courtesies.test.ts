import { withoutCourtesies } from './index';

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
