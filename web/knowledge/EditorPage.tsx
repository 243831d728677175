import { useQuery } from '@tanstack/react-query';
import { useParams, useSearchParams } from 'react-router';
import type { ArticleBody } from '../../contract/knowledge';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import { useMe } from '../api/queries';
import { Lost } from '../ui/Lost';
import { ProblemNote } from '../ui/ProblemNote';
import { Waiting } from '../ui/Waiting';
import { ArticleEditor } from './ArticleEditor';
import { KnowledgeFrame } from './KnowledgeFrame';

const NOTHING = { en: '', pt: '' };

/** An article being written: one that is there, a new one, or one begun from how a ticket was solved. */
export function EditorPage() {
  const me = useMe();
  const { id } = useParams();
  const [search] = useSearchParams();
  const ticket = Number(search.get('ticket')) || null;
  const article = useQuery({
    queryKey: ['knowledge', 'article', id],
    enabled: id !== undefined,
    queryFn: () => call(api.knowledge.get, { params: { id: id! } }),
  });
  const begun = useQuery({
    queryKey: ['knowledge', 'draft', ticket],
    enabled: id === undefined && ticket !== null,
    staleTime: Infinity,
    queryFn: () => call(api.knowledge.fromTicket, { params: { number: ticket! } }),
  });
  const error = article.error ?? begun.error;
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  const isReady = id === undefined ? ticket === null || begun.data : article.data;
  const teamId = me.teams[0]?.teamId ?? 'desk';
  const fresh: ArticleBody = {
    ...{ teamId, ownerId: me.id, place: 'desk', labels: [], isOpen: false, audience: [], reviewAt: null },
    ...{ title: NOTHING, body: NOTHING, otherWords: NOTHING, fromTicket: ticket },
    ...(search.get('title') && {
      title: { ...NOTHING, [search.get('language') === 'pt' ? 'pt' : 'en']: search.get('title')! },
    }),
    ...begun.data,
  };
  return (
    <KnowledgeFrame>
      {error && <ProblemNote error={error} />}
      {!isReady && !error && <Waiting />}
      {isReady && (
        <ArticleEditor
          key={id ?? `new ${ticket} ${search.get('title')}`}
          place={id ?? `new:${ticket ?? search.get('title') ?? ''}`}
          fresh={fresh}
          article={article.data ?? null}
        />
      )}
    </KnowledgeFrame>
  );
}
