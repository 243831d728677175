import type { Transaction } from 'sequelize';
import type { Listo } from '../listo';
import type { TicketRecord } from '../tickets/model';
import type { Definition } from './model';

/** The service as it was when a request was sent: requests keep their version. */
export async function definitionOf(
  listo: Listo,
  { serviceId, serviceVersion }: Pick<TicketRecord, 'serviceId' | 'serviceVersion'>,
  tx?: Transaction,
): Promise<Definition> {
  const { tables } = listo.db;
  const service = (await tables.services.findOne({ id: serviceId }, tx))!;
  if (service.version === serviceVersion) return service;
  const former = await tables.formerVersions.findOne({ serviceId, version: serviceVersion }, tx);
  return former?.definition ?? service;
}
