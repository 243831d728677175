import type { Service, ServiceCard } from '../../contract/catalogue';
import { isInAudience, standingOf, type Standing } from '../../core/catalogue';
import { LANGUAGES, type Language, type LocalText } from '../../core/forms';
import { createFinder, type Finder } from '../../core/search';
import { DEFAULT_PRIORITY_TABLE, isInward, type PriorityTable } from '../../core/tickets';
import type { Database } from '../database/database';
import type { Listo } from '../listo';
import { readAudiencePerson } from './audience';
import type { ServiceRow } from './model';
import { countAsked, limited } from './opening';

const DAY_MS = 86_400_000;
const USUALLY_DAYS = 90;
/** Fewer than this say nothing about what is usual. */
const USUALLY_LEAST = 5;
const FRESH_MS = 5_000;
const USUALLY_FRESH_MS = 600_000;

type Catalogue = {
  services: ServiceRow[];
  /** Those that are switched off: they can be found by their address, and say why. */
  off: ServiceRow[];
  teamNames: Map<string, LocalText>;
  confidential: Set<string>;
  siteNames: Map<string, string>;
  /** How many have asked, where only so many may. */
  asked: Map<string, number>;
  priorities: PriorityTable;
  finders: Record<Language, Finder>;
};
type Cached = {
  catalogue: Catalogue;
  stamp: string;
  readAt: number;
  usually: Map<string, ServiceCard['usually']>;
  usuallyAt: number;
};

const caches = new WeakMap<Database, Cached>();

function findersOf(services: ServiceRow[]): Record<Language, Finder> {
  const finderOf = (language: Language) =>
    createFinder(
      services.map(({ id, title, description, otherWords }) => ({
        id,
        title: title[language],
        description: description[language],
        otherWords: otherWords[language],
      })),
      language,
    );
  return Object.fromEntries(LANGUAGES.map((language) => [language, finderOf(language)])) as Record<
    Language,
    Finder
  >;
}

/** Median working time to done by service, of what was done lately. */
async function readUsually(listo: Listo): Promise<Cached['usually']> {
  const calendars = await listo.calendars.getAll();
  const rows = await listo.db.select<{ serviceId: string; elapsed: number; calendarId: string }>(
    `SELECT DISTINCT serviceId, elapsed, calendarId FROM (
       SELECT t.serviceId, MEDIAN(c.elapsed) OVER (PARTITION BY t.serviceId) AS elapsed, tm.calendarId,
         COUNT(*) OVER (PARTITION BY t.serviceId) AS done
       FROM tickets t JOIN clocks c ON c.ticketNumber = t.number JOIN targets g ON g.id = c.targetId AND g.measures = 'resolution'
       JOIN services s ON s.id = t.serviceId JOIN teams tm ON tm.id = s.teamId
       WHERE t.resolvedAt > :since AND c.stoppedAt IS NOT NULL) counted
     WHERE done >= :least`,
    { since: listo.clock.now() - USUALLY_DAYS * DAY_MS, least: USUALLY_LEAST },
  );
  return new Map(
    rows.map(({ serviceId, elapsed, calendarId }) => {
      const hoursPerDay = calendars[calendarId]?.spec.hoursPerDay ?? 24;
      return [serviceId, { minutes: Math.round(elapsed / 60_000), hoursPerDay }];
    }),
  );
}

async function readCatalogue(listo: Listo): Promise<Cached> {
  const { tables } = listo.db;
  const known = caches.get(listo.db);
  const now = performance.now();
  if (known && now - known.readAt < FRESH_MS) return known;
  const all = await tables.services.find({}, { order: ['position', 'id'] });
  const services = all.filter(({ isOn }) => isOn);
  const stamp = services.map(({ id, version }) => `${id}@${version}`).join();
  const teams = await tables.teams.find({});
  const sites = await tables.sites.find({});
  const priorities = await tables.settings.findOne({ name: 'priorityTable' });
  const isUsuallyFresh = known !== undefined && now - known.usuallyAt < USUALLY_FRESH_MS;
  const cached: Cached = {
    catalogue: {
      services,
      off: all.filter(({ isOn }) => !isOn),
      teamNames: new Map(teams.map(({ id, name }) => [id, name])),
      confidential: new Set(teams.filter(({ isConfidential }) => isConfidential).map(({ id }) => id)),
      asked: await countAsked(listo, limited(all)),
      siteNames: new Map(sites.map(({ id, name }) => [id, name])),
      priorities: (priorities?.value as PriorityTable | undefined) ?? DEFAULT_PRIORITY_TABLE,
      finders: known?.stamp === stamp ? known.catalogue.finders : findersOf(services),
    },
    stamp,
    readAt: now,
    ...(isUsuallyFresh
      ? { usually: known.usually, usuallyAt: known.usuallyAt }
      : { usually: await readUsually(listo), usuallyAt: now }),
  };
  caches.set(listo.db, cached);
  return cached;
}

