import { afterSilence, SILENT_WORDS, type SilentWord } from '../../core/assistant';
import { isMailOn, queueMail } from '../mail/queue';
import type { TimerHandler } from '../timers/runner';
import type { TalkRow, TalkTurnRow } from './model';
import { readOwnWords, withOwnWords } from './words';
import type { UnitOfWork } from '../unitOfWork';

const isSilentWord = (say: string): say is SilentWord => (SILENT_WORDS as readonly string[]).includes(say);

/** Looks at a conversation again when silence comes to something; one that is over is left alone. */
export async function listenToTalk(
  { listo, tx }: UnitOfWork,
  { id, endedAt, state }: Pick<TalkRow, 'id' | 'endedAt' | 'state'>,
  { lastSaidAt, said = [] }: { lastSaidAt: number; said?: SilentWord[] },
): Promise<void> {
  const { timers } = listo.db.tables;
  await timers.remove({ ticketNumber: 0, kind: 'talkSilent', ref: id }, tx);
  const next = afterSilence(lastSaidAt, said);
  // While others decide, nobody here is silent.
  if (endedAt === null && state.phase !== 'waiting' && next)
    await timers.insert({ ticketNumber: 0, kind: 'talkSilent', ref: id, at: next.at }, tx);
}

/** What has been said since the person's last word, and when that was. */
function readSilence(turns: TalkTurnRow[]): { lastSaidAt: number; said: SilentWord[] } {
  const last = turns.findLastIndex(({ isByPerson }) => isByPerson);
  const said = turns.slice(last + 1).flatMap((turn) => (isSilentWord(turn.said.say) ? [turn.said.say] : []));
  return { lastSaidAt: turns[last]?.at ?? turns[0]!.at, said };
}

/** Whoever closed the page hears of its coming back by mail; what was talked about stays in the conversation. */
async function mailLeftOpen({ listo, tx }: UnitOfWork, { personId }: TalkRow): Promise<void> {
  const person = await listo.db.tables.people.findOne({ id: personId, leftAt: null }, tx);
  if (!person || person.email === '' || !person.wantsMail || !(await isMailOn(listo, tx))) return;
  const { id, name, email, language } = person;
  await queueMail(
    { listo, tx },
    {
      template: 'leftOpen',
      to: { id, name, email, language },
      about: null,
      blanks: { link: `${listo.address}/ask/assistant` },
    },
  );
}

/** Asks whether someone is still there, comes back to it later, and at last closes what was left. */
export const hearTalkSilence: TimerHandler = async (listo, timers, tx) => {
  const { tables } = listo.db;
  for (const { ref } of timers) {
    const talk = await tables.talks.findOne({ id: ref }, tx, true);
    if (!talk || talk.endedAt !== null || talk.state.phase === 'waiting') continue;
    const turns = await tables.talkTurns.find({ talkId: ref }, { order: ['place'], transaction: tx });
    const { lastSaidAt, said } = readSilence(turns);
    const next = afterSilence(lastSaidAt, said);
    const now = listo.clock.now();
    if (!next || next.at > now) {
      await listenToTalk({ listo, tx }, talk, { lastSaidAt, said });
      continue;
    }
    const own = await readOwnWords(listo);
    const turn = withOwnWords({ say: next.word }, own, talk.language);
    await tables.talkTurns.insert(
      { talkId: ref, place: talk.places, at: now, isByPerson: false, said: turn, likely: null },
      tx,
    );
    if (next.word === 'followUp') await mailLeftOpen({ listo, tx }, talk);
    const isOver = next.word === 'closed';
    const ended = {
      endedAt: now,
      outcome: 'left',
      state: { ...talk.state, phase: 'ended', outcome: 'left' },
    } as const;
    await tables.talks.update({ id: ref }, { places: talk.places + 1, ...(isOver && ended) }, tx);
    await listenToTalk(
      { listo, tx },
      { ...talk, endedAt: isOver ? now : null },
      { lastSaidAt, said: [...said, next.word] },
    );
  }
};
