import { readFileSync } from 'node:fs';
import {
  calibrationError,
  chooseOffer,
  learn,
  sumFor,
  understand,
  understandMessage,
  type JudgedPhrasing,
  type Likely,
  type Understanding,
} from '../core/assistant';
import { readMatters } from '../demo/assistant';
import { prepareDemo } from './prepare';
import { p95, report } from './report';
import { signIn, startServer } from './server';

/** So many of the unseen are said to the server, every so many of them left out, each in a conversation of its own. */
const SAID = 120;

/** Phrasings that the assistant has not seen, by the matter that they mean; `-`: none. */
function readUnseen(): { id: string | null; text: string }[] {
  const lines = readFileSync(new URL('./phrasings.txt', import.meta.url), 'utf8')
    .trim()
    .split('\n');
  let id: string | null = null;
  return lines.flatMap((line) => {
    if (!line.startsWith('# ')) return [{ id, text: line }];
    id = line === '# -' ? null : line.slice(2);
    return [];
  });
}

/** How long an answer takes through HTTP, with what it keeps and reads of articles. */
async function measureAnswers(texts: string[]): Promise<number> {
  const listo = await prepareDemo();
  const server = await startServer();
  const headers = {
    ...{ Cookie: await signIn(server.url, 'lena'), 'Content-Type': 'application/json' },
  };
  const post = async (address: string, body: object): Promise<{ id: string }> => {
    const sent = { method: 'POST', headers, body: JSON.stringify(body) };
    const response = await fetch(`${server.url}/api/v1/assistant/talks${address}`, sent);
    if (!response.ok) throw new Error(`${address}: ${response.status}`);
    return (await response.json()) as { id: string };
  };
  const took: number[] = [];
  for (const text of texts) {
    const { id } = await post('', { isAnew: true });
    const start = performance.now();
    await post(`/${id}/turns`, { input: { kind: 'words', text } });
    took.push(performance.now() - start);
  }
  await server.stop();
  await listo.db.close();
  // The first ones wait for what is learned once.
  return p95(took.slice(10));
}

const percent = (part: number, all: number): string => `${((100 * part) / all).toFixed(1)} %`;

/** How often offers hold what was meant, each part at a sum of its own. */
function reportSets(
  name: string,
  parts: [sum: number, said: JudgedPhrasing[]][],
  none: { likely: Likely[] }[],
): void {
  const made = parts.flatMap(([sum, said]) =>
    said.map(({ id, likely }) => ({ id, likely, offer: chooseOffer(likely, sum) })),
  );
  const offered = made.filter(({ offer }) => offer.kind !== 'reword');
  const held = offered.filter(({ id, offer }) => offer.ids.includes(id));
  const size = offered.reduce((total, { offer }) => total + offer.ids.length, 0) / offered.length;
  const claims = offered.map(({ likely, offer }) =>
    likely.reduce((total, each) => total + (offer.ids.includes(each.id ?? '') ? each.sureness : 0), 0),
  );
  const claimed = claims.reduce((total, each) => total + each, 0);
  const sums = parts.map(([sum]) => sum);
  const confirmed = none.filter(({ likely }) => chooseOffer(likely, Math.min(...sums)).kind === 'confirm');
  report(
    name,
    `${percent(held.length, offered.length)} hold it`,
    `of ${offered.length}, claim ${percent(claimed, offered.length)}, ${size.toFixed(2)} on average; sum ${sums.map((sum) => sum.toFixed(2)).join(', ')}; fitting none, asked to confirm one: ${percent(confirmed.length, none.length)}`,
  );
}

type Apart = { ids: string[]; text: string; language: 'en' | 'pt' };

/** Messages in words apart from those that were learned: of one matter, of two, of none. */
function readApart(): Apart[] {
  const lines = readFileSync(new URL('./apart.txt', import.meta.url), 'utf8')
    .trim()
    .split('\n');
  let ids: string[] = [];
  return lines.flatMap((line): Apart[] => {
    const isPt = line.startsWith('pt: ');
    if (!line.startsWith('# '))
      return [{ ids, text: isPt ? line.slice(4) : line, language: isPt ? 'pt' : 'en' }];
    ids = line === '# -' ? [] : line.slice(2).split(' + ');
    return [];
  });
}

