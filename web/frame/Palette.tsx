import { Spotlight, type SpotlightActionData, type SpotlightActionGroupData } from '@mantine/spotlight';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { GIVEN_NAMES } from '../../core/worklist';
import { foldText } from '../../core/text';
import { useAskSearch, useFind, useMe } from '../api/queries';
import { useArticleSearch } from '../knowledge/useKnowledge';
import { useWords } from '../messages/useWords';
import { listSubjects } from '../workshop/subjects';

const ARTICLES_SHOWN = 3;
const isDesk = (areas: readonly string[]): boolean => areas.includes('desk');

/** Finds people, tickets, articles, services and places to go to, from anywhere. */
export function Palette() {
  const { t, local } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const [query, setQuery] = useState('');
  const [q] = useDebouncedValue(query, 100);
  const { data: found } = useFind(q);
  const { data: services } = useAskSearch(q);
  const { data: articles } = useArticleSearch(q, isDesk(me.areas) ? 'desk' : 'ask');
  const isAgent = isDesk(me.areas);
  const go = (to: string) => (): void => void navigate(to);
  const inDesk = isAgent
    ? GIVEN_NAMES.map((name) => ({
        id: name,
        label: `${t('areas/desk')}: ${t(`worklists/${name}`)}`,
        onClick: go(`/desk/${name}`),
      }))
    : [];
  const inWorkshop = me.areas.includes('workshop')
    ? listSubjects(me).map((subject) => ({
        id: `workshop-${subject}`,
        label: `${t('areas/workshop')}: ${t(`palette/workshop/${subject}`)}`,
        onClick: go(`/workshop/${subject}`),
      }))
    : [];
  const places: SpotlightActionData[] = [
    { id: 'ask', label: t('areas/ask'), onClick: go('/ask') },
    ...(me.hasAssistant
      ? [{ id: 'assistant', label: t('ask/talkAssistant'), onClick: go('/ask/assistant') }]
      : []),
    { id: 'articles', label: t('ask/allArticles'), onClick: go('/ask/articles') },
    { id: 'past', label: t('ask/pastTitle'), onClick: go('/ask/past') },
    { id: 'sessions', label: t('frame/sessions'), onClick: go('/sessions') },
    ...inDesk,
    ...(isAgent
      ? [
          { id: 'raise', label: t('desk/raise'), onClick: go('/desk/raise') },
          { id: 'import', label: t('palette/import'), onClick: go('/desk/import') },
          { id: 'knowledge', label: t('areas/knowledge'), onClick: go('/knowledge') },
        ]
      : []),
    ...inWorkshop,
  ];
  const isAsked = q.trim() !== '';
  const groups: SpotlightActionGroupData[] = [
    {
      group: t('palette/tickets'),
      actions: (isAsked ? (found?.tickets ?? []) : []).map(({ number, title, requester }) => ({
        id: `t${number}`,
        label: title,
        description: `${number} · ${requester}`,
        onClick: go(isAgent ? `/desk/everything/${number}` : `/ask/tickets/${number}`),
      })),
    },
    {
      group: t('palette/services'),
      actions: (isAsked ? (services?.services ?? []) : []).slice(0, 4).map(({ id, title, teamName }) => ({
        id: `s${id}`,
        label: local(title),
        description: local(teamName),
        onClick: go(`/ask/services/${id}`),
      })),
    },
    {
      group: t('palette/articles'),
      actions: (isAsked ? (articles ?? []) : []).slice(0, ARTICLES_SHOWN).map(({ id, title }) => ({
        id: `a${id}`,
        label: title,
        onClick: go(`/ask/articles/${id}`),
      })),
    },
    {
      group: t('palette/people'),
      actions: (isAsked ? (found?.people ?? []) : []).map(({ id, name, title }) => ({
        id: `p${id}`,
        label: t('palette/raiseFor', { name }),
        description: title,
        onClick: go(isAgent ? `/desk/raise?for=${id}` : `/ask?for=${id}`),
      })),
    },
    {
      group: t('palette/actions'),
      actions: places.filter(({ label }) => foldText(label!).includes(foldText(q))),
    },
  ].filter(({ actions }) => actions.length > 0);
  return (
    <Spotlight
      actions={groups}
      query={query}
      onQueryChange={setQuery}
      filter={(_, actions) => actions}
      nothingFound={t('palette/nothing')}
      shortcut="mod+K"
      highlightQuery
      scrollable
      maxHeight={420}
      radius={4}
      searchProps={{ placeholder: t('frame/find'), 'aria-label': t('frame/find') }}
    />
  );
}
