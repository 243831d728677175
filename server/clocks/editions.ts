import type { TargetDefinition } from '../../core/targets';
import type { Listo } from '../listo';
import type { TargetRow } from './model';
import type { UnitOfWork } from '../unitOfWork';

/** Former definitions of promises, by "target edition". */
export type Editions = ReadonlyMap<string, TargetDefinition>;
export const NO_EDITIONS: Editions = new Map();

/** All editions that there have been; none where no promise was ever changed. */
export async function readEditions({ db }: Listo): Promise<Editions> {
  const rows = await db.tables.targetEditions.find({});
  return rows.length === 0
    ? NO_EDITIONS
    : new Map(rows.map(({ targetId, edition, definition }) => [`${targetId} ${edition}`, definition]));
}

/** The edition by which work begins that was opened at an instant; 0: none promised it anything. */
export function editionFor({ edition, newFrom }: TargetRow, openedAt: number): number {
  return newFrom !== null && openedAt < newFrom ? edition - 1 : edition;
}

/** The promise as it was in an edition. What it does as time runs out is always as it is now. */
export function inEdition(target: TargetRow, edition: number, editions: Editions): TargetRow {
  if (edition === target.edition) return target;
  const definition = editions.get(`${target.id} ${edition}`);
  return definition
    ? { ...target, edition, definition: { ...definition, warnAtPercent: target.definition.warnAtPercent } }
    : target;
}

/** A promise that there is not yet, as if it were. @param newFrom from when on it would hold; null: for all work */
export function toNewTarget(
  { id, definition }: Pick<TargetRow, 'id' | 'definition'>,
  newFrom: number | null,
): TargetRow {
  return {
    ...{ id, definition, measures: 'resolution', notices: [], teamId: null, isOn: true },
    ...{ edition: 1, newFrom, position: 0, version: 0 },
  };
}

type Written = {
  /** The row as it is; absent where the edition is the first. */
  target: TargetRow | null;
  id: string;
  definition: TargetDefinition;
  at: number;
  personId: string | null;
  isForOpen: boolean;
};

/** Keeps an edition of a promise, and the first one too when it is first changed. */
export async function keepEdition(
  { listo: { db }, tx }: UnitOfWork,
  { target, id, definition, at, personId, isForOpen }: Written,
): Promise<number> {
  const { targetEditions } = db.tables;
  const edition = (target?.edition ?? 0) + 1;
  if (target?.edition === 1)
    await targetEditions.insertAll(
      [
        {
          targetId: id,
          edition: 1,
          definition: target.definition,
          at: 0,
          personId: null,
          isForOpen: true,
        },
      ],
      tx,
      { updates: ['definition'] },
    );
  await targetEditions.insert({ targetId: id, edition, definition, at, personId, isForOpen }, tx);
  return edition;
}

/** Clocks that are going take an edition over: all, or those that go by one other. */
export async function takeOver(
  { listo: { db }, tx }: UnitOfWork,
  { id, edition, from = null }: { id: string; edition: number; from?: number | null },
): Promise<void> {
  await db.run(
    `UPDATE clocks SET edition = :edition WHERE targetId = :id AND state IN ('running', 'paused', 'notStarted')
       AND (:from IS NULL OR edition = :from)`,
    { id, edition, from },
    tx,
  );
}
