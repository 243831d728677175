import { LOCALES, type Language, type LocalText } from '../../core/forms';
import type { ReadyBlank } from '../../core/readyTexts';
import { fillBlanks } from '../../core/text';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import { NOTHING_DUE } from '../tickets/model';
import type { Viewing } from '../unitOfWork';

type Facts = {
  number: number;
  title: string;
  place: string;
  tightestDueAt: number;
  requester: string;
  language: Language;
  service: LocalText;
  team: LocalText;
  timeZone: string;
};

function whenOf({ tightestDueAt, language, timeZone }: Facts): string {
  if (tightestDueAt === NOTHING_DUE) return '–';
  return new Intl.DateTimeFormat(LOCALES[language], {
    ...{ weekday: 'long', day: 'numeric', month: 'long', hour: '2-digit', minute: '2-digit', timeZone },
  }).format(tightestDueAt);
}

/** What a ticket says in the blanks of ready texts, in its requester's language and at their hour. */
async function readBlanks(
  listo: Listo,
  viewer: SignedIn,
  number: number,
): Promise<{ language: Language; blanks: Record<ReadyBlank, string> }> {
  const [facts] = await listo.db.select<Facts>(
    `SELECT t.number, t.title, t.place, t.tightestDueAt, p.name AS requester, p.language, s.title AS service, tm.name AS team, si.timeZone
     FROM tickets t JOIN people p ON p.id = t.requesterId JOIN sites si ON si.id = p.siteId JOIN services s ON s.id = t.serviceId
     JOIN teams tm ON tm.id = t.teamId WHERE t.number = :number`,
    { number },
  );
  const { language } = facts!;
  const blanks = {
    name: facts!.requester.replace(/^Capt\. /, '').split(' ')[0]!,
    number: String(number),
    title: facts!.title,
    place: facts!.place,
    service: facts!.service[language],
    team: facts!.team[language],
    me: viewer.name,
    due: whenOf(facts!),
  };
  return { language, blanks };
}

/** A text with its blanks filled for a ticket. */
export async function fillReadyText(
  { listo, viewer }: Viewing,
  number: number,
  text: string,
): Promise<string> {
  const { blanks } = await readBlanks(listo, viewer, number);
  return fillBlanks(text, blanks);
}

/** Texts in the language of a ticket's requester, with their blanks filled. */
export async function fillReadyTexts<T extends { text: LocalText }>(
  { listo, viewer }: Viewing,
  number: number,
  texts: T[],
): Promise<(Omit<T, 'text'> & { text: string })[]> {
  const { blanks, language } = await readBlanks(listo, viewer, number);
  const other: Language = language === 'en' ? 'pt' : 'en';
  return texts.map(({ text, ...rest }) => ({
    ...rest,
    text: fillBlanks(text[language].trim() === '' ? text[other] : text[language], blanks),
  }));
}
