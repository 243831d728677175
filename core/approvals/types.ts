export type Needs =
  { kind: 'any' } | { kind: 'all' } | { kind: 'count'; count: number } | { kind: 'percent'; percent: number };

/** `voter` is whose say counts, `by` who said it: themself or their delegate. */
export type Vote = { voter: string; by: string; decision: 'approve' | 'decline'; at: number };

export type StepOutcome = {
  outcome: 'open' | 'approved' | 'declined';
  decidedAt: number | null;
  needed: number;
  approvals: number;
  declines: number;
  /** Voters without a counted vote, in the order given. */
  outstanding: string[];
};

export type ApproverRef =
  | { person: string }
  | { manager: 'ofRequester' | 'ofRecipient'; levels?: number }
  | { team: string; only?: 'leads' }
  | { ownerOf: 'service' | 'costCentre' | 'asset' };

export type Directory = {
  people: Record<string, { manager?: string; left?: true }>;
  teams: Record<string, { members: string[]; leads: string[] }>;
  owners: {
    service: Record<string, string>;
    costCentre: Record<string, string>;
    asset: Record<string, string>;
  };
  /** Who decides, by service, where nobody else can. */
  fallback: Record<string, string>;
};

export type Asked = {
  requester: string;
  recipient: string;
  service: string;
  costCentre?: string;
  asset?: string;
};

/** Absent in [from, to). */
export type Absence = { person: string; from: number; to: number; delegate?: string };

export type VoterReason = 'named' | 'manager' | 'team' | 'lead' | 'owner' | 'oneUp' | 'fallback';

/** `by` is who is asked to say it; `via` the absent people between the voter and them. */
export type FoundVoter = { voter: string; by: string; reason: VoterReason; via: string[] };

export type VoterProblemCode = 'noVoter' | 'unknownTeam' | 'noOwner' | 'delegateCannot';
export type VoterProblem = { code: VoterProblemCode; person?: string };
