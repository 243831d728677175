import * as fc from 'fast-check';
import iconv from 'iconv-lite';
import { decode } from './decode';

describe('letters from bytes', () => {
  const text = 'título;descrição\r\nNão abre;“três” portas à frente, 12 €\r\n';

  test.each(['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const)(
    '%s is told by its mark or its bytes, as the reference library writes it',
    (encoding) => {
      const bytes = iconv.encode(text, encoding, { addBOM: encoding.startsWith('utf-16') });
      expect(decode(bytes)).toEqual({ text, encoding });
    },
  );

  test('UTF-16 is told without a mark, too', () => {
    expect(decode(iconv.encode(text, 'utf-16le')).encoding).toBe('utf-16le');
  });

  test('whatever is written as UTF-8 comes back', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (given) => {
        fc.pre(!['\u0000', '\ufeff', '\ufffe'].some((letter) => given.includes(letter)));
        const { text: read, encoding } = decode(Buffer.from(given, 'utf8'));
        expect([read, encoding]).toEqual([given, 'utf-8']);
      }),
    );
  });
});
