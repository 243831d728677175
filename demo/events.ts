import { CALL_BACK_MS } from '../core/notices';
import type { Listo } from '../server/listo';
import { decide } from '../server/approvals/decide';
import { createNotice, endNotice, reviewNotice, sayOfNotice } from '../server/notices/keep';
import { followNotice } from '../server/notices/follow';
import { tellNotice } from '../server/notices/tell';
import { createProblem, updateProblem } from '../server/problems/keep';
import { endWork, startWork } from '../server/works/acts';
import { createFreeze } from '../server/works/freezes';
import { createWork, submitWork } from '../server/works/keep';
import { decideAll, viewerOf } from './plans';
import { WORK_TEMPLATES } from './works';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const t = (en: string, pt: string): { en: string; pt: string } => ({ en, pt });

type Hand = { at(instant: number): Listo; now: number };
const changing = async ({ at }: Hand, by: string, instant: number) => {
  const listo = at(instant);
  return { listo, viewer: await viewerOf(listo, by), actor: { id: by } };
};

const NOTICE = { forAgents: '', serviceIds: [], thingIds: [], isPublic: false, isMajor: false, leadId: null };

/** Everyone tied to it is told, as the timer of it would. */
async function tellAll({ at }: Hand, instant: number): Promise<void> {
  const listo = at(instant);
  for (;;) {
    const due = await listo.db.tables.timers.find({ ticketNumber: 0, kind: 'tellNotice' });
    if (due.length === 0) return;
    for (const timer of due)
      await listo.db.transaction(async (tx) => {
        await listo.db.tables.timers.remove({ ticketNumber: 0, kind: 'tellNotice', ref: timer.ref }, tx);
        await tellNotice(listo, [timer], tx);
      });
  }
}

/** An outage that goes on, with those who reported it; one that is over; and what will be worked on. */
async function makeNotices(hand: Hand, numbers: number[]): Promise<void> {
  const { now } = hand;
  const sten = await changing(hand, 'sten', now - 75 * 60_000);
  const { id } = await createNotice(sten, {
    ...NOTICE,
    ...{
      kind: 'outage',
      teamId: 'network',
      fromAt: now - 95 * 60_000,
      untilAt: now + 2 * HOUR,
      isMajor: true,
      leadId: 'sten',
    },
    title: t('Satellite link drops off Cape Lorne', 'A ligação por satélite cai ao largo do cabo Lorne'),
    words: t(
      'Send manifests from the terminal; the bridge radio works.',
      'Envie os manifestos do terminal; o rádio da ponte funciona.',
    ),
    audience: [{ by: 'onVessel' }, { by: 'site', in: ['lorne'] }],
    ...{ thingIds: ['sea-gannet', 'sea-petrel'], ofTicket: null, ofWork: null, numbers, isPublic: true },
  });
  await tellAll(hand, now - 75 * 60_000 + CALL_BACK_MS);
  for (const by of ['aro', 'lena'])
    await followNotice(await changing(hand, by, now - HOUR), id, true).catch(() => undefined);
  await sayOfNotice(await changing(hand, 'sten', now - 25 * 60_000), id, {
    ...{ version: 1, untilAt: now + 2 * HOUR },
    words: t(
      'The supplier has moved one vessel to the second satellite and watches it.',
      'O fornecedor passou um navio para o segundo satélite e observa.',
    ),
  });
  await tellAll(hand, now - 25 * 60_000);
}

