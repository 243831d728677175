import type { SpentOn } from '../core/spent';
import type { ReadyTextRow } from '../server/readyTexts/model';
import type { SpentRow } from '../server/spent/model';
import type { TicketRecord } from '../server/tickets/model';
import type { Random } from './random';

const DAY_MS = 86_400_000;
const MINUTE_MS = 60_000;
/** Time was noted for so long, on so many of the tickets. */
const NOTED_DAYS = 90;
const NOTED = 0.6;

/** Time that agents noted on what they resolved lately. */
export function createSpent(random: Random, tickets: TicketRecord[], now: number): SpentRow[] {
  return tickets.flatMap(({ number, assigneeId, resolvedAt, createdAt }): SpentRow[] => {
    if (assigneeId === null || resolvedAt === null) return [];
    if (resolvedAt < now - NOTED_DAYS * DAY_MS || !random.chance(NOTED)) return [];
    const minutes = Math.round(random.between(4, 25) * (random.chance(0.2) ? 3 : 1));
    const category: SpentOn = random.chance(0.7) ? 'working' : random.chance(0.6) ? 'talking' : 'travelling';
    return [
      {
        ...{ id: `s${number}`, personId: assigneeId, ticketNumber: number, minutes, category, note: '' },
        startedAt: Math.max(createdAt, resolvedAt - minutes * MINUTE_MS),
        isByHand: random.chance(0.25),
        runningFor: null,
      },
    ];
  });
}

const TEXTS: [id: string, teamId: string, ownerId: string, name: string, en: string, pt: string][] = [
  [
    ...(['ready-look', 'onboard', 'rui', 'We look at it'] as const),
    'Hello {name}, we look at “{title}” now. You hear from us by {due}.',
    'Olá {name}, estamos a ver «{title}». Terá notícias nossas até {due}.',
  ],
  [
    ...(['ready-restart', 'onboard', 'rui', 'Restart the kiosk yourself'] as const),
    'Hello {name}, please press the grey button behind the card reader for five seconds. Does the kiosk come back?',
    'Olá {name}, carregue cinco segundos no botão cinzento atrás do leitor de cartões. O quiosque volta?',
  ],
  [
    ...(['ready-which', 'desk', 'carla', 'Which one is it?'] as const),
    'Hello {name}, which one is it? Its number stands on the sticker at the side.',
    'Olá {name}, qual é? O número está no autocolante ao lado.',
  ],
];

/** Pieces of text that the demo's teams use again. */
export const createReadyTexts = (): ReadyTextRow[] =>
  TEXTS.map(([id, teamId, ownerId, name, en, pt]) => ({
    ...{ id, teamId, ownerId, name, text: { en, pt }, version: 1 },
  }));
