import type { RuleView } from '../../contract/rules';
import { findRings } from '../../core/rules';
import { maySetUp, readsDesk } from '../../core/rights';
import { ProblemError } from '../http/problems';
import { readPeople } from '../people/names';
import { visibleTo } from '../tickets/visibility';
import type { Viewing } from '../unitOfWork';
import { toRule } from './model';
import { readRules } from './read';

const DAY_MS = 86_400_000;
/** Over so many days it is said how often a rule fired. */
const DAYS = 30;

/** All rules in their order, with how they fare. */
export async function listRules({ listo, viewer }: Viewing): Promise<RuleView[]> {
  if (!readsDesk(viewer)) throw new ProblemError('forbidden');
  const rows = await readRules(listo);
  const since = listo.clock.now() - DAYS * DAY_MS;
  // Of what one may not read, nothing is counted.
  const visible = visibleTo(viewer);
  const runs = await listo.db.select<{ ruleId: string; count: number; lastAt: number }>(
    `SELECT r.ruleId, COUNT(*) AS count, MAX(r.at) AS lastAt FROM rule_runs r JOIN tickets t ON t.number = r.ticketNumber
     WHERE r.at >= :since AND ${visible.sql} GROUP BY r.ruleId`,
    { ...visible.values, since },
  );
  const owners = await readPeople(
    listo,
    rows.map(({ ownerId }) => ownerId),
  );
  const rules = rows.map(toRule);
  return rows.map((row) => {
    const { id, name, teamId, definition, ownerId, isOn, version, failures, failedAt, failedWith } = row;
    const run = runs.find(({ ruleId }) => ruleId === id);
    return {
      ...{ id, name, teamId, isOn, version, failures, failedAt, failedWith },
      ...(definition as Pick<RuleView, 'trigger' | 'provided' | 'effects' | 'isLast'>),
      ...{ owner: owners.get(ownerId) ?? null, mayEdit: maySetUp(viewer, teamId) },
      ...{ fired: run?.count ?? 0, lastAt: run?.lastAt ?? null, rings: findRings(rules, id) },
    };
  });
}
