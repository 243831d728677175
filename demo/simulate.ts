import type { CompiledCalendar } from '../core/calendar';
import type { Calendars } from '../core/targets';
import type { Door } from '../core/tickets';
import type { ServiceRow } from '../server/catalogue/model';
import type { PersonRow } from '../server/people/model';
import { CLOSES_AFTER_DAYS } from '../server/tickets/waitingConsumer';
import { MATTERS, type Matter } from './matters';
import type { Organisation } from './organisation';
import { createRandom, type Random } from './random';
import { Story } from './story';
import { TODAY, type TodayTicket } from './today';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** Half a year before the demo's day, and about eighteen tickets a day. */
const DAYS = 182;
const PER_DAY = 18;
/** How many more come in the last hours, and how long they lie before someone takes them, as a share left alone. */
const BUSY = 64;
const LEFT_ALONE = 0.45;
const LATELY = 8 * HOUR;
/** Working time in which a matter of each priority usually gets done. */
const USUAL: Record<string, number> = { P1: 2 * HOUR, P2: 4 * HOUR, P3: 8 * HOUR, P4: 16 * HOUR };
const DOORS: [Door, number][] = [
  ['portal', 0.72],
  ['phone', 0.88],
  ['inPerson', 0.93],
  ['mail', 1],
];

export type World = {
  random: Random;
  organisation: Organisation;
  services: ServiceRow[];
  calendars: Calendars;
  now: number;
};

/** The world's day has more tickets in the morning, fewer at night and on weekends. */
function openingTimes({ random, now }: World): number[] {
  const times: number[] = [];
  for (let day = DAYS; day >= 0; day--) {
    const noon = now - day * DAY;
    const isWeekend = [0, 6].includes(new Date(noon).getUTCDay());
    const count = Math.round(PER_DAY * (isWeekend ? 0.55 : 1.18) * random.between(0.8, 1.2));
    for (let i = 0; i < count; i++) {
      const hour =
        7 + 10 * ((random.next() + random.next()) / 2) + (random.chance(0.12) ? random.between(-7, 7) : 0);
      const midnight = Math.floor(noon / DAY) * DAY;
      times.push(Math.round(midnight + hour * HOUR + random.next() * HOUR));
    }
  }
  const busy = Array.from({ length: BUSY }, () => Math.round(now - random.between(0.1, 7) * HOUR));
  return [...times, ...busy].filter((t) => t < now - 3 * MINUTE).sort((a, b) => a - b);
}

function pickMatter({ random }: World): Matter {
  const total = MATTERS.reduce((sum, { weight }) => sum + weight, 0);
  let at = random.next() * total;
  return MATTERS.find(({ weight }) => (at -= weight) < 0) ?? MATTERS[0]!;
}

const AT_GATES = new Set(['gate-broken', 'gate-scanner', 'kiosk']);
const ON_BOARD = new Set(['sea-link', 'bridge-tablet']);

/** Someone who would ask this: crew for matters on board, terminal people at gates, all others from anywhere. */
function pickRequester({ random, organisation }: World, { serviceId }: Matter): PersonRow {
  const fits = ({ vessel, place }: PersonRow): boolean => {
    if (ON_BOARD.has(serviceId)) return vessel !== null;
    return AT_GATES.has(serviceId) ? vessel === null && (place?.startsWith('Gate ') ?? false) : true;
  };
  for (;;) {
    const person = random.pick(organisation.people);
    if (fits(person) && person.id !== 'helge') return person;
  }
}

function answersOf(
  matter: Matter,
  requester: PersonRow,
  siteName: string,
  title: string,
  { random, now }: World,
): Record<string, string | number> {
  const { impact, urgency, what, serviceId } = matter;
  const common = { site: siteName, ...(requester.place && { place: requester.place }), what };
  const judged = { impact, urgency };
  const nextWeek = new Date(now + 7 * DAY).toISOString().slice(0, 10);
  switch (serviceId) {
    case 'sea-link':
      return { vessel: requester.vessel!, what, urgency };
    case 'bridge-tablet':
      return { vessel: requester.vessel!, sort: 'replacement', what };
    case 'gate-scanner':
      return { site: siteName, place: requester.place ?? 'Gate 1', sort: 'hand', count: 2 };
    case 'kiosk': {
      const any = String(Math.ceil(random.between(0, 6)));
      return { site: siteName, kiosk: /\d+/.exec(title)?.[0] ?? any, what, ...judged };
    }
    case 'new-starter':
      return { who: 'A new colleague', site: siteName, day: nextWeek };
    case 'safety-gear':
      return { sort: 'boots', size: String(Math.round(random.between(38, 47))), site: siteName };
    case 'invoice':
      return {
        invoice: `S-${Math.round(random.between(1000, 9999))}`,
        amount: Math.round(random.between(80, 4000)),
        what,
      };
    case 'in-confidence':
      return { about: 'leave', what };
    case 'roster':
      return { day: nextWeek, what, urgency };
    case 'building':
      return { ...common, urgency };
    default:
      return { ...common, ...judged };
  }
}

