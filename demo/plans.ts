import type { Transaction } from 'sequelize';
import type { StepMove } from '../core/plans';
import { decide } from '../server/approvals/decide';
import { decidingConsumer } from '../server/approvals/consumer';
import { hand } from '../server/journal/consumer';
import type { Listo } from '../server/listo';
import { lookAtPlans } from '../server/plans/goOn';
import { rankRequest } from '../server/plans/rank';
import { moveStep } from '../server/plans/steps';
import type { SignedIn } from '../server/sessions/viewer';
import { write } from '../server/tickets/messages';
import { moveTicket } from '../server/tickets/move';
import { createTicket } from '../server/tickets/create';
import { CHANGES } from './changes';

/** Hours of the office's working time before the demo's instant. */
type Ago = { ago: number };
type Did = Ago &
  (
    | { by: string; says: 'approve' | 'decline' }
    | { by: string; step: string; does: StepMove }
    | { by: string; ranks: string; words: string; goesAhead: boolean; place?: number }
    | { by: string; takes: true }
    | { by: string; writes: string }
  );

export type PlannedTicket = Ago & {
  serviceId: string;
  title: string;
  by: string;
  for?: string;
  answers: Record<string, string | number | boolean>;
  /** Days from the demo's instant to the first day that the form asks for. */
  inDays: number;
  then: Did[];
};

/** Requests that are under way through their plans, each at another place of them. */
const PLANNED: PlannedTicket[] = [
  {
    ...{
      serviceId: 'crew-transfer',
      title: 'Lena Storm moves to Port Alder',
      by: 'aro',
      for: 'lena',
      ago: 24,
      inDays: 9,
    },
    answers: { from: 'Fenwick Sound', to: 'Port Alder', gear: true, size: 's', tablet: true, berth: false },
    then: [
      { by: 'olav', says: 'approve', ago: 21 },
      { by: 'iben', says: 'approve', ago: 15 },
      { by: 'sofia', step: 'contract', does: 'take', ago: 14 },
      { by: 'clara', step: 'centre', does: 'take', ago: 13 },
      { by: 'jonas', step: 'gear', does: 'take', ago: 12.5 },
      { by: 'bia', takes: true, ago: 14.5 },
      {
        by: 'bia',
        writes: 'Both bases agree. Four teams prepare it now; you see here how far they are.',
        ago: 14.4,
      },
      { by: 'duarte', step: 'tablet', does: 'take', ago: 11 },
      { by: 'clara', step: 'centre', does: 'finish', ago: 6 },
    ],
  },
  {
    ...{
      serviceId: 'crew-transfer',
      title: 'Joel Brandt moves to Quell Harbour',
      by: 'aro',
      for: 'joel',
      ago: 88,
      inDays: -1,
    },
    answers: { from: 'Cape Lorne', to: 'Quell Harbour', gear: true, size: 'l', tablet: false, berth: true },
    then: [
      { by: 'graca', says: 'approve', ago: 83 },
      { by: 'iben', says: 'approve', ago: 80 },
      { by: 'orla', step: 'contract', does: 'take', ago: 79 },
      { by: 'marta', takes: true, ago: 79.5 },
      { by: 'marta', writes: 'Agreed. We tell you as soon as your gear is in.', ago: 79.4 },
      { by: 'emil', step: 'centre', does: 'take', ago: 78 },
      { by: 'artur', step: 'gear', does: 'take', ago: 78 },
      { by: 'runa', step: 'berth', does: 'take', ago: 76 },
      { by: 'emil', step: 'centre', does: 'finish', ago: 70 },
      { by: 'orla', step: 'contract', does: 'finish', ago: 62 },
      { by: 'runa', step: 'berth', does: 'finish', ago: 50 },
    ],
  },
  {
    ...{ serviceId: 'starter', title: 'Nils Harbo starts as purser', by: 'ana', ago: 17, inDays: 12 },
    answers: {
      who: 'Nils Harbo',
      job: 'Purser',
      department: 'Terminals',
      site: 'Marrow Point',
      hours: 'full',
      laptop: true,
      phone: true,
    },
    then: [
      { by: 'helge', says: 'approve', ago: 12 },
      { by: 'nuno', takes: true, ago: 11.5 },
      { by: 'nuno', writes: 'The post is agreed. People services invite him to an interview.', ago: 11.4 },
      { by: 'bento', step: 'interview', does: 'take', ago: 9 },
    ],
  },
  {
    ...{
      serviceId: 'starter',
      title: 'Edda Noronha starts in the ticket hall',
      by: 'tomas',
      ago: 3,
      inDays: 20,
    },
    answers: {
      who: 'Edda Noronha',
      job: 'Terminal agent',
      department: 'Terminals',
      site: 'Port Alder',
      hours: 'part',
      laptop: false,
      phone: false,
    },
    then: [],
  },
];

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

