import MiniSearch from 'minisearch';
import { TextIndex } from '../core/search';
import { foldText } from '../core/text';
import { createCorpus, readManualPages, type Corpus } from './manualPages';
import { median, p95, report } from './report';

const ARTICLES = 20_000;
const FOUND = 10;

type Engine = { build(articles: Corpus['articles']): (words: string) => string[] };

const OWN: Engine = {
  build(articles) {
    const index = new TextIndex({ language: 'en' });
    index.addAll(articles.map(({ id, title, body }) => ({ id, title, body, otherWords: '' })));
    return (words) => index.search(words, FOUND).map(({ id }) => id);
  },
};

/** The best in recall of the general libraries, as one would set it up. */
const LIBRARY: Engine = {
  build(articles) {
    const index = new MiniSearch<Corpus['articles'][number]>({
      fields: ['title', 'body'],
      processTerm: (term) => foldText(term),
      searchOptions: { boost: { title: 2 }, prefix: (_, i, terms) => i === terms.length - 1 },
    });
    index.addAll(articles);
    return (words) =>
      index
        .search(words)
        .slice(0, FOUND)
        .map(({ id }) => id as string);
  },
};

function measure(engine: Engine, { articles, queries }: Corpus) {
  const start = performance.now();
  const find = engine.build(articles);
  const built = performance.now() - start;
  for (const { words } of queries.slice(0, 50)) find(words);
  const pageOf = new Map(articles.map(({ id, page }) => [id, page]));
  const times: number[] = [];
  const hits = { 1: 0, 5: 0, 10: 0 };
  for (const { words, page } of queries) {
    const begin = performance.now();
    const ids = find(words);
    times.push(performance.now() - begin);
    const place = ids.findIndex((id) => pageOf.get(id) === page);
    for (const k of [1, 5, 10] as const) if (place !== -1 && place < k) hits[k]++;
  }
  const share = (k: 1 | 5 | 10): string => (hits[k] / queries.length).toFixed(2);
  return {
    built,
    p95: p95(times),
    p50: median(times),
    recall: `recall @1 ${share(1)}, @5 ${share(5)}, @10 ${share(10)}`,
  };
}

/** Finding articles as one types, beside the best general library on the same texts. */
export function benchSearch(): Promise<void> {
  const pages = readManualPages();
  for (const isHard of [true, false]) {
    const corpus = createCorpus(pages, ARTICLES, isHard);
    const kind = isHard ? 'hard' : 'easy';
    report(
      `${kind}: ${corpus.articles.length.toLocaleString('en')} articles`,
      `${corpus.queries.length} queries`,
    );
    for (const [name, engine] of [
      ['own index', OWN],
      ['library', LIBRARY],
    ] as const) {
      const { built, p50, p95, recall } = measure(engine, corpus);
      report(
        `${kind}: ${name}`,
        `p50 ${p50.toFixed(1)} ms, p95 ${p95.toFixed(1)} ms`,
        `${recall}; built in ${(built / 1000).toFixed(1)} s`,
      );
    }
  }
  return Promise.resolve();
}
