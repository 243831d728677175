import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { gunzipSync } from 'node:zlib';

/** A page of the machine's manual: its name, the line that says what it is, and its words. */
export type ManualPage = { name: string; command: string; whatis: string; text: string };

export type Corpus = {
  articles: { id: string; page: string; title: string; body: string }[];
  queries: { words: string; page: string }[];
};

const ROOT = '/usr/share/man';
const SECTIONS = /^man[1-8]$/;
const MOST_OF_A_PAGE = 8;
/** Thousands of pages of one program's parts say the same in nearly the same words: no question fits only one. */
const MOST_ALIKE = 60;

/** Roff to words: macros and escapes go, what is left is read. */
function toWords(roff: string): string {
  return roff
    .split('\n')
    .filter((line) => !line.startsWith('.\\"') && !line.startsWith('\'\\"'))
    .map((line) =>
      line.replace(/^[.'](SH|SS|TP|PP|IP|B|I|BR|BI|IR|RB|RI|SM|Nm|Nd|Fl|Ar|Xr|Em|Sy|Li|Op|Pa)\b ?/, ''),
    )
    .filter((line) => !/^[.']/.test(line))
    .join('\n')
    .replace(/\\f[A-Z0-9]|\\f\([A-Z]{2}|\\s[-+]?\d|\\[&|^/,]|\\m\[.*?\]/g, '')
    .replace(/\\\(aq/g, "'")
    .replace(/\\\(..|\\\[.*?\]|\\\*../g, ' ')
    .replace(/\\-/g, '-')
    .replace(/\\e/g, '\\')
    .replace(/\\(.)/g, '$1')
    .replace(/"/g, '');
}

function readPage(file: string): ManualPage | null {
  let roff: string;
  try {
    roff = gunzipSync(readFileSync(file)).toString('utf8');
  } catch {
    return null;
  }
  if (/^\.so /m.test(roff.slice(0, 400))) return null;
  const section = /^\.S[Hh] "?NAME"?\s*\n([\s\S]*?)(?=^\.S[Hh] )/m.exec(roff);
  if (!section) return null;
  const named = toWords(section[1]!).replace(/\s+/g, ' ').trim();
  const [name = '', whatis = ''] = named.split(/\s+-+\s+/, 2);
  if (whatis.split(' ').length < 3) return null;
  const rest = roff.slice(section.index + section[0].length);
  return {
    name: path.basename(file, '.gz'),
    command: name.split(/[,\s]/)[0]!,
    whatis,
    text: toWords(rest).replace(/[ \t]+/g, ' '),
  };
}

export function readManualPages(): ManualPage[] {
  const pages: ManualPage[] = [];
  const families = new Map<string, number>();
  for (const section of readdirSync(ROOT).filter((name) => SECTIONS.test(name)))
    for (const file of readdirSync(path.join(ROOT, section)).sort()) {
      const page = file.endsWith('.gz') ? readPage(path.join(ROOT, section, file)) : null;
      const family = file.split(/[-_.:]/)[0]!;
      const alike = families.get(family) ?? 0;
      if (!page || alike >= MOST_ALIKE) continue;
      families.set(family, alike + 1);
      pages.push(page);
    }
  return pages;
}

/**
 * Articles of 150 to 400 words cut from the machine's manual, and what one would type for one of its pages: the line
 * that says what it is, at most eight words, the last still being typed. Where it is hard, no heading gives it away.
 */
export function createCorpus(pages: ManualPage[], count: number, isHard: boolean): Corpus {
  const articles: Corpus['articles'] = [];
  for (const { name, command, whatis, text } of pages) {
    const words = text.split(/\s+/).filter((word) => word !== '');
    for (
      let from = 0, part = 1;
      from < words.length && articles.length < count && part <= MOST_OF_A_PAGE;
      part++
    ) {
      const length = 150 + ((articles.length * 7_919) % 251);
      const body = words.slice(from, from + length);
      from += length;
      if (body.length < 40 && part > 1) break;
      const title = !isHard && part === 1 ? whatis : `${command} part ${part}`;
      articles.push({ id: `${articles.length}`, page: name, title, body: body.join(' ') });
    }
  }
  const known = new Set(articles.map(({ page }) => page));
  // A line that several pages share asks for none of them: which is found first is luck.
  const telling = new Map<string, number>();
  for (const { whatis } of pages) telling.set(whatis, (telling.get(whatis) ?? 0) + 1);
  const asked = pages.filter(({ name, whatis }) => known.has(name) && telling.get(whatis) === 1);
  const step = Math.max(1, Math.floor(asked.length / 500));
  const queries = asked
    .filter((_, i) => i % step === 0)
    .slice(0, 500)
    .map(({ name, whatis }) => {
      const words = whatis.split(' ').slice(0, 8);
      const last = words.pop()!;
      return {
        page: name,
        words: [...words, last.slice(0, Math.max(1, Math.ceil(last.length * 0.6)))].join(' '),
      };
    });
  return { articles, queries };
}
