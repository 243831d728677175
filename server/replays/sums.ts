import { GROUPINGS, type Grouping } from '../../contract/complianceNames';
import type { ReplayResult } from '../../contract/compliance';
import { tally } from '../../core/compliance';
import type { Standing } from '../../core/targets';
import type { Language } from '../../core/forms';
import { readGroupNames } from '../compliance/groupNames';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';

export type ReplayedTicket = Pick<
  TicketRecord,
  'number' | 'title' | 'teamId' | 'serviceId' | 'priority' | 'kind'
>;
type Both = { before: (Standing | null)[]; after: (Standing | null)[] };
type Named = ReplayResult['targets'];

const sumUp = ({ before, after }: Both) => ({ before: tally(before), after: tally(after) });
const byName = (one: { name: string }, other: { name: string }): number => (one.name < other.name ? -1 : 1);

/** How clocks stood and would have stood, in all and by what they belong to. */
export class Sums {
  readonly all: Both = { before: [], after: [] };
  readonly flips: ReplayResult['flips'] = [];
  private readonly groups = new Map<string, Both>();
  changed = 0;
  clocks = 0;

  add(
    ticket: ReplayedTicket,
    targetId: string,
    { before, after }: { before: Standing | null; after: Standing | null },
  ): void {
    if (before === null && after === null) return;
    this.clocks++;
    const keys = {
      team: ticket.teamId,
      service: ticket.serviceId,
      priority: ticket.priority,
      kind: ticket.kind,
    };
    const parts = GROUPINGS.map((by) => this.of(by, keys[by]));
    for (const both of [this.all, this.of('target', targetId), ...parts]) {
      both.before.push(before);
      both.after.push(after);
    }
  }

  private of(by: Grouping | 'target', key: string): Both {
    const name = `${by} ${key}`;
    const known = this.groups.get(name) ?? { before: [], after: [] };
    this.groups.set(name, known);
    return known;
  }

  listTargets(nameOf: (targetId: string) => string): Named {
    return [...this.groups]
      .filter(([name]) => name.startsWith('target '))
      .map(([name, both]) => ({ key: name.slice(7), name: nameOf(name.slice(7)), ...sumUp(both) }))
      .sort(byName);
  }

  /** The groups with the names of what they are of. */
  async listGroups(listo: Listo, language: Language): Promise<ReplayResult['groups']> {
    const nameOf = await readGroupNames(listo, language);
    const groups = Object.fromEntries(GROUPINGS.map((by) => [by, []])) as unknown as ReplayResult['groups'];
    for (const [name, both] of this.groups) {
      const [by, key] = name.split(' ') as [Grouping | 'target', string];
      if (by !== 'target') groups[by].push({ key, name: nameOf(by, key), ...sumUp(both) });
    }
    for (const by of GROUPINGS) groups[by].sort(byName);
    return groups;
  }
}
