export { findSettings, type Setting } from './findSettings';
export {
  listSetup,
  nextOf,
  SETUP_COUNTS,
  SETUP_PARTS,
  type SetupCount,
  type SetupFacts,
  type SetupLack,
  type SetupPart,
  type SetupState,
  type SetupStep,
} from './path';
