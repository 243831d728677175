import fc from 'fast-check';
import { completeText } from './index';

test.each([
  [
    { en: 'Gate', pt: '' },
    { en: 'Gate', pt: 'Gate' },
  ],
  [
    { en: ' ', pt: 'Portão' },
    { en: 'Portão', pt: 'Portão' },
  ],
  [
    { en: 'Gate', pt: 'Portão' },
    { en: 'Gate', pt: 'Portão' },
  ],
])('%j is completed to %j', (given, expected) => expect(completeText(given)).toEqual(expected));

test('what is complete stays so, and nothing is empty unless both are', () => {
  fc.assert(
    fc.property(fc.record({ en: fc.string(), pt: fc.string() }), (text) => {
      const whole = completeText(text);
      expect(completeText(whole)).toEqual(whole);
      expect(whole.en.trim() === '').toBe(text.en.trim() === '' && text.pt.trim() === '');
    }),
  );
});
