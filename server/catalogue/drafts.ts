import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import type { api } from '../../contract';
import type { BodyOf } from '../../contract/endpoint';
import type { EditedService, ServiceLine } from '../../contract/services';
import { checkService, fromKit, SERVICE_KITS, type KitName, type ServiceProblem } from '../../core/catalogue';
import type { LocalText } from '../../core/forms';
import { maySetUp } from '../../core/rights';
import { change } from '../http/change';
import { ProblemError } from '../http/problems';
import { mayCallOut } from '../http/outgoing';
import { OK } from '../http/serve';
import { appendSetting } from '../journal/append';
import type { Listo } from '../listo';
import { readNames } from '../people/names';
import type { SignedIn } from '../sessions/viewer';
import { countAudience } from './audience';
import { complete, toDefinition, type Definition, type DraftRow, type ServiceRow } from './model';
import type { OpenRequests } from './ports';
import { forgetCatalogue } from './services';
import { hasOwn } from '../../core/records';
import type { Changing, Viewing } from '../unitOfWork';

type Found = { service: ServiceRow | null; draft: DraftRow | null; definition: Definition };

/** A service with its draft. @throws ProblemError notFound */
async function find(listo: Listo, id: string, tx?: Transaction): Promise<Found> {
  const { tables } = listo.db;
  const service = await tables.services.findOne({ id }, tx);
  const draft = await tables.drafts.findOne({ id }, tx, tx !== undefined);
  const definition = draft?.definition ?? (service && toDefinition(service));
  if (!definition) throw new ProblemError('notFound');
  return { service, draft, definition };
}

/** Those who answer for the team that a service is of, as it is and as it is to be. */
function mayWrite(viewer: SignedIn, { service, definition }: Found): boolean {
  return maySetUp(viewer, definition.teamId) && (!service || maySetUp(viewer, service.teamId));
}

async function findToWrite({ listo, viewer }: Viewing, id: string, tx: Transaction): Promise<Found> {
  const found = await find(listo, id, tx);
  if (!mayWrite(viewer, found)) throw new ProblemError('forbidden');
  return found;
}

/** Those who are asked by name. */
function listNamed({ approvals, plan }: Definition): string[] {
  const refs = [
    ...approvals.flatMap((step) => step.refs),
    ...(plan?.steps ?? []).flatMap((step) => (step.kind === 'approval' ? step.refs : [])),
  ];
  return refs.flatMap((ref) => ('person' in ref ? [ref.person] : []));
}

/** What is in the way of publishing, against the organisation as it is. */
async function judge(
  listo: Listo,
  definition: Definition,
): Promise<{ audience: number; problems: ServiceProblem[] }> {
  const { select } = listo.db;
  const teams = await select<{ id: string; members: number; leads: number }>(
    `SELECT t.id, COUNT(p.id) AS members, COUNT(IF(m.role = 'lead', p.id, NULL)) AS leads FROM teams t
     LEFT JOIN team_members m ON m.teamId = t.id LEFT JOIN people p ON p.id = m.personId AND p.leftAt IS NULL GROUP BY t.id`,
  );
  const ids = listNamed(definition);
  const people = await select<{ id: string }>('SELECT id FROM people WHERE leftAt IS NULL AND id IN (:ids)', {
    ids,
  });
  const known = new Set(people.map(({ id }) => id));
  const audience = await countAudience(listo, definition.audience);
  const problems = checkService(definition, {
    audience,
    teams: Object.fromEntries(teams.map(({ id, members, leads }) => [id, { members, leads }])),
    hasPerson: (id) => known.has(id),
    mayCall: (address) => mayCallOut(listo, address),
  });
  return { audience, problems };
}

/** Open requests on all versions of a service. */
const countOf = (open: OpenRequests[], id: string): number =>
  open.filter(({ serviceId }) => serviceId === id).reduce((all, { count }) => all + count, 0);