/** How messages in other words are answered as a whole: what is shown, what is asked anew, what is confirmed in vain. */
function reportMessages(understanding: Understanding): void {
  const sum = sumFor(understanding.judged, 0.9);
  const read = readApart().map((each) => ({
    ...each,
    ...understandMessage(understanding, { ...each, sum }),
  }));
  const shows = ({ ids, offer }: (typeof read)[number]): boolean =>
    offer.kind !== 'reword' && ids.every((id) => offer.ids.includes(id));
  for (const language of ['en', 'pt'] as const) {
    const one = read.filter((each) => each.ids.length === 1 && each.language === language);
    const offered = one.filter(({ offer }) => offer.kind !== 'reword');
    const size = offered.reduce((total, { offer }) => total + offer.ids.length, 0) / offered.length;
    const wrong = one.filter(({ ids, offer }) => offer.kind === 'confirm' && offer.ids[0] !== ids[0]);
    report(
      `in other words (${language}), shown`,
      percent(one.filter(shows).length, one.length),
      `of ${one.length}; asked anew ${percent(one.length - offered.length, one.length)}, ${size.toFixed(2)} on average, confirmed wrongly ${percent(wrong.length, one.length)}`,
    );
  }
  const two = read.filter(({ ids }) => ids.length === 2);
  report(
    'two matters in one message, both shown',
    percent(two.filter(shows).length, two.length),
    `of ${two.length}`,
  );
  const none = read.filter(({ ids }) => ids.length === 0);
  const confirmed = none.filter(({ offer }) => offer.kind === 'confirm');
  report('no matter at all, confirmed as one', percent(confirmed.length, none.length), `of ${none.length}`);
}

/** How well the assistant understands what it has not seen. */
export async function benchAssistant(): Promise<void> {
  const matters = readMatters();
  const start = performance.now();
  const understanding = learn(matters);
  const took = performance.now() - start;
  const unseen = readUnseen();
  const times: number[] = [];
  const answers = unseen.map(({ id, text }) => {
    const begin = performance.now();
    const likely = understand(understanding, text, 'en');
    times.push(performance.now() - begin);
    return { id, text, likely };
  });
  const meant = answers.filter(({ id }) => id !== null);
  const none = answers.filter(({ id }) => id === null);
  report(
    `${matters.length} matters, ${matters.reduce((sum, { phrasings }) => sum + phrasings.length, 0)} phrasings, learned and judged`,
    `${took.toFixed(0)} ms`,
  );
  const right = meant.filter(({ id, likely }) => likely.find((each) => each.id !== null)!.id === id);
  report(`first of ${meant.length} unseen phrasings is right`, percent(right.length, meant.length));
  const claims = meant.map(({ id, likely }) => ({
    sureness: likely[0]!.sureness,
    isRight: likely[0]!.id === id,
  }));
  report('expected calibration error', calibrationError(claims).toFixed(3));
  const said = meant as JudgedPhrasing[];
  for (const wanted of [0.8, 0.9, 0.95]) {
    reportSets(`sets at ${100 * wanted} %, all new`, [[sumFor(understanding.judged, wanted), said]], none);
    // Each half is offered things by what the conversations of the other have shown.
    const halves = [0, 1].map((half) => said.filter((_, i) => i % 2 === half));
    reportSets(
      `sets at ${100 * wanted} %, after ${halves[0]!.length} talks`,
      halves.map((half, i) => [sumFor(halves[1 - i]!, wanted), half]),
      none,
    );
  }
  reportMessages(understanding);
  report('understanding one, p95', `${p95(times).toFixed(2)} ms`);
  const each = Math.max(1, Math.floor(unseen.length / SAID));
  const told = unseen.filter((_, i) => i % each === 0).map(({ text }) => text);
  report(
    'an answer through HTTP, p95',
    `${(await measureAnswers(told)).toFixed(1)} ms`,
    'wanted: under 50 ms',
  );
  if (process.env.BENCH_DETAIL)
    for (const { id, text, likely } of answers.filter(
      ({ id: meantId, likely: [first] }) => first!.id !== meantId,
    ))
      process.stdout.write(
        `    ${text} | ${id} | ${likely
          .slice(0, 3)
          .map((each) => `${each.id} ${each.sureness.toFixed(2)}`)
          .join(', ')}\n`,
      );
}
