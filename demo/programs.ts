import { createHash } from 'node:crypto';
import { ALWAYS } from '../core/conditions';
import type { Listo } from '../server/listo';
import { seal } from '../server/http/seal';

const DAY_MS = 86_400_000;
/** Nobody has the secrets of the demo's keys: an administrator makes others. */
const secretHash = createHash('sha256').update('nobody has it').digest('hex');

async function loadAccounts(listo: Listo): Promise<void> {
  const { tables } = listo.db;
  const now = listo.clock.now();
  const usual = {
    ownerId: 'vasco',
    isOn: true,
    isAdministrator: false,
    networks: [],
    endsAt: null,
    version: 1,
  };
  await tables.programs.insertAll([
    {
      ...{
        ...usual,
        id: 'program-payroll',
        name: 'Payroll',
        purpose: 'Hears who begins and who leaves.',
        perMinute: 120,
      },
      ...{ mayChange: true, mayAskForOthers: true, teams: [{ teamId: 'apps', role: 'agent' as const }] },
      createdAt: now - 90 * DAY_MS,
    },
    {
      ...{
        ...usual,
        id: 'program-signs',
        name: 'Gate signs',
        purpose: 'Shows travellers what is out of order.',
      },
      ...{ mayChange: false, mayAskForOthers: false, teams: [], perMinute: 60, createdAt: now - 30 * DAY_MS },
    },
  ]);
  const key = { secretHash, endsAt: null, revokedAt: null, lastUsedFrom: '192.0.2.31' };
  await tables.apiKeys.insertAll([
    {
      ...key,
      id: 'Pay4rollK1',
      programId: 'program-payroll',
      createdAt: now - 90 * DAY_MS,
      lastUsedAt: now - 240_000,
    },
    {
      ...key,
      id: 'Gate5signA',
      programId: 'program-signs',
      createdAt: now - 30 * DAY_MS,
      lastUsedAt: now - 60_000,
    },
  ]);
}

/** The programs of Solvarra Ferries: payroll, which hears who begins, and the signs at the gates, which only read. */
export async function loadPrograms(listo: Listo): Promise<void> {
  await loadAccounts(listo);
  const now = listo.clock.now();
  await listo.db.tables.webhooks.insert({
    ...{
      id: 'to-payroll',
      programId: 'program-payroll',
      name: 'Who begins',
      kinds: ['done'],
      provided: ALWAYS,
    },
    ...{ address: 'https://payroll.solvarra.example/listo', isOn: false, triedAt: null, pausedUntil: null },
    ...{ createdAt: now - 60 * DAY_MS, version: 1 },
    sealedSecret: await seal(listo, 'webhook to-payroll', `whsec_${'A'.repeat(32)}`),
  });
}
