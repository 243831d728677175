import { replay } from '../server/replays/replay';
import { prepareDemo } from './prepare';
import { addOpenTickets } from './recount';
import { report } from './report';

const TICKETS = 100_000;

/** What would have become of a hundred thousand tickets under a changed promise. */
export async function benchReplay(): Promise<void> {
  const listo = await prepareDemo();
  await addOpenTickets(listo, TICKETS);
  const targets = await listo.db.tables.targets.find({});
  const teams = await listo.db.tables.teams.find({});
  const roles = teams.map(({ id }) => ({ teamId: id, role: 'lead' as const }));
  const everyone = {
    language: 'en' as const,
    id: 'helder',
    isAdministrator: true,
    mayAskForOthers: false,
    teams: roles,
  };
  const period = { from: 0, to: listo.clock.now(), calendars: {}, moves: [] };
  for (const changed of [targets.filter(({ id }) => id === 'resolution'), targets]) {
    const asked = {
      ...period,
      targets: changed.map(({ id, definition }) => ({
        id,
        definition: { ...definition, limits: [{ duration: 'PT2H' }] },
      })),
    };
    const began = performance.now();
    const result = await replay(listo, everyone, { asked, onProgress: () => Promise.resolve(true) });
    report(
      `replay of ${result!.tickets.toLocaleString('en')} tickets, ${changed.length} of ${targets.length} targets changed`,
      `${((performance.now() - began) / 1000).toFixed(1)} s`,
      `${result!.clocks.toLocaleString('en')} clocks, ${result!.changed.toLocaleString('en')} change sides`,
    );
  }
  await listo.db.close();
}