/** An outage that is over, with what was learned of it. */
async function makePast(hand: Hand): Promise<void> {
  const past = hand.now - 9 * DAY;
  const over = await createNotice(await changing(hand, 'vasco', past), {
    ...NOTICE,
    ...{
      kind: 'outage',
      teamId: 'apps',
      fromAt: past - HOUR / 2,
      untilAt: null,
      audience: [],
      isMajor: true,
      leadId: 'vasco',
    },
    title: t('Bookings cannot be changed', 'Não se conseguem alterar reservas'),
    words: t(
      'Note changes on paper; they are entered later.',
      'Anote as alterações em papel; entram depois.',
    ),
    ...{ ofTicket: null, ofWork: null, numbers: [] },
  });
  await tellAll(hand, past + CALL_BACK_MS);
  const ended = await endNotice(await changing(hand, 'vasco', past + 2 * HOUR), over.id, {
    ...{ version: 1, isFinishing: false },
    words: t('Bookings can be changed again.', 'As reservas já se podem alterar.'),
  });
  await reviewNotice(await changing(hand, 'vasco', past + 30 * HOUR), over.id, {
    ...{
      version: ended.version,
      review: 'The lock of a table was held by a report. The report reads a copy now.',
    },
  });
  await tellAll(hand, past + 2 * HOUR);
}

type Planned = {
  by: string;
  serviceId: string;
  title: string;
  /** From now, in hours; how long, in hours. */
  from: number;
  hours: number;
  thingIds: string[];
  sort?: 'standard' | 'emergency';
  why: string;
  then: 'draft' | 'asked' | 'agreed' | 'done' | 'failed';
};

const WORKS: Planned[] = [
  {
    ...{
      by: 'alda',
      serviceId: 'work-network',
      title: 'New memory in server A1',
      from: 42,
      hours: 3,
    },
    ...{ thingIds: ['server-1'], then: 'agreed', why: 'It runs full every Friday.' },
  },
  {
    ...{
      by: 'tiago',
      serviceId: 'work-network',
      title: 'Server A2 moves to the new cabinet',
      from: 43,
      hours: 4,
    },
    ...{ thingIds: ['server-2'], then: 'asked', why: 'The old cabinet stands in the wet.' },
  },
  {
    ...{
      by: 'luis',
      serviceId: 'work-program',
      title: 'Booking 7.3',
      from: 150,
      hours: 2,
      thingIds: ['core-network'],
    },
    ...{ then: 'asked', why: 'Season passes for the new line.' },
  },
  {
    ...{
      by: 'rui',
      serviceId: 'work-firmware',
      title: 'New firmware, gate 2 of Ombra',
      from: 20,
      hours: 1,
      sort: 'standard',
    },
    ...{ thingIds: ['kiosk-ombra-1'], then: 'agreed', why: 'The version that reads the new season passes.' },
  },
  {
    ...{
      by: 'ivo',
      serviceId: 'work-firmware',
      title: 'New firmware, bridge of MV Petrel',
      from: 260,
      hours: 1,
    },
    ...{ thingIds: ['sea-petrel'], then: 'draft', why: '' },
  },
  {
    ...{
      by: 'alda',
      serviceId: 'work-network',
      title: 'Antenna of MV Gannet turned',
      from: -30,
      hours: 2,
      sort: 'emergency',
    },
    ...{ thingIds: ['sea-gannet'], then: 'failed', why: 'It had come loose in the storm.' },
  },
  {
    ...{
      by: 'sten',
      serviceId: 'work-network',
      title: 'Mast of Ombra painted',
      from: -120,
      hours: 4,
      thingIds: ['net-ombra'],
    },
    ...{ then: 'done', why: 'Rust.' },
  },
];

/** Lets one change happen as far as it is by now. */
async function makeWork(hand: Hand, planned: Planned): Promise<void> {
  const { now } = hand;
  const { by, serviceId, title, from, hours, thingIds, sort = 'normal', why, then } = planned;
  const fromAt = Math.round((now + from * HOUR) / HOUR) * HOUR;
  const written = Math.min(now, fromAt) - 26 * HOUR;
  const template = WORK_TEMPLATES.find((each) => each.serviceId === serviceId)!;
  const { number } = await createWork(await changing(hand, by, written), {
    ...{ serviceId, title, sort, fromAt, toAt: fromAt + hours * HOUR, why, test: template.test.en },
    ...{ takeBack: template.takeBack.en, thingIds, problemNumber: null, riskSaid: null, riskReason: '' },
  });
  if (then === 'draft') return;
  await submitWork(await changing(hand, by, written + HOUR), number, 1);
  if (then === 'asked') return;
  await agree(hand, number, written + 4 * HOUR);
  if (then === 'agreed') return;
  await startWork(await changing(hand, by, fromAt), number, 2);
  await endWork(await changing(hand, by, fromAt + hours * HOUR), number, {
    ...{ version: 3, outcome: then },
    words: then === 'done' ? 'As planned.' : 'The bearing does not hold; the old angle is back.',
  });
}

