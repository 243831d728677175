export { calibrationError, crossValidate, findTemperature, type Judged } from './calibrate';
export { softmax } from './classifier';
export {
  chooseOffer,
  evidenceOf,
  LEAST_PAST,
  sumFor,
  tryOffers,
  type Offer,
  type OfferRecord,
} from './offer';
export {
  learn,
  LEAST_PHRASINGS,
  understand,
  type JudgedPhrasing,
  type Learned,
  type Likely,
  type Understanding,
} from './understand';
export { understandMessage, type Understood } from './message';
export { SPOKEN, type Spoken } from './spoken';
export { isCardNumber, maskSecrets } from './mask';
export {
  FINISHED_ALONE,
  NEEDED_A_PERSON,
  NEW_TALK,
  proceed,
  titleOf,
  type Input,
  type Matter,
  type Next,
  type Talk,
  type TalkOutcome,
  type TalkPhase,
  type Turn,
} from './talk';
export { listConfusions, listDoubles, type Confusion } from './confusions';
export { afterSilence, SILENT_WORDS, type SilentWord } from './silence';
export { countSteps, layOut, listSteps, MOST_LEVELS, type MatterStep } from './flow';
