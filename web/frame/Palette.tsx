import { Spotlight, type SpotlightActionData, type SpotlightActionGroupData } from '@mantine/spotlight';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAskSearch, useFind, useMe } from '../api/queries';
import { isQuestion, useArticleSearch } from '../knowledge/useKnowledge';
import { useWords } from '../messages/useWords';
import { byNearness, nearest } from './nearness';
import { markShown, paletteStore } from './paletteStore';
import { usePlaces } from './usePlaces';

const SETTINGS_SHOWN = 4;
const ARTICLES_SHOWN = 3;
const SERVICES_SHOWN = 4;

type Found = SpotlightActionData & { id: string; names: string[] };
type Group = { group: string; actions: Found[] };

/** Settings that the words lead to, for those who set up; their words come when they are first asked for. */
function useSettings(asked: string) {
  const words = useWords();
  const me = useMe();
  return useQuery({
    queryKey: ['settings', words.language, asked],
    enabled: asked.trim() !== '' && me.areas.includes('workshop'),
    queryFn: async () => (await import('../workshop/find/listFound')).listFound(words, me, asked),
  });
}

/** People, tickets, services and articles that fit; none as long as what is answered was not asked so. */
function useFoundGroups(query: string): { groups: Group[]; isLooking: boolean } {
  const { t, local } = useWords();
  const { areas } = useMe();
  const navigate = useNavigate();
  const [q] = useDebouncedValue(query, 100);
  const isAgent = areas.includes('desk');
  const found = useFind(q);
  const services = useAskSearch(q);
  const articles = useArticleSearch(q, isAgent ? 'desk' : 'ask');
  const settings = useSettings(q);
  const isAsked = query.trim() !== '';
  const answers = isQuestion(q) ? [found, services, articles] : [found, services];
  const isLooking = isAsked && (q !== query || answers.some((answer) => answer.isFetching));
  if (!isAsked || isLooking) return { groups: [], isLooking };
  const go = (to: string) => (): void => void navigate(to);
  return {
    isLooking,
    groups: [
      {
        group: t('palette/tickets'),
        actions: (found.data?.tickets ?? []).map(({ number, title, requester }) => ({
          ...{ id: `t${number}`, label: title, description: `${number} · ${requester}` },
          names: [title, String(number)],
          onClick: go(isAgent ? `/desk/everything/${number}` : `/ask/tickets/${number}`),
        })),
      },
      {
        group: t('palette/people'),
        actions: (found.data?.people ?? []).map(({ id, name, title }) => ({
          ...{ id: `p${id}`, label: t('palette/raiseFor', { name }), description: title, names: [name] },
          onClick: go(isAgent ? `/desk/raise?for=${id}` : `/ask?for=${id}`),
        })),
      },
      {
        group: t('palette/settings'),
        actions: (settings.data ?? []).slice(0, SETTINGS_SHOWN).map(({ id, name, help, to }) => ({
          ...{ id: `c${id}`, label: name, description: help, names: [name] },
          onClick: go(to),
        })),
      },
      {
        group: t('palette/services'),
        actions: (services.data?.services ?? []).slice(0, SERVICES_SHOWN).map(({ id, title, teamName }) => ({
          ...{ id: `s${id}`, label: local(title), description: local(teamName), names: [local(title)] },
          onClick: go(`/ask/services/${id}`),
        })),
      },
      {
        group: t('palette/articles'),
        actions: (isQuestion(q) ? (articles.data ?? []) : [])
          .slice(0, ARTICLES_SHOWN)
          .map(({ id, title }) => ({
            ...{ id: `a${id}`, label: title, names: [title] },
            onClick: go(`/ask/articles/${id}`),
          })),
      },
    ],
  };
}

/** What Enter opens is marked: the first, or what was moved to, also when more is found. */
function useMark(ids: string): { onKeyDown(event: { key: string }): void; onTyped(): void } {
  const hasMoved = useRef(false);
  useEffect(() => {
    markShown((marked) => (hasMoved.current && marked > 0 ? marked : 0));
  }, [ids]);
  return {
    onKeyDown: ({ key }) => {
      if (key === 'ArrowDown' || key === 'ArrowUp') hasMoved.current = true;
    },
    onTyped: () => {
      hasMoved.current = false;
    },
  };
}

/** Finds pages and acts by their names, then tickets, people, services and articles, from anywhere. */
export function Palette() {
  const { t } = useWords();
  const [query, setQuery] = useState('');
  const places = usePlaces();
  const { groups: found, isLooking } = useFoundGroups(query);
  const isNamed = ({ names }: { names: string[] }): boolean => nearest(query, names) === 'exact';
  const all: Group[] = [{ group: t('palette/actions'), actions: byNearness(query, places) }, ...found];
  // What is called exactly so stands on top, whatever it is.
  const groups = [...all]
    .sort((one, other) => Number(other.actions.some(isNamed)) - Number(one.actions.some(isNamed)))
    .map(({ group, actions }) => ({
      group,
      actions: [...actions].sort((one, other) => Number(isNamed(other)) - Number(isNamed(one))),
    }))
    .filter(({ actions }) => actions.length > 0);
  const mark = useMark(groups.flatMap(({ actions }) => actions.map(({ id }) => id)).join());
  return (
    <Spotlight
      store={paletteStore}
      actions={groups.map(({ group, actions }): SpotlightActionGroupData => ({
        group,
        actions: actions.map(({ names: _, ...action }) => action),
      }))}
      query={query}
      onQueryChange={(typed) => {
        mark.onTyped();
        setQuery(typed);
      }}
      filter={(_, actions) => actions}
      nothingFound={t(isLooking ? 'palette/looking' : 'palette/nothing')}
      shortcut="mod+K"
      highlightQuery
      scrollable
      maxHeight={420}
      radius={4}
      searchProps={{
        placeholder: t('frame/find'),
        'aria-label': t('frame/find'),
        onKeyDown: mark.onKeyDown,
      }}
    />
  );
}
