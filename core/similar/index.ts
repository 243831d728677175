export { listWords, rankSimilar, type Described, type Likeness } from './similar';
