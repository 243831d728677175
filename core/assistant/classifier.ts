import type { Features } from './features';

/** A phrasing with what it means: the number of its class. */
export type Example = { features: Features; label: number };

/** What was learned, as plain data: it is handed from one thread to another. */
export type Classifier = {
  classes: number;
  numberOf: Map<string, number>;
  rarity: number[];
  /** How rare what was never seen is taken to be. */
  mostRare: number;
  /** By feature, then by class. */
  weights: Float64Array;
  bias: Float64Array;
};

type Sparse = { at: number[]; weight: number[] };

const EPOCHS = 12;
const RATE = 0.6;
const BIAS_RATE = 0.02;
const DECAY = 2e-4;
/** What is nearly right teaches nothing, and most classes are. */
const LEAST_ERROR = 3e-3;
/** What was never learned is as rare as can be; yet people put a matter in words of their own, so it weighs less. */
const UNKNOWN_SHARE = 0.6;
/** Pieces of words say what the words say already. */
const PIECE_SHARE = 0.5;

/** Always the same order, so that the same phrasings learn the same. */
function orderOf(count: number, epoch: number): number[] {
  const order = Array.from({ length: count }, (_, i) => i);
  let state = (epoch + 1) * 2_654_435_761;
  for (let i = count - 1; i > 0; i--) {
    state = (Math.imul(state ^ (state >>> 15), 2_246_822_519) + 0x9e3779b9) >>> 0;
    const other = state % (i + 1);
    [order[i], order[other]] = [order[other]!, order[i]!];
  }
  return order;
}

/** What a phrasing has that was never learned makes all that it has weigh less: it says something else, too. */
function toSparse({ numberOf, rarity, mostRare }: Classifier, features: Features): Sparse {
  const [at, weight]: [number[], number[]] = [[], []];
  let square = 0;
  for (const [name, often] of features) {
    const number = numberOf.get(name);
    const value = Math.sqrt(often) * (number === undefined ? UNKNOWN_SHARE * mostRare : rarity[number]!);
    square += value * value * (name.startsWith('c ') ? PIECE_SHARE : 1);
    if (number === undefined) continue;
    at.push(number);
    weight.push(value);
  }
  const length = Math.sqrt(square) || 1;
  return { at, weight: weight.map((value) => value / length) };
}

function scoreSparse({ bias, weights, classes }: Classifier, { at, weight }: Sparse): Float64Array {
  const scores = Float64Array.from(bias);
  for (let i = 0; i < at.length; i++) {
    const base = at[i]! * classes;
    for (let label = 0; label < classes; label++) scores[label]! += weights[base + label]! * weight[i]!;
  }
  return scores;
}

/** A score for each class; see `softmax` for what they come to. */
export const scoresOf = (classifier: Classifier, features: Features): Float64Array =>
  scoreSparse(classifier, toSparse(classifier, features));

function countFeatures(examples: Example[], classes: number): Classifier {
  const numberOf = new Map<string, number>();
  const having: number[] = [];
  for (const { features } of examples)
    for (const name of features.keys()) {
      const known = numberOf.get(name);
      if (known === undefined) {
        numberOf.set(name, having.length);
        having.push(1);
      } else having[known]!++;
    }
  return {
    ...{ classes, numberOf, mostRare: Math.log(1 + examples.length) },
    rarity: having.map((count) => Math.log(1 + examples.length / count)),
    weights: new Float64Array(having.length * classes),
    bias: new Float64Array(classes),
  };
}

/**
 * Learns a multinomial logistic regression over weighted features (inverse document frequency), by stochastic gradient
 * steps that shrink by what each feature has seen (Duchi, Hazan, Singer, Adaptive subgradient methods, 2011).
 */
export function train(examples: Example[], classes: number): Classifier {
  const classifier = countFeatures(examples, classes);
  const { weights, bias } = classifier;
  const seen = new Float64Array(weights.length).fill(1e-3);
  const sparse = examples.map(({ features }) => toSparse(classifier, features));
  for (let epoch = 0; epoch < EPOCHS; epoch++)
    for (const i of orderOf(examples.length, epoch)) {
      const { at, weight } = sparse[i]!;
      const errors = softmax(scoreSparse(classifier, sparse[i]!));
      errors[examples[i]!.label]! -= 1;
      for (let label = 0; label < classes; label++) {
        const error = errors[label]!;
        if (error < LEAST_ERROR && error > -LEAST_ERROR) continue;
        bias[label]! -= BIAS_RATE * error;
        for (let j = 0; j < at.length; j++) {
          const place = at[j]! * classes + label;
          const gradient = error * weight[j]! + DECAY * weights[place]!;
          seen[place]! += gradient * gradient;
          weights[place]! -= (RATE * gradient) / Math.sqrt(seen[place]!);
        }
      }
    }
  return classifier;
}

/** Scores as probabilities; the higher the temperature, the less sure. */
export function softmax(scores: Float64Array, temperature = 1): Float64Array {
  const most = Math.max(...scores);
  const parts = scores.map((score) => Math.exp((score - most) / temperature));
  const sum = parts.reduce((total, part) => total + part, 0);
  return parts.map((part) => part / sum);
}
