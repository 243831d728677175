import type { LocalText } from '../forms';
import { foldText } from '../text';

/** One step of how a matter is dealt with. */
export type MatterStep =
  | { kind: 'say'; text: LocalText }
  /**
   * Asks something; what is answered lands in the field of the ticket's form. No choices: in one's own words.
   * `branches`: by choice, the steps that its answer leads to first; none, or any other answer: on with the next step.
   */
  | {
      kind: 'ask';
      text: LocalText;
      field: string;
      choices: LocalText[];
      branches?: MatterStep[][] | undefined;
    }
  | { kind: 'article'; articleId: string }
  /** The service's form, filled in with what is known; it is sent there. */
  | { kind: 'form' }
  /** Looks up how the person's open tickets on the service stand. */
  | { kind: 'state' }
  | { kind: 'ticket' }
  /** Writes the ticket, and goes on once it is agreed to; where it is not, that is the end. */
  | { kind: 'approval' }
  | { kind: 'person' }
  /** All is said: it ends, and nothing is written. */
  | { kind: 'end' };

/** A step with the places of what comes after it; a place beyond the last: the steps are over. */
export type Placed = { step: MatterStep; next: number; byChoice: number[] };

/** Questions within the branches of questions, so many levels deep. */
export const MOST_LEVELS = 3;

/**
 * The steps of a matter one after the other: those that stand below each other have the places in which they stand, those of
 * branches come behind, and lead back to what stands below their question.
 */
export function layOut(steps: readonly MatterStep[]): Placed[] {
  const placed: Placed[] = [];
  const over = countSteps(steps);
  const put = (those: readonly MatterStep[], after: number): number => {
    if (those.length === 0) return after;
    const first = placed.length;
    const nextOf = (i: number): number => (i === those.length - 1 ? after : first + i + 1);
    placed.push(...those.map((step, i) => ({ step, next: nextOf(i), byChoice: [] })));
    for (const [i, step] of those.entries())
      if (step.kind === 'ask')
        placed[first + i]!.byChoice = step.choices.map((_, j) => put(step.branches?.[j] ?? [], nextOf(i)));
    return first;
  };
  put(steps, over);
  return placed;
}

/** The branches that an answer can lead to: those of choices that are there. */
const branchesOf = (step: MatterStep): MatterStep[][] =>
  step.kind === 'ask' ? (step.branches ?? []).slice(0, step.choices.length) : [];

/** How many steps there are, those of branches too. */
export const countSteps = (steps: readonly MatterStep[]): number =>
  steps.reduce(
    (sum, step) => sum + 1 + branchesOf(step).reduce((all, branch) => all + countSteps(branch), 0),
    0,
  );

/** All steps with the way to each, as it is read: "3", "3.2.1" (of the third, the second answer's first). */
export function listSteps(steps: readonly MatterStep[], way = ''): { step: MatterStep; way: string }[] {
  return steps.flatMap((step, i) => {
    const own = `${way}${i + 1}`;
    const within = branchesOf(step).flatMap((branch, j) => listSteps(branch, `${own}.${j + 1}.`));
    return [{ step, way: own }, ...within];
  });
}

/**
 * Which of the choices words mean: they are its words in either language, or begin with them; -1: none.
 * @example choiceOf([{ en: 'Yes', pt: 'Sim' }], 'sim, desde ontem') // 0
 */
export function choiceOf(choices: readonly LocalText[], words: string): number {
  const said = foldText(words).trim();
  const isMeant = (choice: string): boolean => {
    const name = foldText(choice).trim();
    return name !== '' && said.startsWith(name) && !/^[\p{L}\p{N}]/u.test(said.slice(name.length));
  };
  const meant = choices.flatMap(({ en, pt }, i) => [en, pt].filter(isMeant).map((name) => ({ i, name })));
  // "No idea" is not "No".
  return meant.sort((a, b) => b.name.length - a.name.length)[0]?.i ?? -1;
}
