import { useDeferredValue, useState } from 'react';
import { useNavigate } from 'react-router';
import { ArticleText } from '../../knowledge/ArticleText';
import { Judge } from '../../knowledge/Judge';
import { Passage } from '../../knowledge/Passage';
import { useArticle, useFoundArticles } from '../../knowledge/useKnowledge';
import '../../messages/knowledgeWords';
import { useWords } from '../../messages/useWords';
import classes from './Fitting.module.css';

const SHOWN = 3;

function InPlace({ id, onSolved }: { id: string; onSolved(): void }) {
  const { data } = useArticle(id);
  if (!data) return null;
  return (
    <div className={classes.text}>
      <ArticleText body={data.body} lang={data.language}>
        <Judge isInstead articleId={id} door="form" onHelped={onSolved} />
      </ArticleText>
    </div>
  );
}

/** Articles that may answer what is being written, read in place: one that was it ends the request. */
export function Fitting({
  words,
  serviceId,
  onSolved,
}: {
  words: string;
  serviceId: string;
  onSolved(): void;
}) {
  const { t } = useWords();
  const navigate = useNavigate();
  const [opened, setOpened] = useState<string | null>(null);
  const found =
    useFoundArticles(useDeferredValue(words.trim()), 'form', { service: serviceId })?.slice(0, SHOWN) ?? [];
  if (found.length === 0) return null;
  return (
    <aside className={classes.fitting} aria-label={t('knowledge/fits')}>
      <strong>{t('knowledge/fits')}</strong>
      {found.map(({ id, title, passage }) => (
        <div key={id}>
          <button
            type="button"
            aria-expanded={opened === id}
            onClick={() => setOpened(opened === id ? null : id)}
          >
            {title}
          </button>
          {opened === id ? (
            <InPlace
              id={id}
              onSolved={() => {
                onSolved();
                void navigate('/ask');
              }}
            />
          ) : (
            <small>
              <Passage parts={passage} />
            </small>
          )}
        </div>
      ))}
    </aside>
  );
}