type Telling = { story: Story; matter: Matter; calendar: CompiledCalendar; agentId: string };

/** Lets a story go on until it ends or reaches now. */
class Teller {
  private readonly world: World;
  private at: number;

  constructor(
    world: World,
    private readonly telling: Telling,
  ) {
    this.world = world;
    this.at = telling.story.ticket.createdAt;
  }

  tell(): void {
    const { story, matter, agentId } = this.telling;
    const { random } = this.world;
    if (story.approval && !this.decide()) return;
    if (random.chance(0.03) && this.pass(30 * MINUTE)) {
      story.move('withdraw', 'requester', story.ticket.requesterId, this.at);
      return;
    }
    if (this.world.now - story.ticket.createdAt < LATELY && random.chance(LEFT_ALONE)) return;
    if (!this.work(25 * MINUTE)) return;
    story.move('take', 'agent', agentId, this.at);
    if (!this.work(12 * MINUTE)) return;
    story.answer(agentId, matter.answer, this.at);
    if (matter.note && random.chance(0.5) && this.work(10 * MINUTE))
      story.note(agentId, matter.note, this.at);
    if (matter.question && random.chance(0.4) && !this.holdForRequester(matter.question)) return;
    if (random.chance(0.08) && !this.holdForSupplier()) return;
    if (!this.work(USUAL[story.ticket.priority]! * 0.8)) return;
    this.finish();
  }

  private decide(): boolean {
    const { story } = this.telling;
    const { random } = this.world;
    if (!this.pass(5 * HOUR)) return false;
    const isDeclined = random.chance(0.08);
    story.decide(
      isDeclined ? 'decline' : 'approve',
      isDeclined ? 'We have a spare one, use that first.' : '',
      this.at,
    );
    return !isDeclined;
  }

  private holdForRequester(question: string): boolean {
    const { story, agentId } = this.telling;
    if (!this.work(15 * MINUTE)) return false;
    story.move('hold', 'agent', agentId, this.at, { heldFor: 'requester', message: question });
    if (!this.pass(4 * HOUR)) return false;
    story.reply('Yes, as far as I can see. Tell me if you need more.', this.at);
    return true;
  }

  private holdForSupplier(): boolean {
    const { story, agentId } = this.telling;
    if (!this.work(20 * MINUTE)) return false;
    story.move('hold', 'agent', agentId, this.at, {
      heldFor: 'supplier',
      reason: 'Part ordered from the supplier',
    });
    if (!this.work(10 * HOUR)) return false;
    story.move('resume', 'agent', agentId, this.at);
    return true;
  }

  private finish(): void {
    const { story, matter, calendar, agentId } = this.telling;
    const { random, now } = this.world;
    const { requesterId } = story.ticket;
    story.move('finish', 'agent', agentId, this.at, { solution: matter.solution });
    if (random.chance(0.05) && this.pass(3 * HOUR)) {
      story.move('reopen', 'requester', requesterId, this.at, { stillBroken: 'It came back after an hour.' });
      if (!this.work(2 * HOUR)) return;
      story.move('finish', 'agent', agentId, this.at, {
        solution: `${matter.solution} Watched for an hour.`,
      });
    }
    const closes = calendar.addWorking(this.at, CLOSES_AFTER_DAYS * calendar.spec.hoursPerDay * HOUR);
    if (random.chance(0.55)) {
      if (!this.pass(8 * HOUR)) return;
      const rating = random.pick([3, 4, 4, 5, 5, 5, 5, 2]);
      story.move('confirm', 'requester', requesterId, Math.min(this.at, closes - 1), {
        rating,
        ratingWord: rating === 5 ? 'Quick and friendly.' : '',
      });
    } else if (closes < now) story.move('close', 'system', null, closes);
  }

  /** Some working time of the team passes; false when that leads beyond now. */
  private work(usual: number): boolean {
    this.at = this.telling.calendar.addWorking(
      this.at,
      Math.round(usual * this.world.random.spread()) + 20_000,
    );
    return this.at < this.world.now;
  }

  /** Some time of the clock on the wall passes. */
  private pass(usual: number): boolean {
    this.at += Math.round(usual * this.world.random.spread()) + 20_000;
    return this.at < this.world.now;
  }
}

