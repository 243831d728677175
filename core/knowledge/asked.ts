import type { Language } from '../forms';
import { analyserOf, listWords } from '../search';

/** Something that was asked and what came of it. */
export type Question = { words: string; tickets: number };

/** Questions that mean the same: in the words of the one asked most like the others, with what they cost. */
export type QuestionGroup = { words: string; asked: number; tickets: number; others: string[] };

/** So much of what two questions say must be the same for them to mean the same. */
const ALIKE = 0.42;
const OTHERS_SHOWN = 5;

type Weighed = { question: Question; stems: Map<string, number>; length: number };

/** How much of what they say is the same: of both together, and of the shorter one, which may be all of it. */
function likeness(one: Weighed, other: Weighed): number {
  let shared = 0;
  for (const [stem, weight] of one.stems) if (other.stems.has(stem)) shared += weight * weight;
  const cosine = shared / (one.length * other.length || 1);
  const ofShorter = shared / (Math.min(one.length, other.length) ** 2 || 1);
  return (cosine + ofShorter) / 2;
}

/** Words by how rarely they are asked (inverse document frequency), so that common ones do not make all alike. */
function weigh(questions: Question[], language: Language): Weighed[] {
  const { analyse, isStop } = analyserOf(language);
  const lists = questions.map(({ words }) => [
    ...new Set(
      listWords(words)
        .map(({ text }) => analyse(text))
        .filter(({ surface }) => !isStop(surface))
        .map(({ stem }) => stem),
    ),
  ]);
  const having = new Map<string, number>();
  // What is asked again and again is not common for that.
  const different = new Map(lists.map((stems) => [stems.join(' '), stems]));
  for (const stems of different.values())
    for (const stem of stems) having.set(stem, (having.get(stem) ?? 0) + 1);
  return questions.map((question, i) => {
    const stems = new Map(
      lists[i]!.map((stem) => [stem, Math.log(1 + different.size / having.get(stem)!)] as const),
    );
    const length = Math.sqrt([...stems.values()].reduce((sum, weight) => sum + weight * weight, 0));
    return { question, stems, length };
  });
}

/**
 * Questions grouped by what they mean, those that made most tickets first. Each joins the group whose first question
 * it is most like, or begins one.
 */
export function groupQuestions(questions: Question[], language: Language): QuestionGroup[] {
  const groups: Weighed[][] = [];
  for (const each of weigh(questions, language)) {
    if (each.length === 0) continue;
    let [best, nearest]: [Weighed[] | null, number] = [null, ALIKE];
    for (const group of groups) {
      const near = Math.max(...group.slice(0, 4).map((member) => likeness(member, each)));
      if (near >= nearest) [best, nearest] = [group, near];
    }
    if (best) best.push(each);
    else groups.push([each]);
  }
  return groups
    .map((group) => {
      const closeness = (one: Weighed): number => group.reduce((sum, other) => sum + likeness(one, other), 0);
      const [middle, ...rest] = [...group].sort((one, other) => closeness(other) - closeness(one));
      const said = new Set(rest.map(({ question }) => question.words));
      said.delete(middle!.question.words);
      return {
        words: middle!.question.words,
        asked: group.length,
        tickets: group.reduce((sum, { question }) => sum + question.tickets, 0),
        others: [...said].slice(0, OTHERS_SHOWN),
      };
    })
    .sort((one, other) => other.tickets - one.tickets || other.asked - one.asked);
}
