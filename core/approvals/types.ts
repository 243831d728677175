/** How many have to approve: any one, all, a number, or a share in percent. */
export type Needs =
  { kind: 'any' } | { kind: 'all' } | { kind: 'count'; count: number } | { kind: 'percent'; percent: number };

/** `voter` is whose say counts, `by` who said it: themself or their delegate. */
export type Vote = { voter: string; by: string; decision: 'approve' | 'decline'; at: number };

/** How an approval stands after some votes; instants in ms since 1970. */
export type StepOutcome = {
  outcome: 'open' | 'approved' | 'declined';
  decidedAt: number | null;
  needed: number;
  approvals: number;
  declines: number;
  /** Voters without a counted vote, in the order given. */
  outstanding: string[];
};

/** Who decides, as a service names them: a person, someone's manager, a team, whoever answers for something. */
export type ApproverRef =
  | { person: string }
  | { manager: 'ofRequester' | 'ofRecipient'; levels?: number }
  | { team: string; only?: 'leads' }
  | { ownerOf: 'service' | 'costCentre' | 'asset' };

/** What is known of people and teams when deciders are looked for, by id. */
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

/** Who asks for what, as far as deciders are looked for by it. */
export type Asked = {
  requester: string;
  recipient: string;
  service: string;
  costCentre?: string;
  asset?: string;
};

/** Absent in [from, to). */
export type Absence = { person: string; from: number; to: number; delegate?: string };

/** By what someone decides: by name, as a manager, of a team, or because nobody else is there. */
export type VoterReason = 'named' | 'manager' | 'team' | 'lead' | 'owner' | 'oneUp' | 'fallback';

/** `by` is who is asked to say it; `via` the absent people between the voter and them. */
export type FoundVoter = { voter: string; by: string; reason: VoterReason; via: string[] };

/** Why a reference leads to nobody, or to someone who cannot stand in. */
export type VoterProblemCode = 'noVoter' | 'unknownTeam' | 'noOwner' | 'delegateCannot';
/** What was in the way of a reference, and whom it concerns. */
export type VoterProblem = { code: VoterProblemCode; person?: string };
