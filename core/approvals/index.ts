export { decideStep } from './decideStep';
export { findDeciders } from './findDeciders';
export { findVoters } from './findVoters';
export { findNextStep } from './process';
export type { ProcessStep, Silence, StepApproverRef } from './process';
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
