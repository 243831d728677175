import type { Transaction } from 'sequelize';
import { changedParts } from '../../core/catalogue';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import { readNames } from '../people/names';
import type { TicketRecord } from '../tickets/model';
import { complete, toDefinition, type Definition } from './model';
import type { Viewer } from '../../core/rights';

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

/** The versions of a service that were published, the present one first: who did, what changed, who still keeps it. */
export async function listVersions(listo: Listo, viewer: Viewer, serviceId: string) {
  const { tables } = listo.db;
  const service = await tables.services.findOne({ id: serviceId });
  if (!service) throw new ProblemError('notFound');
  const former = await tables.formerVersions.find({ serviceId }, { order: [['version', 'DESC']] });
  const open = await listo.ports.catalogue.countOpen(listo, viewer, serviceId);
  const names = await readNames(
    listo,
    former.map(({ replacedById }) => replacedById),
  );
  const { version, publishedAt } = service;
  const all = [{ version, publishedAt, definition: toDefinition(service) }, ...former];
  return all.map((each, i) => {
    const before = all[i + 1];
    // Whoever replaced the one before published this one.
    const byId = before && 'replacedById' in before ? before.replacedById : null;
    return {
      ...{ version: each.version, publishedAt: each.publishedAt },
      definition: complete(each.definition),
      by: names.get(byId ?? '') ?? null,
      changed: before ? changedParts(before.definition, each.definition) : [],
      openRequests: open.find((row) => row.version === each.version)?.count ?? 0,
    };
  });
}
