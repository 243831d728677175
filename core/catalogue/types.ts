import type { ProcessStep } from '../approvals';
import type { FormDefinition, LocalText } from '../forms';
import type { ServicePlan } from '../plans';
import type { Impact, TicketKind, TicketState, Urgency } from '../tickets';
import type { Audience } from './audience';
import type { Opening } from './opening';

/** A service as it is written by those who answer for it: a draft of it, or one of its versions. */
export type ServiceDefinition<Place extends string = string> = {
  kind: TicketKind;
  /** Where one is when one looks for it. */
  place: Place;
  categoryId: string | null;
  icon: string | null;
  title: LocalText;
  description: LocalText;
  /** What else people call it: found by, never shown. */
  otherWords: LocalText;
  teamId: string;
  groupId: string | null;
  /** Who answers for it; null: who leads its team. */
  ownerId: string | null;
  audience: Audience;
  /** When it may be asked for, and by how many; null: always, by any number. */
  opening: Opening | null;
  form: FormDefinition;
  /** Who must agree before anyone works on it, one step after the other. */
  approvals: ProcessStep[];
  /** What has to happen, where that is more than one thing for one team. */
  plan: ServicePlan | null;
  fallbackApproverId: string | null;
  /** Euro cents; null: it costs nothing. */
  cost: number | null;
  impact: Impact;
  urgency: Urgency;
  /** What its requester reads in a state, where it has words of its own for it. */
  stateWords: Partial<Record<TicketState, LocalText>>;
  /** What its requester reads when it has been sent; null: the usual words. */
  thanks: LocalText | null;
  /** Labels of the articles that are offered while one fills in its form; null: any, []: none. */
  articleLabels: string[] | null;
};
