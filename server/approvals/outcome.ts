import type { Language, LocalText } from '../../core/forms';
import { fillBlanks } from '../../core/text';
import type { Via } from '../../core/journal';
import type { Listo } from '../listo';
import type { ApprovalRow } from './model';

/** What became of an approval that someone was asked for. `byName`: null where it followed from silence. */
export type Outcome = {
  outcome: Exclude<ApprovalRow['outcome'], 'open'>;
  byName: string | null;
  via: Via;
};

/**
 * What became of what someone was asked: their own decision, or that of others where theirs is no longer wanted; null:
 * it still waits for them.
 */
export async function findDecision({ db }: Listo, askId: string): Promise<Outcome | null> {
  const ask = await db.tables.asks.findOne({ id: askId });
  const approval = ask && (await db.tables.approvals.findOne({ id: ask.approvalId }));
  if (!ask || !approval || (ask.decision === null && approval.outcome === 'open')) return null;
  const { decision } = ask;
  if (decision === null && approval.outcome === 'withdrawn')
    return { outcome: 'withdrawn', byName: null, via: 'rule' };
  const [entry] = await db.select<{ via: Via; name: string | null }>(
    `SELECT j.via, p.name FROM journal j LEFT JOIN people p ON p.id = j.actorId
     WHERE j.ticketNumber = :number AND j.type = 'decided' AND JSON_VALUE(j.data, '$.approvalId') = :approvalId
     ORDER BY JSON_VALUE(j.data, '$.askId') = :askId DESC, j.id DESC LIMIT 1`,
    { number: ask.ticketNumber, approvalId: approval.id, askId },
  );
  const outcome =
    decision === null
      ? (approval.outcome as 'approved' | 'declined')
      : decision === 'approve'
        ? 'approved'
        : 'declined';
  return { outcome, byName: entry?.name ?? null, via: entry?.via ?? 'rule' };
}

const SAYS = {
  byPerson: {
    en: '✓ Decided: {decision}, by {who}, {how}.',
    pt: '✓ Decidido: {decision}, por {who}, {how}.',
  },
  bySilence: {
    en: '✓ Decided: {decision}, as nobody answered.',
    pt: '✓ Decidido: {decision}, por falta de resposta.',
  },
  withdrawn: {
    en: '✓ This need not be decided any more.',
    pt: '✓ Isto já não precisa de ser decidido.',
  },
  approved: { en: 'yes', pt: 'sim' },
  declined: { en: 'no', pt: 'não' },
} satisfies Record<string, LocalText>;

const DOORS: Partial<Record<Via, LocalText>> = {
  mail: { en: 'by mail', pt: 'por correio' },
  directMessage: { en: 'in chat', pt: 'no chat' },
  desk: { en: 'on the Desk', pt: 'no Desk' },
};
const PAGE: LocalText = { en: 'on the page', pt: 'na página' };

/** The same in words, for doors that show text alone. */
export async function sayOutcome(listo: Listo, askId: string, language: Language): Promise<string | null> {
  const found = await findDecision(listo, askId);
  if (found === null) return null;
  const { outcome, byName, via } = found;
  if (outcome === 'withdrawn') return SAYS.withdrawn[language];
  const text = (byName === null ? SAYS.bySilence : SAYS.byPerson)[language];
  return fillBlanks(text, {
    ...{ decision: SAYS[outcome][language], who: byName ?? '', how: (DOORS[via] ?? PAGE)[language] },
  });
}
