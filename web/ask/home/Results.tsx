import { useDeferredValue } from 'react';
import { Link } from 'react-router';
import { useAskSearch } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import classes from './Home.module.css';
import { useServiceLine } from './useServiceLine';

/** What fits the words typed so far, in kinds. */
export function Results({ query, forPerson }: { query: string; forPerson: string | null }) {
  const { t, local } = useWords();
  const lineOf = useServiceLine();
  const { data } = useAskSearch(useDeferredValue(query.trim()));
  const services = data?.services ?? [];
  const suffix = new URLSearchParams({
    title: query.trim(),
    ...(forPerson && { for: forPerson }),
  }).toString();
  return (
    <div className={classes.results} aria-live="polite">
      <section className={classes.kind}>
        <h2>{t('ask/askForIt')}</h2>
        {data && services.length === 0 && <p className={classes.quiet}>{t('ask/nothingFits')}</p>}
        {services.map((service) => (
          <Link key={service.id} className={classes.found} to={`/ask/services/${service.id}?${suffix}`}>
            <strong>{local(service.title)}</strong>
            <small>{lineOf(service)}</small>
          </Link>
        ))}
      </section>
      <section className={classes.kind}>
        <h2>{t('ask/helpYourself')}</h2>
        <p className={classes.quiet}>{t('ask/helpSoon')}</p>
      </section>
    </div>
  );
}
