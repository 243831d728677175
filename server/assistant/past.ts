import { setImmediate } from 'node:timers/promises';
import { understand, type JudgedPhrasing, type Understanding } from '../../core/assistant';
import type { Language } from '../../core/forms';
import { foldText } from '../../core/text';
import type { Listo } from '../listo';

/** Past conversations that are looked at: the last so many of so long. */
const MOST = 400;
const SINCE_MS = 90 * 86_400_000;
/** So many are judged before others may have their turn. */
const AT_ONCE = 25;

/** A conversation by its first words; where what was offered was refused and nothing else was found, nothing holds it. */
export type JudgedTalk = JudgedPhrasing & { confidentialTeamId: string | null };

type TalkRow = {
  matterId: string | null;
  confidentialTeamId: string | null;
  language: Language;
  words: string | null;
};

const FOUND_NOTHING = '';

/** Past conversations that came to a matter, or refused all that was offered, as they would be understood now. */
export async function judgePast({ db, clock }: Listo, understanding: Understanding): Promise<JudgedTalk[]> {
  const rows = await db.select<TalkRow>(
    `SELECT t.matterId, t.confidentialTeamId, t.language,
       (SELECT JSON_VALUE(u.said, '$.text') FROM talk_turns u WHERE u.talkId = t.id AND u.isByPerson ORDER BY u.place LIMIT 1) AS words
     FROM talks t WHERE t.startedAt > :since AND (t.matterId IS NOT NULL OR t.endedAt IS NOT NULL
       AND EXISTS (SELECT 1 FROM talk_turns o WHERE o.talkId = t.id AND JSON_VALUE(o.said, '$.say') IN ('confirm', 'choose', 'both'))
       AND EXISTS (SELECT 1 FROM talk_turns n WHERE n.talkId = t.id AND JSON_VALUE(n.said, '$.say') = 'none'))
     ORDER BY t.startedAt DESC LIMIT ${MOST}`,
    { since: clock.now() - SINCE_MS },
  );
  // What has been taken over as a phrasing since is known by heart and says nothing of what is not.
  const learned = new Set(understanding.judged.map(({ text }) => foldText(text)));
  const known = new Set([...understanding.ids, FOUND_NOTHING]);
  const judged: JudgedTalk[] = [];
  for (const [i, { matterId, confidentialTeamId, language, words }] of rows.entries()) {
    if (i % AT_ONCE === AT_ONCE - 1) await setImmediate();
    const id = matterId ?? FOUND_NOTHING;
    if (!words || !known.has(id) || learned.has(foldText(words))) continue;
    judged.push({
      ...{ id, text: words, confidentialTeamId },
      likely: understand(understanding, words, language),
    });
  }
  return judged;
}
