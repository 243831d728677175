import { useNavigate } from 'react-router';
import { PRESENCES } from '../../contract/names';
import { isAgent } from '../../core/rights';
import { GIVEN_NAMES } from '../../core/worklist';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import { listSubjects } from '../workshop/find/subjects';
import { useOwnActs } from './useOwnActs';

/** A page to go to, or an act, by its own name; with the area before it where it stands in one. */
export type Place = { id: string; label: string; names: string[]; onClick(): void };

/** Of those who work at the Desk; administrators read the rest of it. */
const AGENTS_PAGES = {
  ...{ raise: '/desk/raise', conversations: '/desk/conversations', time: '/desk/time' },
} as const;
const DESK_PAGES = { today: '/desk/today', overview: '/desk/conversations/overview' } as const;
const ESTATE_PAGES = { stock: '/estate/stock', estateFigures: '/estate/figures' } as const;
const KNOWLEDGE_PAGES = {
  ...{ health: '/knowledge/health', asked: '/knowledge/asked', synonyms: '/knowledge/words' },
} as const;
const MEASURES_PAGES = {
  boards: '/measures/boards',
  compliance: '/measures/compliance',
  replay: '/measures/replay',
} as const;

/** Every page and act that the person has, those used most first. */
export function usePlaces(): Place[] {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const acts = useOwnActs();
  const has = (area: (typeof me.areas)[number]): boolean => me.areas.includes(area);
  const act = (id: string, label: string, onClick: () => void): Place => ({
    ...{ id, label, onClick, names: [label] },
  });
  const go = (to: string, name: string, area?: string): Place => ({
    ...act(to, area === undefined ? name : `${area}: ${name}`, () => void navigate(to)),
    ...(area !== undefined && { names: [name, `${area}: ${name}`] }),
  });
  const within = (area: string, pages: Record<string, string>): Place[] =>
    Object.entries(pages).map(([page, to]) => go(to, t(`palette/pages/${page}`), area));
  const desk = t('areas/desk');
  return [
    go('/ask', t('areas/ask')),
    ...(me.hasAssistant ? [go('/ask/assistant', t('ask/talkAssistant'))] : []),
    go('/ask/person', t('palette/pages/lines')),
    go('/ask/articles', t('ask/allArticles')),
    go('/ask/past', t('ask/pastTitle')),
    ...(has('desk')
      ? [
          ...within(desk, DESK_PAGES),
          ...(isAgent(me) ? [...within(desk, AGENTS_PAGES), go('/desk/import', t('palette/import'))] : []),
          ...GIVEN_NAMES.map((name) => go(`/desk/${name}`, t(`worklists/${name}`), desk)),
        ]
      : []),
    ...(has('rooms') ? [go('/rooms', t('areas/rooms'))] : []),
    go('/ask/things', t('palette/pages/myThings')),
    ...(has('estate') ? [go('/estate', t('areas/estate')), ...within(t('areas/estate'), ESTATE_PAGES)] : []),
    ...(has('knowledge')
      ? [go('/knowledge', t('areas/knowledge')), ...within(t('areas/knowledge'), KNOWLEDGE_PAGES)]
      : []),
    ...(has('measures') ? within(t('areas/measures'), MEASURES_PAGES) : []),
    ...(has('workshop')
      ? listSubjects(me).map((subject) =>
          go(`/workshop/${subject}`, t(`palette/workshop/${subject}`), t('areas/workshop')),
        )
      : []),
    ...(me.presence === null
      ? []
      : PRESENCES.map((each) => {
          const presence = t(`frame/presence/${each}`);
          const label = t('palette/acts/presence', { presence: presence.toLocaleLowerCase() });
          return { ...act(each, label, () => acts.setPresence(each)), names: [presence, label] };
        })),
    go('/away', t('palette/acts/awayUntil')),
    act('theme', t(acts.isDark ? 'palette/acts/light' : 'palette/acts/dark'), acts.switchTheme),
    act('language', t('palette/acts/language', { language: t('frame/language') }), acts.switchLanguage),
    go('/sessions', t('frame/sessions')),
    act('signOut', t('frame/signOut'), acts.signOut),
  ];
}
