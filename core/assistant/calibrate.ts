import { scoresOf, softmax, train, type Example } from './classifier';

/** How sure the classifier was of an example that it had not seen: its scores, and what was right. */
export type Judged = { scores: Float64Array; label: number };

const FOLDS = 4;
/** Few phrasings that are all told apart are no reason to be surer than the scores. */
const LEAST = 0.3;

/** Judges each example by what was learned from the others (cross-validation in folds). */
export function crossValidate(examples: Example[], classes: number): Judged[] {
  const judged: Judged[] = new Array<Judged>(examples.length);
  for (let fold = 0; fold < FOLDS; fold++) {
    const classifier = train(
      examples.filter((_, i) => i % FOLDS !== fold),
      classes,
    );
    examples.forEach(({ features, label }, i) => {
      if (i % FOLDS === fold) judged[i] = { scores: scoresOf(classifier, features), label };
    });
  }
  return judged;
}

/** What examples cost at a temperature: the mean of minus the logarithm of what was right. */
function costAt(judged: Judged[], temperature: number): number {
  let sum = 0;
  for (const { scores, label } of judged)
    sum -= Math.log(Math.max(1e-12, softmax(scores, temperature)[label]!));
  return sum / judged.length;
}

/**
 * The temperature at which probabilities are what they claim (Guo, Pleiss, Sun, Weinberger, On calibration of modern
 * neural networks, 2017): that of the least cost, found by halving.
 */
export function findTemperature(judged: Judged[]): number {
  let [low, high] = [Math.log(LEAST), Math.log(5)];
  const ratio = (Math.sqrt(5) - 1) / 2;
  for (let i = 0; i < 24; i++) {
    const [one, other] = [high - ratio * (high - low), low + ratio * (high - low)];
    if (costAt(judged, Math.exp(one)) < costAt(judged, Math.exp(other))) high = other;
    else low = one;
  }
  return Math.exp((low + high) / 2);
}

/** How far what is claimed lies from what is right, by bins of what is claimed (expected calibration error). */
export function calibrationError(claims: { sureness: number; isRight: boolean }[], bins = 10): number {
  let error = 0;
  for (let bin = 0; bin < bins; bin++) {
    const inside = claims.filter(({ sureness }) => Math.min(bins - 1, Math.floor(sureness * bins)) === bin);
    if (inside.length === 0) continue;
    const claimed = inside.reduce((sum, { sureness }) => sum + sureness, 0) / inside.length;
    const right = inside.filter(({ isRight }) => isRight).length / inside.length;
    error += (Math.abs(claimed - right) * inside.length) / claims.length;
  }
  return error;
}
