import type { Language } from '../forms';
import { foldText } from '../text';
import { analyserOf, listWords, type Analyser } from './analyse';
import { Vocabulary } from './vocabulary';

/** A text to be found: by its heading, its words, and other words for the same. */
export type IndexedText = { id: string; title: string; body: string; otherWords: string };

/** What was found, and how well it fits. */
export type Found = { id: string; score: number };

/** Groups of words that stand for the same, as authors keep them. */
export type Synonyms = string[][];

type Postings = { slots: number[]; weights: number[] };
/** Ways to meet one word of what is asked, each with how much it counts. */
type Way = { stem: string; weight: number };
/** `mostRarity` bounds what any of the ways says by its rarity. */
type Asked = { ways: Way[]; weight: number; mostRarity: number };

/** BM25 (Robertson and Zaragoza, The Probabilistic Relevance Framework, 2009) with its usual parameters. */
const K1 = 1.2;
const B = 0.75;
/** So many texts that were taken out may leave their words behind. */
const LEAST_GONE = 100;
/** So many different words of what is asked are looked for. */
const MOST_WORDS = 64;
const MOST_LOOKED_AT = 4_000;
const MOST_BEGINNINGS = 24;
const SYNONYM_WEIGHT = 0.7;
const SLIP_WEIGHT = 0.6;
/** Among so many of the best, one whose heading begins with all that is asked comes first. */
const MOST_HEADINGS = 100;
const LEAST_OF_HEADING = 2;

type Slot = { slot: number; score: number };

const toHeading = (text: string): string =>
  listWords(text)
    .map(({ text }) => foldText(text))
    .join(' ');

/** How texts are weighed against each other. */
export type TextIndexOptions = {
  language: Language;
  /** How often a word of the heading and of the other words counts. */
  titleWeight?: number;
  otherWeight?: number;
};

/**
 * An index over texts that is searched while one types: word forms, typing errors, beginnings of the last word and
 * other words for the same are forgiven. Texts are added and taken out one by one.
 */
export class TextIndex {
  private readonly analyser: Analyser;
  private readonly titleWeight: number;
  private readonly otherWeight: number;
  private readonly vocabulary = new Vocabulary();
  private readonly postings = new Map<string, Postings>();
  private readonly slotOf = new Map<string, number>();
  private readonly ids: (string | null)[] = [];
  private readonly lengths: number[] = [];
  private readonly headings: string[] = [];
  private totalLength = 0;
  private gone = 0;
  private synonyms = new Map<string, Set<string>>();
  private scores = new Float64Array(0);
  private best = new Float64Array(0);

  constructor({ language, titleWeight = 8, otherWeight = 4 }: TextIndexOptions) {
    this.analyser = analyserOf(language);
    this.titleWeight = titleWeight;
    this.otherWeight = otherWeight;
  }

  get size(): number {
    return this.slotOf.size;
  }

  /** Takes over which words stand for the same. */
  setSynonyms(groups: Synonyms): void {
    this.synonyms = new Map();
    for (const group of groups) {
      const stems = group.flatMap((word) =>
        listWords(word).map(({ text }) => this.analyser.analyse(text).stem),
      );
      for (const stem of stems) {
        const others = this.synonyms.get(stem) ?? new Set();
        stems.filter((other) => other !== stem).forEach((other) => others.add(other));
        this.synonyms.set(stem, others);
      }
    }
  }

  addAll(texts: Iterable<IndexedText>): void {
    this.vocabulary.expectMany();
    for (const text of texts) this.add(text);
  }

  /** Adds a text, in place of what stood under its id. */
  add({ id, title, body, otherWords }: IndexedText): void {
    this.remove(id);
    const counts = new Map<string, number>();
    let length = 0;
    for (const [text, weight] of [
      [title, this.titleWeight],
      [body, 1],
      [otherWords, this.otherWeight],
    ] as const)
      for (const word of listWords(text)) {
        const known = this.analyser.analyse(word.text);
        if (this.analyser.isStop(known.surface)) continue;
        this.vocabulary.add(known);
        counts.set(known.stem, (counts.get(known.stem) ?? 0) + weight);
        length += weight;
      }
    const slot = this.ids.length;
    this.ids.push(id);
    this.lengths.push(length);
    this.headings.push(toHeading(title));
    this.slotOf.set(id, slot);
    this.totalLength += length;
    for (const [stem, weight] of counts) {
      const list = this.postings.get(stem);
      if (list) {
        list.slots.push(slot);
        list.weights.push(weight);
      } else this.postings.set(stem, { slots: [slot], weights: [weight] });
    }
  }