/** All services, with those that have only been begun. */
export async function listLines(listo: Listo, viewer: SignedIn): Promise<ServiceLine[]> {
  const { tables } = listo.db;
  const services = await tables.services.find({}, { order: ['position', 'id'] });
  const drafts = await tables.drafts.find({}, { order: ['id'] });
  const open = await listo.ports.catalogue.countOpen(listo, viewer);
  const ids = [...new Set([...services.map(({ id }) => id), ...drafts.map(({ id }) => id)])];
  return ids.map((id) => {
    const service = services.find((each) => each.id === id) ?? null;
    const draft = drafts.find((each) => each.id === id) ?? null;
    const definition = draft?.definition ?? service!;
    const { title, kind, place, categoryId, teamId } = definition;
    return {
      ...{ id, title, kind, place, categoryId, teamId, hasDraft: draft !== null },
      version: service?.version ?? 0,
      isOn: service?.isOn ?? false,
      mayEdit: mayWrite(viewer, { service, draft, definition }),
      openRequests: countOf(open, id),
    };
  });
}

export async function readEdited(listo: Listo, viewer: SignedIn, id: string): Promise<EditedService> {
  const found = await find(listo, id);
  const { service, draft, definition } = found;
  const { ownerId, fallbackApproverId } = definition;
  return {
    id,
    names: Object.fromEntries(
      await readNames(listo, [...listNamed(definition), ownerId, fallbackApproverId]),
    ),
    definition: complete(definition),
    draftVersion: draft?.version ?? 0,
    version: service?.version ?? 0,
    publishedAt: service?.publishedAt ?? null,
    isOn: service?.isOn ?? false,
    offWords: service?.offWords ?? null,
    mayEdit: mayWrite(viewer, found),
    openRequests: countOf(await listo.ports.catalogue.countOpen(listo, viewer, id), id),
    embedOrigins: listo.config.LISTO_EMBED_ORIGINS.split(' ').filter(Boolean),
    ...(await judge(listo, definition)),
  };
}

/** An address of its own, readable where that is possible. */
async function findFreeId({ db }: Listo, title: LocalText, tx: Transaction): Promise<string> {
  const words = title.en
    .normalize('NFKD')
    .replace(/[^\w\s-]/g, '')
    .toLowerCase();
  const base =
    words
      .trim()
      .split(/[\s_-]+/)
      .join('-')
      .slice(0, 30) || 'service';
  for (const id of [base, ...Array.from({ length: 8 }, (_, i) => `${base}-${i + 2}`)]) {
    const isTaken =
      (await db.tables.services.findOne({ id }, tx)) ?? (await db.tables.drafts.findOne({ id }, tx));
    if (!isTaken) return id;
  }
  return `${base}-${nanoid(6)}`.slice(0, 40);
}

export async function createService(
  { listo, viewer, actor }: Changing,
  { title, teamId, from }: BodyOf<typeof api.services.create>,
): Promise<{ id: string }> {
  if (!maySetUp(viewer, teamId)) throw new ProblemError('forbidden');
  if ('kit' in from && !hasOwn(SERVICE_KITS, from.kit)) throw new ProblemError('notFound');
  return change(listo, actor, async (tx) => {
    const definition =
      'kit' in from
        ? (fromKit(from.kit as KitName, teamId, title) as Definition)
        : { ...(await find(listo, from.service)).definition, title, teamId, groupId: null };
    const id = await findFreeId(listo, title, tx);
    await listo.db.tables.drafts.insert(
      { id, definition, version: 1, changedAt: listo.clock.now(), changedById: viewer.id },
      tx,
    );
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'serviceBegun',
        data: { serviceId: id, title: title.en },
      },
    );
    return { id };
  });
}

export async function saveDraft(
  { listo, viewer, actor }: Changing,
  id: string,
  { draftVersion, definition }: BodyOf<typeof api.services.save>,
): Promise<{ draftVersion: number; audience: number; problems: ServiceProblem[] }> {
  const written = definition as Definition;
  const saved = await change(listo, actor, async (tx) => {
    const { draft } = await findToWrite({ listo, viewer }, id, tx);
    if (!maySetUp(viewer, written.teamId)) throw new ProblemError('forbidden');
    if ((draft?.version ?? 0) !== draftVersion)
      throw new ProblemError('stale', {
        differences: [
          { field: 'definition', theirs: draft?.definition.title.en, yours: written.title.en, by: null },
        ],
      });
    const version = draftVersion + 1;
    const row = { definition: written, version, changedAt: listo.clock.now(), changedById: viewer.id };
    if (draft) await listo.db.tables.drafts.update({ id }, row, tx);
    else await listo.db.tables.drafts.insert({ id, ...row }, tx);
    return { draftVersion: version };
  });
  return { ...saved, ...(await judge(listo, written)) };
}

