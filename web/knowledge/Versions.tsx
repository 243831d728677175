import { useQuery } from '@tanstack/react-query';
import { diffWordsWithSpace } from 'diff';
import type { Language } from '../../core/forms';
import { inLanguage } from '../../core/knowledge';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useWords } from '../messages/useWords';
import { useTimes } from '../ui/useTimes';
import classes from './Knowledge.module.css';

/** What was published before, each with what it changed. */
export function Versions({ id, language }: { id: string; language: Language }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { data = [] } = useQuery({
    queryKey: ['knowledge', 'article', id, 'versions'],
    queryFn: () => call(api.knowledge.versions, { params: { id } }),
  });
  if (data.length === 0) return null;
  const textOf = ({ title, body }: (typeof data)[number]): string =>
    `${inLanguage(title, language)}\n\n${inLanguage(body, language)}`;
  return (
    <section className={classes.section}>
      <h2>{t('knowledge/versions')}</h2>
      {data.map((each, i) => {
        const before = data[i + 1];
        return (
          <details key={each.version} className={classes.version}>
            <summary>
              {t('knowledge/versionLine', {
                version: each.version,
                when: times.when(each.at, now),
                who: each.by?.name ?? '',
              })}
            </summary>
            {before ? (
              <pre>
                {diffWordsWithSpace(textOf(before), textOf(each)).map(({ value, added, removed }, at) =>
                  added ? <ins key={at}>{value}</ins> : removed ? <del key={at}>{value}</del> : value,
                )}
              </pre>
            ) : (
              <p className={classes.quiet}>{t('knowledge/versionFirst')}</p>
            )}
          </details>
        );
      })}
    </section>
  );
}