  remove(id: string): void {
    const slot = this.slotOf.get(id);
    if (slot === undefined) return;
    this.slotOf.delete(id);
    this.ids[slot] = null;
    this.totalLength -= this.lengths[slot]!;
    // Its words are only taken out when many such have gathered: looking through all of them costs as much as for one.
    if (++this.gone > LEAST_GONE && this.gone > this.size / 4) this.clearAway();
  }

  private clearAway(): void {
    for (const [stem, { slots, weights }] of this.postings) {
      const stays = slots.map((slot) => this.ids[slot] !== null);
      const kept = { slots: slots.filter((_, i) => stays[i]), weights: weights.filter((_, i) => stays[i]) };
      if (kept.slots.length > 0) this.postings.set(stem, kept);
      else this.postings.delete(stem);
    }
    this.gone = 0;
  }

  /**
   * The texts that fit best.
   * @param accept which of them may be found at all
   */
  search(query: string, most = 10, accept: (id: string) => boolean = () => true): Found[] {
    const asked = this.read(query);
    if (asked.length === 0 || this.size === 0) return [];
    if (this.scores.length < this.ids.length) {
      this.scores = new Float64Array(this.ids.length * 2);
      this.best = new Float64Array(this.ids.length * 2);
    }
    const touched: number[] = [];
    for (const each of asked) this.score(each, touched);
    const kept = Math.max(most, MOST_HEADINGS);
    const found: Slot[] = [];
    for (const slot of touched) {
      const score = this.scores[slot]!;
      this.scores[slot] = 0;
      const id = this.ids[slot];
      if (id === null || id === undefined) continue;
      if (found.length === kept && score <= found.at(-1)!.score) continue;
      if (!accept(id)) continue;
      let place = found.length;
      while (place > 0 && found[place - 1]!.score < score) place--;
      found.splice(place, 0, { slot, score });
      if (found.length > kept) found.pop();
    }
    return this.putHeadingsFirst(query, found)
      .slice(0, most)
      .map(({ slot, score }) => ({ id: this.ids[slot]!, score }));
  }

  /** Whoever types the words of a heading in their order means it, whatever its near twins score. */
  private putHeadingsFirst(query: string, found: Slot[]): Slot[] {
    const heading = toHeading(query);
    if (heading.split(' ').length < LEAST_OF_HEADING || found.length === 0) return found;
    const isMeant = ({ slot }: Slot): boolean => this.headings[slot]!.startsWith(heading);
    const best = found[0]!.score;
    return [
      ...found.filter(isMeant).map(({ slot }) => ({ slot, score: best })),
      ...found.filter((each) => !isMeant(each)),
    ];
  }

  /** The stems by which a query finds, with how much each says: to mark the passage that answers. */
  weigh(query: string): Map<string, number> {
    const weights = new Map<string, number>();
    for (const { ways } of this.read(query))
      for (const { stem, weight } of ways)
        weights.set(stem, Math.max(weights.get(stem) ?? 0, weight * this.rarityOf(stem)));
    return weights;
  }

  /**
   * How much of what is asked a text has, from 0 to 1, each word by its rarity. A word that stands nowhere counts as rarest:
   * what nobody wrote of is not answered.
   */
  coverage(query: string, id: string): number {
    const slot = this.slotOf.get(id);
    if (slot === undefined) return 0;
    const stems = new Set(
      listWords(query)
        .map(({ text }) => this.analyser.analyse(text))
        .filter(({ surface }) => !this.analyser.isStop(surface))
        .map(({ stem }) => stem),
    );
    let [met, asked] = [0, 0];
    for (const stem of stems) {
      const weight = this.rarityOf(stem);
      const ways = [stem, ...(this.synonyms.get(stem) ?? [])];
      asked += weight;
      if (ways.some((way) => this.postings.get(way)?.slots.includes(slot))) met += weight;
    }
    return asked === 0 ? 0 : met / asked;
  }

