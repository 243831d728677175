import { listServices } from '../catalogue/services';
import type { Turn } from '../../core/assistant';
import type { Language, LocalText } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { fillBlanks } from '../../core/text';
import { findArticles } from '../knowledge/find';
import { readArticle } from '../knowledge/read';
import { ProblemError } from '../http/problems';
import type { Listo } from '../listo';
import type { SignedIn } from '../sessions/viewer';
import type { Learned } from './learned';
import type { MatterRow, Said } from './model';

const PASSAGES = 3;
const TICKETS = 5;

function toChoices(learned: Learned, ids: string[], language: Language): Said['choices'] {
  return ids.flatMap((id) => {
    const matter = learned.matters.find((each) => each.id === id);
    return matter ? [{ id, name: inLanguage(matter.name, language) }] : [];
  });
}

/** All teams of which the person may ask for something, those whose matters are likelier first. */
async function listTeams(
  listo: Listo,
  { viewer, learned, likely }: Omit<Context, 'said'>,
): Promise<Said['choices']> {
  const { db } = listo;
  const [services, teams, theirs] = await Promise.all([
    db.tables.services.find({}, { attributes: ['id', 'teamId'] }),
    db.tables.teams.find({}),
    listServices(listo, viewer.id),
  ]);
  const mayAsk = new Set(theirs.map(({ id }) => id));
  const worth = new Map<string, number>();
  for (const { id, teamId } of services) if (mayAsk.has(id)) worth.set(teamId, 0);
  for (const { id, sureness } of likely) {
    const matter = learned.matters.find((each) => each.id === id);
    const teamId = services.find((service) => service.id === matter?.serviceId)?.teamId;
    if (teamId && worth.has(teamId)) worth.set(teamId, worth.get(teamId)! + sureness);
  }
  return [...worth]
    .sort(([, one], [, other]) => other - one)
    .flatMap(([id]) => {
      const team = teams.find((each) => each.id === id);
      return team ? [{ id, name: inLanguage(team.name, viewer.language) }] : [];
    });
}

type Context = {
  viewer: SignedIn;
  learned: Learned;
  said: string[];
  likely: { id: string | null; sureness: number }[];
};

/** What is shown of a turn of the assistant; what has gone since is passed over. */
export async function showTurn(
  listo: Listo,
  turn: Extract<Turn, { say: string }>,
  { viewer, learned, said, likely }: Context,
): Promise<Said | null> {
  const { language } = viewer;
  switch (turn.say) {
    case 'confirm': {
      const matter = learned.matters.find(({ id }) => id === turn.matterIds[0]);
      const question = matter ? inLanguage(matter.question, language) : '';
      return {
        say: 'confirm',
        choices: toChoices(learned, turn.matterIds, language),
        ...(question.trim() !== '' && { text: question }),
      };
    }
    case 'choose':
    case 'both':
    case 'other':
      return { say: turn.say, choices: toChoices(learned, turn.matterIds, language) };
    case 'text':
      return {
        say: 'text',
        text: fillBlanks(inLanguage(turn.text, language), { name: viewer.name.split(' ')[0]! }),
      };
    case 'question':
      return {
        say: 'question',
        text: inLanguage(turn.text, language),
        choices: turn.choices.map((choice) => ({
          id: inLanguage(choice, language),
          name: inLanguage(choice, language),
        })),
      };
    case 'article':
      return showArticle(listo, viewer, turn.articleId);
    case 'passages': {
      const articles = (await findArticles(listo, viewer, { q: said.join(' ') })).slice(0, PASSAGES);
      return { say: 'passages', articles };
    }
    case 'teams':
      return { say: 'teams', choices: await listTeams(listo, { viewer, learned, likely }) };
    case 'form':
      return { say: 'form', serviceId: turn.serviceId };
    case 'state': {
      const tickets = await listo.db.select<{ number: number; title: string; state: string }>(
        `SELECT number, title, state FROM tickets WHERE requesterId = :personId AND serviceId = :serviceId
         AND state IN ('received', 'inWork', 'held', 'done') ORDER BY number DESC LIMIT ${TICKETS}`,
        { personId: viewer.id, serviceId: turn.serviceId },
      );
      return { say: 'state', tickets };
    }
    default:
      return { say: turn.say };
  }
}

async function showArticle(listo: Listo, viewer: SignedIn, id: string): Promise<Said | null> {
  try {
    const { title, body, helped, judged } = await readArticle(listo, viewer, { id });
    return { say: 'article', text: body, articles: [{ id, title, passage: [], helped, judged }] };
  } catch (error) {
    // It was retired, or is not for this person: the matter goes on without it.
    if (error instanceof ProblemError && error.problem === 'notFound') return null;
    throw error;
  }
}

/** What is said before a confidential matter asks anything: what is kept, and who can read it. */
export async function showConfidential(
  { db }: Listo,
  matter: MatterRow,
  language: Language,
): Promise<Said | null> {
  const [team] = await db.select<{ name: LocalText; isConfidential: number }>(
    'SELECT t.name, t.isConfidential FROM services s JOIN teams t ON t.id = s.teamId WHERE s.id = :id',
    { id: matter.serviceId },
  );
  return team?.isConfidential ? { say: 'confidential', text: inLanguage(team.name, language) } : null;
}
