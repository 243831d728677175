import { useDeferredValue } from 'react';
import { Link } from 'react-router';
import { useAskSearch, useMe } from '../../api/queries';
import { Passage } from '../../knowledge/Passage';
import { useFoundArticles } from '../../knowledge/useKnowledge';
import { useWords } from '../../messages/useWords';
import classes from './Home.module.css';
import { ServiceIcon } from '../../ui/ServiceIcon';
import { useServiceLine } from './useServiceLine';

const ARTICLES_SHOWN = 4;

/** What fits the words typed so far, in kinds. */
export function Results({ query, forPerson }: { query: string; forPerson: string | null }) {
  const me = useMe();
  const { t, local } = useWords();
  const lineOf = useServiceLine();
  const asked = useDeferredValue(query.trim());
  const { data } = useAskSearch(asked, forPerson);
  const articles = useFoundArticles(asked, 'ask')?.slice(0, ARTICLES_SHOWN);
  const services = data?.services ?? [];
  const suffix = new URLSearchParams({
    title: query.trim(),
    ...(forPerson && { for: forPerson }),
  }).toString();
  return (
    <div className={classes.results} aria-live="polite">
      <section className={classes.kind}>
        <h2>{t('ask/helpYourself')}</h2>
        {articles?.length === 0 && <p className={classes.quiet}>{t('ask/noAnswer')}</p>}
        {articles?.map(({ id, title, passage, helped, judged }) => (
          <Link key={id} className={classes.found} to={`/ask/articles/${id}`}>
            <strong>{title}</strong>
            <small>
              <Passage parts={passage} />
              {judged > 0 && ` ${t('ask/helped', { helped, judged })}`}
            </small>
          </Link>
        ))}
      </section>
      <section className={classes.kind}>
        <h2>{t('ask/askForIt')}</h2>
        {data && services.length === 0 && <p className={classes.quiet}>{t('ask/nothingFits')}</p>}
        {services.map((service) => (
          <Link key={service.id} className={classes.found} to={`/ask/services/${service.id}?${suffix}`}>
            <strong>
              <ServiceIcon name={service.icon} /> {local(service.title)}
            </strong>
            <small>{lineOf(service)}</small>
          </Link>
        ))}
      </section>
      {me.hasAssistant && (
        <section className={classes.kind}>
          <h2>{t('ask/talk')}</h2>
          <Link
            className={classes.found}
            to={`/ask/assistant?${new URLSearchParams({ say: asked }).toString()}`}
          >
            <strong>{t('ask/talkAssistant')}</strong>
          </Link>
        </section>
      )}
    </div>
  );
}