  private rarityOf(stem: string): number {
    return this.rarity(this.postings.get(stem)?.slots.length ?? 0);
  }

  private rarity(having: number): number {
    return Math.log(1 + (this.size - having + 0.5) / (having + 0.5));
  }

  private score({ ways, weight: worth, mostRarity }: Asked, touched: number[]): void {
    const average = this.totalLength / this.size;
    const own: number[] = [];
    for (const { stem, weight } of ways) {
      const list = this.postings.get(stem);
      if (!list) continue;
      const factor = worth * weight * Math.min(this.rarity(list.slots.length), mostRarity) * (K1 + 1);
      for (let i = 0; i < list.slots.length; i++) {
        const slot = list.slots[i]!;
        const often = list.weights[i]!;
        const norm = K1 * (1 - B + (B * this.lengths[slot]!) / average);
        const score = (factor * often) / (often + norm);
        // One word that is met in several ways counts by the best of them.
        if (this.best[slot] === 0) own.push(slot);
        if (score > this.best[slot]!) this.best[slot] = score;
      }
    }
    for (const slot of own) {
      if (this.scores[slot] === 0) touched.push(slot);
      this.scores[slot]! += this.best[slot]!;
      this.best[slot] = 0;
    }
  }

  /** What is asked, word by word, with the ways in which each can be met. */
  private read(query: string): Asked[] {
    const words = listWords(query).map(({ text }) => this.analyser.analyse(text));
    const telling = words.filter(({ surface }) => !this.analyser.isStop(surface));
    const isTyping = /[\p{L}\p{N}]$/u.test(query);
    // Of words alone that say nothing, the last is still being typed.
    const last = isTyping ? words.at(-1) : undefined;
    const meant = telling.length > 0 || !last ? telling : [last];
    const counted = new Map<string, Asked>();
    for (const word of meant) {
      if (counted.size === MOST_WORDS) break;
      const isLast = word === last;
      const ways = this.waysOf(word.stem, word.surface, isLast);
      const before = counted.get(word.stem);
      if (before) before.weight++;
      else if (ways.length > 0)
        counted.set(word.stem, { ways, weight: 1, mostRarity: isLast ? this.leastRarity(ways) : Infinity });
    }
    return [...counted.values()];
  }

  /**
   * What is still being typed may become any of its ways: a rare one (filtration) must not outweigh the usual one (file)
   * for being rare.
   */
  private leastRarity(ways: Way[]): number {
    return Math.min(...ways.map(({ stem }) => this.rarityOf(stem)));
  }

  private waysOf(stem: string, surface: string, isLast: boolean): Way[] {
    const ways = new Map<string, number>();
    const allow = (other: string, weight: number): void => {
      if (weight > (ways.get(other) ?? 0)) ways.set(other, weight);
    };
    if (this.postings.has(stem)) allow(stem, 1);
    for (const other of this.synonyms.get(stem) ?? []) allow(other, SYNONYM_WEIGHT);
    if (isLast)
      for (const known of this.beginnings(surface))
        allow(known.stem, Math.sqrt(surface.length / known.surface.length));
    if (ways.size === 0 || (!this.vocabulary.has(surface) && !this.postings.has(stem) && !isLast))
      for (const { stem: near, slips } of this.vocabulary.nearest(surface)) allow(near, SLIP_WEIGHT / slips);
    return [...ways].map(([other, weight]) => ({ stem: other, weight }));
  }

  /** The words that what is being typed may become, those that stand most often first. */
  private beginnings(surface: string): { surface: string; stem: string }[] {
    const byStem = new Map<string, { surface: string; stem: string }>();
    for (const known of this.vocabulary.beginningWith(surface, MOST_LOOKED_AT))
      if (!byStem.has(known.stem) && this.postings.has(known.stem)) byStem.set(known.stem, known);
    const all = [...byStem.values()];
    if (all.length <= MOST_BEGINNINGS) return all;
    const often = ({ stem }: { stem: string }): number => this.postings.get(stem)!.slots.length;
    return all.sort((one, other) => often(other) - often(one)).slice(0, MOST_BEGINNINGS);
  }
}
