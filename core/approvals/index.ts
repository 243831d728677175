export { decideStep } from './decideStep';
export { findVoters } from './findVoters';
export { ApprovalError, BadCount, BadPercent, NoVoters } from './errors';
export type {
  Absence,
  ApproverRef,
  Asked,
  Directory,
  FoundVoter,
  Needs,
  StepOutcome,
  Vote,
  VoterProblem,
  VoterReason,
} from './types';