function toCard(
  { id, kind, place, categoryId, icon, title, description, teamId, cost, approvals, plan }: ServiceRow,
  { catalogue, usually }: Cached,
): ServiceCard {
  return {
    id,
    kind,
    place,
    categoryId,
    icon,
    title,
    description,
    cost,
    teamName: catalogue.teamNames.get(teamId)!,
    needsApproval: approvals.length > 0,
    hasPlan: plan !== null,
    usually: usually.get(id) ?? null,
  };
}

/** What a request for a service is judged by: the service, who it goes to, how priority is found, where sites are. */
export type ServiceRules = {
  service: ServiceRow;
  isConfidential: boolean;
  priorities: PriorityTable;
  siteNames: Map<string, string>;
};

/** The rules of a service that is on, or null. */
export async function findService(listo: Listo, id: string): Promise<ServiceRules | null> {
  const { services, confidential, priorities, siteNames } = (await readCatalogue(listo)).catalogue;
  const service = services.find((candidate) => candidate.id === id);
  return service
    ? { service, isConfidential: confidential.has(service.teamId), priorities, siteNames }
    : null;
}

/** Whether there is such a service, though not now. */
export async function isSwitchedOff(listo: Listo, id: string): Promise<boolean> {
  return (await readCatalogue(listo)).catalogue.off.some((service) => service.id === id);
}

/** The table by which impact and urgency give the priority. */
export async function readPriorityTable(listo: Listo): Promise<PriorityTable> {
  return (await readCatalogue(listo)).catalogue.priorities;
}

/** Has this process read the catalogue anew: it has just been changed here. */
export function forgetCatalogue({ db }: Listo): void {
  const cached = caches.get(db);
  if (cached) cached.readAt = -Infinity;
}

const standingIn = (listo: Listo, { catalogue }: Cached, { id, opening }: ServiceRow): Standing =>
  standingOf(opening, { now: listo.clock.now(), asked: catalogue.asked.get(id) ?? 0 });

/** The services that are for someone, and open. */
async function listFor(listo: Listo, cached: Cached, personId: string): Promise<ServiceRow[]> {
  // Problems and changes are raised where they are seen, not asked for.
  const asked = cached.catalogue.services.filter(
    (service) => !isInward(service.kind) && standingIn(listo, cached, service).state === 'open',
  );
  if (asked.every(({ audience }) => audience.length === 0)) return asked;
  const person = await readAudiencePerson(listo, personId);
  return asked.filter(({ audience }) => person && isInAudience(audience, person));
}

/** Whether a service is for someone; most are for everyone. */
export async function isFor(
  listo: Listo,
  { audience, kind }: Pick<ServiceRow, 'audience' | 'kind'>,
  personId: string,
): Promise<boolean> {
  if (isInward(kind)) return false;
  if (audience.length === 0) return true;
  const person = await readAudiencePerson(listo, personId);
  return person !== null && isInAudience(audience, person);
}

/** The services that someone may ask for. */
export async function listServices(listo: Listo, personId: string): Promise<ServiceCard[]> {
  const cached = await readCatalogue(listo);
  return (await listFor(listo, cached, personId)).map((service) => toCard(service, cached));
}

/** All services that are on, whomever they are for: for who sets something up, or puts a ticket where it belongs. */
export async function listAllServices(listo: Listo): Promise<ServiceCard[]> {
  const cached = await readCatalogue(listo);
  return cached.catalogue.services.map((service) => toCard(service, cached));
}

export async function readService(listo: Listo, id: string, personId: string): Promise<Service | null> {
  const cached = await readCatalogue(listo);
  const { services, off, confidential } = cached.catalogue;
  const service = [...services, ...off].find((candidate) => candidate.id === id);
  if (!service) return null;
  const { form, isOn, offWords, thanks, teamId } = service;
  return {
    ...toCard(service, cached),
    ...{ form, isOn, offWords, thanks: thanks ?? null, isConfidential: confidential.has(teamId) },
    standing: standingIn(listo, cached, service),
    isForYou: await isFor(listo, service, personId),
  };
}

/** Services for someone that fit what was typed so far, the best first. */
export async function searchServices(
  listo: Listo,
  { id: personId, language }: { id: string; language: Language },
  query: string,
): Promise<ServiceCard[]> {
  const cached = await readCatalogue(listo);
  const ids = cached.catalogue.finders[language](query);
  const theirs = await listFor(listo, cached, personId);
  return ids.flatMap((id) => {
    const service = theirs.find((candidate) => candidate.id === id);
    return service ? [toCard(service, cached)] : [];
  });
}
