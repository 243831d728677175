import { readProof } from './index';

const MX = 'mx.solvarra.example';
const ANA = 'ana@solvarra.example';

test.each<[string, string[], string]>([
  // RFC 8601, appendix B: its examples, with names of ours.
  ['B.2: nothing was done', ['mx.solvarra.example 1; none'], 'unknown'],
  ['B.3: SPF', ['mx.solvarra.example; spf=pass smtp.mailfrom=solvarra.example'], 'proven'],
  [
    'B.4: several',
    ['mx.solvarra.example; auth=pass (cram-md5) smtp.auth=x; spf=pass smtp.mailfrom=solvarra.example'],
    'proven',
  ],
  ['B.6: DKIM', ['mx.solvarra.example;\r\n\tdkim=pass (good signature) header.d=solvarra.example'], 'proven'],
  ['DMARC', ['mx.solvarra.example; dmarc=pass header.from=solvarra.example'], 'proven'],
  [
    'DMARC failed',
    ['mx.solvarra.example; spf=pass smtp.mailfrom=solvarra.example; dmarc=fail header.from=solvarra.example'],
    'disproven',
  ],
  ['SPF of another domain', ['mx.solvarra.example; spf=pass smtp.mailfrom=evil.example'], 'unknown'],
  ['DKIM of another domain', ['mx.solvarra.example; dkim=pass header.d=evil.example'], 'unknown'],
  ['a domain that ends alike', ['mx.solvarra.example; dkim=pass header.d=notsolvarra.example'], 'unknown'],
  ['failed', ['mx.solvarra.example; spf=fail smtp.mailfrom=solvarra.example'], 'unknown'],
  ['another server', ['mx.evil.example; dmarc=pass header.from=solvarra.example'], 'unknown'],
  ['the name in a comment', ['mx.evil.example (mx.solvarra.example); dmarc=pass'], 'unknown'],
  [
    'a forged one below',
    ['mx.solvarra.example; spf=fail', 'mx.solvarra.example; dmarc=pass header.from=solvarra.example'],
    'unknown',
  ],
  ['a result in a comment', ['mx.solvarra.example; spf=fail (dmarc=pass; dmarc=pass)'], 'unknown'],
  ['none', [], 'unknown'],
])('%s', (_, headers, proof) => expect(readProof(headers, MX, ANA)).toBe(proof));

test('a header without end is read as far as anyone writes', () =>
  expect(readProof([`mx.solvarra.example; ${'('.repeat(2_000_000)}`], MX, ANA)).toBe('unknown'));
