import { largestAlike } from '../surge';

/** An incident as what keeps breaking is judged: the thing it was about, if one is known, and the working ms that it cost. */
export type Incident = {
  number: number;
  title: string;
  thingId: string | null;
  serviceId: string;
  cost: number;
};

/** An open problem, with the thing that is suspected and the incidents that are tied to it. */
export type OpenProblem = { id: string; thingId: string | null; numbers: number[] };

/** Incidents that may have one cause: by the thing that they have in common, or by their service and like words. */
export type Recurring = {
  thingId: string | null;
  serviceId: string | null;
  numbers: number[];
  cost: number;
  /** The open problem that they belong to already. */
  problemId: string | null;
};

/** Fewer are no pattern. */
const LEAST = 3;

function groupBy(incidents: Incident[], keyOf: (incident: Incident) => string): Incident[][] {
  const groups = new Map<string, Incident[]>();
  for (const incident of incidents) {
    const key = keyOf(incident);
    const group = groups.get(key);
    if (group) group.push(incident);
    else groups.set(key, [incident]);
  }
  return [...groups.values()];
}

/** Takes the largest group of like words out of some incidents, again and again, as long as one is large enough. */
function splitByWords(incidents: Incident[]): Incident[][] {
  const groups: Incident[][] = [];
  for (let left = incidents; left.length >= LEAST;) {
    const alike = largestAlike(left);
    if (alike.length < LEAST) break;
    groups.push(alike);
    left = left.filter((incident) => !alike.includes(incident));
  }
  return groups;
}

/**
 * What keeps breaking: at least three incidents about one thing, or of one service with like words, what cost most
 * first. Each incident is in one group at most. What belongs to an open problem is shown with it.
 */
export function recurring(incidents: Incident[], problems: OpenProblem[]): Recurring[] {
  const byThing = groupBy(
    incidents.filter(({ thingId }) => thingId !== null),
    ({ thingId }) => thingId!,
  ).filter(({ length }) => length >= LEAST);
  const grouped = new Set(byThing.flat());
  const rest = incidents.filter((incident) => !grouped.has(incident));
  const byWords = groupBy(rest, ({ serviceId }) => serviceId).flatMap(splitByWords);
  const problemOf = (thingId: string | null, numbers: number[]): string | null =>
    problems.find(
      (problem) =>
        (thingId !== null && problem.thingId === thingId) ||
        problem.numbers.some((number) => numbers.includes(number)),
    )?.id ?? null;
  const toRecurring = (group: Incident[], isByThing: boolean): Recurring => {
    const [{ thingId, serviceId }] = group as [Incident];
    const numbers = group.map(({ number }) => number).sort((a, b) => a - b);
    const cost = group.reduce((sum, incident) => sum + incident.cost, 0);
    return {
      ...{ thingId: isByThing ? thingId : null, serviceId: isByThing ? null : serviceId, numbers, cost },
      problemId: problemOf(isByThing ? thingId : null, numbers),
    };
  };
  return [
    ...byThing.map((group) => toRecurring(group, true)),
    ...byWords.map((group) => toRecurring(group, false)),
  ].sort((a, b) => b.cost - a.cost || a.numbers[0]! - b.numbers[0]!);
}