/** Everyone who is asked agrees, as far as it takes. */
async function agree(hand: Hand, number: number, instant: number): Promise<void> {
  const listo = hand.at(instant);
  for (;;) {
    const [open] = await listo.db.select<{ id: string; askedId: string }>(
      `SELECT a.id, a.askedId FROM asks a JOIN approvals ap ON ap.id = a.approvalId AND ap.outcome = 'open'
       WHERE a.ticketNumber = :number AND a.decision IS NULL ORDER BY a.id LIMIT 1`,
      { number },
    );
    if (!open) return;
    const decision = { decision: 'approve' as const, words: '' };
    await decide(
      listo,
      { personId: open.askedId, actor: { id: open.askedId } },
      { askId: open.id, decision },
    );
    await listo.db.transaction((tx) => decideAll(listo, number, tx));
  }
}

/** Where the causes of incidents are looked into. */
async function makeProblems(
  hand: Hand,
  { link, kiosks }: { link: number[]; kiosks: number[] },
): Promise<void> {
  const { now } = hand;
  const first = await createProblem(await changing(hand, 'alda', now - 20 * HOUR), {
    ...{
      title: 'Satellite link drops in the lee of Cape Lorne',
      teamId: 'network',
      numbers: link,
      thingId: 'sea-gannet',
    },
    cause: 'The cape stands in the way of the first satellite.',
  });
  await updateProblem(await changing(hand, 'alda', now - 18 * HOUR), first.number, {
    ...{ version: 1, stage: 'lookedInto', causeKindId: null, workaround: '' },
    cause: 'The cape stands in the way of the first satellite.',
  });
  if (kiosks.length === 0) return;
  const second = await createProblem(await changing(hand, 'hanna', now - 6 * DAY), {
    ...{ title: 'Payment freezes the kiosks', teamId: 'onboard', numbers: kiosks, thingId: null, cause: '' },
  });
  await updateProblem(await changing(hand, 'hanna', now - 5 * DAY), second.number, {
    ...{ version: 1, stage: 'knownError', causeKindId: 'program' },
    cause: 'The payment module waits for ever when the line is lost for a second.',
    workaround: 'Restart the payment module from the service menu; the sale before is kept.',
  });
}

/** Notices, changes and problems of the demo, by the application's own services, each act at its instant. */
export async function simulateEvents(listo: Listo): Promise<void> {
  const { tables } = listo.db;
  const now = listo.clock.now();
  const hand: Hand = {
    now,
    at: (instant) => ({ ...listo, clock: { now: () => instant }, wake: () => undefined }),
  };
  await tables.workTemplates.insertAll(WORK_TEMPLATES);
  const season = Math.floor((now + 17 * DAY) / DAY) * DAY;
  await createFreeze(await changing(hand, 'marta', now - 30 * DAY), {
    ...{
      name: t('Christmas traffic', 'Tráfego do Natal'),
      fromAt: season,
      toAt: season + 9 * DAY,
      thingIds: null,
    },
  });
  for (const planned of WORKS) await makeWork(hand, planned);
  const like = async (words: string, which: string): Promise<number[]> => {
    const rows = await listo.db.select<{ number: number }>(
      `SELECT number FROM tickets WHERE kind = 'incident' AND NOT isConfidential AND title LIKE :words AND ${which} ORDER BY number DESC LIMIT 6`,
      { words: `%${words}%`, before: now - 6 * DAY },
    );
    return rows.map(({ number }) => number);
  };
  const isOpen = "state IN ('received', 'inWork')";
  const link = await like('link', isOpen);
  await makeNotices(hand, link);
  await makePast(hand);
  await makeProblems(hand, { link, kiosks: await like('payment', 'createdAt < :before') });
}