export async function discardDraft({ listo, viewer, actor }: Changing, id: string): Promise<{ ok: true }> {
  return change(listo, actor, async (tx) => {
    await findToWrite({ listo, viewer }, id, tx);
    await listo.db.tables.drafts.remove({ id }, tx);
    await appendSetting({ listo, tx }, { by: viewer.id, type: 'draftDiscarded', data: { serviceId: id } });
    return OK;
  });
}

/** Publishes a draft: what is open keeps its version, what comes from now on has this one. */
export async function publish(
  { listo, viewer, actor }: Changing,
  id: string,
  draftVersion: number,
): Promise<{ version: number }> {
  const { tables } = listo.db;
  const { problems } = await judge(listo, (await find(listo, id)).definition);
  if (problems.length > 0)
    throw new ProblemError('serviceNotReady', {
      fields: problems.map(({ part, code, at }) => ({
        field: at === undefined ? part : `${part}: ${at}`,
        code,
      })),
    });
  const published = await change(listo, actor, async (tx) => {
    const { service, draft } = await findToWrite({ listo, viewer }, id, tx);
    if (draft?.version !== draftVersion) throw new ProblemError('stale', { differences: [] });
    const now = listo.clock.now();
    const version = (service?.version ?? 0) + 1;
    if (service) {
      await tables.formerVersions.insert(
        {
          ...{ serviceId: id, version: service.version, definition: toDefinition(service) },
          ...{ publishedAt: service.publishedAt, replacedAt: now, replacedById: viewer.id },
        },
        tx,
      );
      await tables.services.update({ id }, { ...draft.definition, version, publishedAt: now }, tx);
    } else {
      const [last] = await listo.db.select<{ position: number | null }>(
        'SELECT MAX(position) AS position FROM services',
        {},
        tx,
      );
      const position = (last?.position ?? 0) + 10;
      const row = {
        id,
        ...draft.definition,
        isOn: true,
        offWords: null,
        position,
        version,
        publishedAt: now,
      };
      await tables.services.insert(row, tx);
    }
    await tables.drafts.remove({ id }, tx);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: 'servicePublished',
        data: { serviceId: id, version },
      },
    );
    return { version };
  });
  forgetCatalogue(listo);
  return published;
}

export async function turn(
  { listo, viewer, actor }: Changing,
  id: string,
  { isOn, offWords }: BodyOf<typeof api.services.turn>,
): Promise<{ ok: true }> {
  const answer = await change(listo, actor, async (tx) => {
    const { service } = await findToWrite({ listo, viewer }, id, tx);
    if (!service) throw new ProblemError('notFound');
    await listo.db.tables.services.update({ id }, { isOn, offWords: isOn ? null : offWords }, tx);
    await appendSetting(
      { listo, tx },
      {
        by: viewer.id,
        type: isOn ? 'serviceOn' : 'serviceOff',
        data: { serviceId: id, words: offWords },
      },
    );
    return OK;
  });
  forgetCatalogue(listo);
  return answer;
}

/** Puts services in an order; only those that one may write move. */
export async function orderServices(
  { listo, viewer, actor }: Changing,
  ids: string[],
): Promise<{ ok: true }> {
  const answer = await change(listo, actor, async (tx) => {
    const services = await listo.db.tables.services.find({ id: ids }, { transaction: tx });
    if (!services.every(({ teamId }) => maySetUp(viewer, teamId))) throw new ProblemError('forbidden');
    const places = services.map(({ position }) => position).sort((a, b) => a - b);
    const ordered = ids.filter((id) => services.some((service) => service.id === id));
    for (const [i, id] of ordered.entries())
      await listo.db.tables.services.update({ id }, { position: places[i]! }, tx);
    return OK;
  });
  forgetCatalogue(listo);
  return answer;
}