function calendarIdOf(teamId: string, { organisation }: World): string {
  return organisation.teams.find(({ id }) => id === teamId)!.calendarId;
}

function pickAgent(world: World, service: ServiceRow, requesterId: string): string {
  const { members } = world.organisation;
  const inGroup = members.filter(
    ({ teamId, groupId }) =>
      teamId === service.teamId && (service.groupId === null || groupId === service.groupId),
  );
  return world.random.pick(inGroup.filter(({ personId }) => personId !== requesterId)).personId;
}

function open(
  world: World,
  number: number,
  at: number,
  matter: Matter,
  requester: PersonRow,
  title: string,
): Story {
  const { random, organisation, services } = world;
  const service = services.find(({ id }) => id === matter.serviceId)!;
  const team = organisation.teams.find(({ id }) => id === service.teamId)!;
  const siteName = organisation.sites.find(({ id }) => id === requester.siteId)!.name;
  const chance = random.next();
  const via = DOORS.find(([, below]) => chance < below)![0];
  const raisedById =
    via === 'portal' || via === 'mail' ? null : random.pick(['bia', 'piet', 'nuno', 'elin', 'carla']);
  const answers = answersOf(matter, requester, siteName, title, world);
  const place =
    matter.serviceId === 'sea-link' || matter.serviceId === 'bridge-tablet'
      ? `MV ${requester.vessel}`
      : [siteName, answers.place].filter(Boolean).join(' · ');
  const story = new Story({
    number,
    service,
    isConfidential: team.isConfidential,
    requesterId: requester.id,
    title,
    answers,
    place,
    via,
    raisedById: raisedById === requester.id ? null : raisedById,
    at,
  });
  if (service.approvals.length > 0) story.ask(service, requester.managerId ?? 'helge', 'manager');
  return story;
}

function titleOf(matter: Matter, requester: PersonRow, siteName: string, { random }: World): string {
  return matter.title
    .replace('{n}', String(Math.ceil(random.between(0, 6))))
    .replace('{place}', siteName)
    .replace('{vessel}', requester.vessel ?? '');
}

/** A ticket of the busy today, told as far as its script goes. */
function tellToday(world: World, number: number, script: TodayTicket): Story {
  const { organisation, now } = world;
  const matter = MATTERS.find(
    ({ serviceId, title }) =>
      serviceId === script.serviceId && (script.like === undefined || title.startsWith(script.like)),
  )!;
  const requester = organisation.people.find(({ id }) => id === script.requesterId)!;
  const at = (minutesAgo: number): number => now - minutesAgo * MINUTE;
  const story = open(
    world,
    number,
    at(script.minutesAgo),
    { ...matter, ...script.judged },
    requester,
    script.title,
  );
  for (const step of script.steps) {
    const { by, ago } = step;
    if (step.do === 'approve') story.decide('approve', '', at(ago));
    else if (step.do === 'take') story.move('take', 'agent', by!, at(ago));
    else if (step.do === 'answer') story.answer(by!, step.text!, at(ago));
    else if (step.do === 'reply') story.reply(step.text!, at(ago));
    else if (step.do === 'note') story.note(by!, step.text!, at(ago));
    else if (step.do === 'ask')
      story.move('hold', 'agent', by!, at(ago), { heldFor: 'requester', message: step.text! });
    else story.move('finish', 'agent', by!, at(ago), { solution: step.text! });
  }
  return story;
}

/** Six months of tickets and a busy today, in the order of their opening. */
export function simulate(world: World, onProgress: (share: number) => void): Story[] {
  const { organisation, services, calendars, now } = world;
  const times = openingTimes(world).map((at) => ({ at, script: null as TodayTicket | null }));
  const scripted = TODAY.map((script) => ({ at: now - script.minutesAgo * MINUTE, script }));
  const openings = [...times, ...scripted].sort((a, b) => a.at - b.at);
  return openings.map(({ at, script }, i) => {
    const number = 10_001 + i;
    if (i % 200 === 0) onProgress(i / openings.length);
    if (script?.isApart) return tellToday({ ...world, random: createRandom(number) }, number, script);
    if (script) return tellToday(world, number, script);
    const matter = pickMatter(world);
    const requester = pickRequester(world, matter);
    const service = services.find(({ id }) => id === matter.serviceId)!;
    const siteName = organisation.sites.find(({ id }) => id === requester.siteId)!.name;
    const story = open(world, number, at, matter, requester, titleOf(matter, requester, siteName, world));
    const calendar = calendars[calendarIdOf(service.teamId, world)]!;
    new Teller(world, { story, matter, calendar, agentId: pickAgent(world, service, requester.id) }).tell();
    return story;
  });
}
