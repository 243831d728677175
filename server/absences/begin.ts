import { passOnFrom } from '../approvals/gone';
import { comeBack } from '../routing/assign';
import type { TimerHandler } from '../timers/runner';

/** An absence begins: work comes back to its team, and what waits for a decision goes to who decides meanwhile. */
export const beginAbsences: TimerHandler = async (listo, timers, tx) => {
  for (const { ref } of timers) {
    const absence = await listo.db.tables.absences.findOne({ id: ref }, tx);
    if (!absence) continue;
    await comeBack({ listo, tx }, absence.personId);
    await passOnFrom({ listo, tx }, absence.personId, 'askAway');
  }
};