export async function viewerOf(listo: Listo, id: string): Promise<SignedIn> {
  const { people, members } = listo.db.tables;
  const person = (await people.findOne({ id }))!;
  const teams = await members.find({ personId: id });
  const { name, siteId, language, isAdministrator, mayAskForOthers } = person;
  return {
    ...{ sessionId: '', id, name, siteId, language, isAdministrator, mayAskForOthers },
    teams: teams.map(({ teamId, role }) => ({ teamId, role })),
  };
}

export async function decideAll(listo: Listo, number: number, tx: Transaction): Promise<void> {
  const { journal } = listo.db.tables;
  const entries = await journal.find({ ticketNumber: number, type: 'decided' }, { transaction: tx });
  await hand({ listo, tx }, decidingConsumer, entries);
}

async function act(listo: Listo, number: number, did: Did): Promise<void> {
  const { tables, transaction } = listo.db;
  const viewer = await viewerOf(listo, did.by);
  const actor = { id: viewer.id };
  if ('says' in did) {
    const [ask] = await tables.asks.find({ ticketNumber: number, askedId: did.by });
    await decide(
      listo,
      { personId: viewer.id, actor },
      { askId: ask!.id, decision: { decision: did.says, words: '' } },
    );
    await transaction((tx) => decideAll(listo, number, tx));
    return;
  }
  if ('ranks' in did) {
    const { words, goesAhead, place, ranks: stepId } = did;
    const step = (await tables.planSteps.findOne({ ticketNumber: number, stepId }))!;
    const { teamId, version } = step;
    const said = { number, stepId, version, words, goesAhead, ...(place !== undefined && { place }) };
    await rankRequest({ listo, viewer, actor }, teamId!, said);
    return;
  }
  if ('takes' in did) {
    const { version } = (await tables.tickets.findOne({ number }))!;
    await moveTicket({ listo, viewer, actor }, number, { name: 'take', by: 'agent', version, input: {} });
    return;
  }
  if ('writes' in did) {
    await write({ listo, viewer, actor }, number, {
      words: {
        text: did.writes,
        readBy: 'requester',
        links: [],
        fileIds: [],
      },
    });
    return;
  }
  const { version } = (await tables.planSteps.findOne({ ticketNumber: number, stepId: did.step }))!;
  const body = { name: did.does, version, reason: '', ticked: [] };
  await moveStep({ listo, viewer, actor }, { number, stepId: did.step }, body);
}

/** Lets the planned requests happen, by the application's own services, each act at its instant. */
export async function simulatePlans(listo: Listo, onDone: (share: number) => void): Promise<void> {
  const now = listo.clock.now();
  const all = [...PLANNED, ...CHANGES];
  const office = (await listo.calendars.getAll()).office!;
  const at = (instant: number): Listo => ({ ...listo, clock: { now: () => instant }, wake: () => undefined });
  for (const [i, { serviceId, title, by, answers, inDays, then, ...planned }] of all.entries()) {
    const viewer = await viewerOf(listo, by);
    const day = new Date(now + inDays * DAY).toISOString().slice(0, 10);
    const { number } = await createTicket(
      { listo: at(office.addWorking(now, -planned.ago * HOUR)), viewer, actor: { id: by } },
      {
        ...{ serviceId, title, answers: { ...answers, day }, via: 'portal', fileIds: [], alsoToldIds: [] },
        ...(planned.for !== undefined && { requesterId: planned.for }),
      },
    );
    for (const did of [...then].sort((one, other) => other.ago - one.ago))
      await act(at(office.addWorking(now, -did.ago * HOUR)), number, did);
    await listo.db.transaction((tx) =>
      lookAtPlans(listo, [{ ticketNumber: number, kind: 'planLook', ref: '', at: now }], tx),
    );
    onDone((i + 1) / all.length);
  }
}
