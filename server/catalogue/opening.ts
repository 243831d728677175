import type { Transaction } from 'sequelize';
import { standingOf, type Standing } from '../../core/catalogue';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { UnitOfWork } from '../unitOfWork';
import type { ServiceRow } from './model';

/** How many have asked for services that only so many may ask for, by service; what was withdrawn does not count. */
export async function countAsked(
  { db }: Listo,
  ids: string[],
  tx?: Transaction,
): Promise<Map<string, number>> {
  if (ids.length === 0) return new Map();
  const rows = await db.select<{ serviceId: string; asked: number }>(
    "SELECT serviceId, COUNT(*) AS asked FROM tickets WHERE serviceId IN (:ids) AND state <> 'withdrawn' GROUP BY serviceId",
    { ids },
    tx,
  );
  return new Map(rows.map(({ serviceId, asked }) => [serviceId, asked]));
}

/** Those of them that only so many may ask for. */
export const limited = (services: ServiceRow[]): string[] =>
  services.flatMap(({ id, opening }) => (opening?.most == null ? [] : [id]));

const PROBLEMS = { notYet: 'serviceNotYet', over: 'serviceOver', full: 'serviceFull' } as const;

function refuse(standing: Standing): void {
  if (standing.state !== 'open') throw new ProblemError(PROBLEMS[standing.state]);
}

/**
 * Refuses who comes too early, too late or after the last. Where only so many may ask, they come one after the other: the
 * service is locked until the ticket is there.
 */
export async function requireOpen({ listo, tx }: UnitOfWork, service: ServiceRow): Promise<void> {
  const isLimited = service.opening?.most != null;
  const current = isLimited ? await listo.db.tables.services.findOne({ id: service.id }, tx, true) : service;
  const asked = isLimited ? await countAsked(listo, [service.id], tx) : new Map<string, number>();
  refuse(standingOf(current?.opening ?? null, { now: listo.clock.now(), asked: asked.get(service.id) ?? 0 }));
}
