import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { ServiceRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

/** The setting that names the service for what fits no other. */
export const LAST_RESORT = 'lastResort';

/**
 * The service that takes what fits no other: the one that is named, as long as it is on; else the first that anyone can
 * use as it is (no approval, no plan, nothing confidential).
 * @throws ProblemError noLastResort
 */
export async function findLastResort({ db }: Listo, tx?: Transaction): Promise<string> {
  const named = (await db.tables.settings.findOne({ name: LAST_RESORT }, tx))?.value as
    { serviceId: string } | undefined;
  const [found] = await db.select<{ id: string }>(
    `SELECT s.id FROM services s JOIN teams t ON t.id = s.teamId WHERE s.isOn AND NOT t.isConfidential
       AND (s.id = :named OR (s.plan IS NULL OR s.plan = 'null') AND s.approvals = '[]')
     ORDER BY s.id = :named DESC, s.position, s.id LIMIT 1`,
    { named: named?.serviceId ?? '' },
    tx,
  );
  if (!found) throw new ProblemError('noLastResort');
  return found.id;
}

/** The service with which an empty Listo begins, for whatever people need. */
function createLastResort(id: string, teamId: string, now: number): ServiceRow {
  return {
    ...{ id, kind: 'request', place: 'desk', categoryId: null, icon: null, teamId, groupId: null },
    ...{ ownerId: null, audience: [], approvals: [], plan: null, fallbackApproverId: null, cost: null },
    ...{
      impact: 'person',
      urgency: 'canWait',
      stateWords: {},
      articleLabels: null,
      opening: null,
      thanks: null,
    },
    title: { en: 'Something else', pt: 'Outra coisa' },
    description: {
      en: 'Say it in your own words; someone finds who can help.',
      pt: 'Diga por palavras suas; alguém encontra quem ajuda.',
    },
    otherWords: { en: 'other help question anything', pt: 'outro ajuda pergunta' },
    form: {
      fields: [
        {
          ...{ name: 'what', kind: 'longText', needed: true },
          label: { en: 'What do you need?', pt: 'De que precisa?' },
        },
      ],
    },
    ...{ isOn: true, offWords: null, position: 0, version: 1, publishedAt: now },
  };
}

/** Makes the service with which an empty Listo begins, of its first team. */
export async function beginCatalogue({ listo, tx }: UnitOfWork, teamId: string): Promise<void> {
  const service = createLastResort(nanoid(12), teamId, listo.clock.now());
  await listo.db.tables.services.insert(service, tx);
  await listo.db.tables.settings.insert({ name: LAST_RESORT, value: { serviceId: service.id } }, tx);
}
