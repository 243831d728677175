import iconv from 'iconv-lite';

/** Encodings in which tables come; what is not valid UTF-8 and has no mark is read as the web reads old pages. */
export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

const MARKS: [Encoding, number[]][] = [
  ['utf-8', [0xef, 0xbb, 0xbf]],
  ['utf-16le', [0xff, 0xfe]],
  ['utf-16be', [0xfe, 0xff]],
];

function isUtf8(bytes: Uint8Array): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return true;
  } catch {
    return false;
  }
}

/** Without a mark, every other byte of plain letters in UTF-16 is nought. */
function guessWide(bytes: Uint8Array): Encoding | null {
  const looked = bytes.subarray(0, 400);
  const noughts = (odd: number): number => looked.filter((byte, i) => i % 2 === odd && byte === 0).length;
  const half = looked.length / 2;
  if (half < 4) return null;
  return noughts(1) > half * 0.4 ? 'utf-16le' : noughts(0) > half * 0.4 ? 'utf-16be' : null;
}

/** The letters of a text file, by its byte order mark or by what its bytes can be. */
export function decode(bytes: Uint8Array): { text: string; encoding: Encoding } {
  const marked = MARKS.find(([, mark]) => mark.every((byte, i) => bytes[i] === byte));
  const encoding = marked?.[0] ?? guessWide(bytes) ?? (isUtf8(bytes) ? 'utf-8' : 'windows-1252');
  // Node reads windows-1252 as if it were ISO 8859-1.
  const text =
    encoding === 'windows-1252'
      ? iconv.decode(Buffer.from(bytes), encoding)
      : new TextDecoder(encoding).decode(bytes);
  return { encoding, text };
}
