import { Button, Group } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import knowledge from '../../knowledge/Knowledge.module.css';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';

const percent = (share: number): string => `${Math.round(100 * share)} %`;

/** How sure it may be, what it takes for each other, and what it heard. */
export function Insight() {
  const { t } = useWords();
  const client = useQueryClient();
  const { data, error, refetch } = useQuery({
    queryKey: ['matters', 'insight'],
    queryFn: () => call(api.assistant.insight),
  });
  const onSettled = () => client.invalidateQueries({ queryKey: ['matters'] });
  const choose = useMutation({
    mutationFn: (wanted: number) => call(api.assistant.setWanted, { body: { wanted } }),
    onSettled,
  });
  const judge = useMutation({
    mutationFn: ({ id, accept }: { id: number; accept: boolean }) =>
      call(api.assistant.judgeHeard, { params: { id }, body: { accept }, key: nanoid() }),
    onSettled,
  });
  if (error && !data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  if (!data) return <Waiting />;
  return (
    <div>
      <section className={knowledge.section}>
        <h2>{t('assistant/workshop/wanted')}</h2>
        <p className={knowledge.quiet}>
          {t('assistant/workshop/wantedHelp')}
          {data.pastTalks > 0 && ` ${t('assistant/workshop/pastHelp', { count: data.pastTalks })}`}{' '}
          {data.goesByTalks
            ? t('assistant/workshop/goesByTalks')
            : t('assistant/workshop/goesByPhrasings', { count: data.leastTalks })}
        </p>
        <table className={knowledge.rows} style={{ maxWidth: 720 }}>
          <thead>
            <tr>
              {(['wanted', 'offered', 'held', 'size', 'single'] as const).map((column) => (
                <th key={column} data-number>
                  {t(`assistant/workshop/wantedRow/${column}`)}
                </th>
              ))}
              {data.pastTalks > 0 &&
                (['offered', 'held', 'single'] as const).map((column) => (
                  <th key={column} data-number>
                    {t(`assistant/workshop/pastRow/${column}`)}
                  </th>
                ))}
              <th />
            </tr>
          </thead>
          <tbody>
            {data.choices.map(({ wanted, offered, held, size, single, past }) => (
              <tr key={wanted}>
                <td data-number>
                  <b>{percent(wanted)}</b>
                </td>
                <td data-number>{percent(offered)}</td>
                <td data-number>{percent(held)}</td>
                <td data-number>{size.toFixed(2)}</td>
                <td data-number>{percent(single)}</td>
                {data.pastTalks > 0 && (
                  <>
                    <td data-number>{percent(past.offered)}</td>
                    <td data-number>{percent(past.held)}</td>
                    <td data-number>{percent(past.single)}</td>
                  </>
                )}
                <td data-number>
                  {wanted === data.wanted ? (
                    t('assistant/workshop/chosen')
                  ) : (
                    <Button
                      size="compact-xs"
                      variant="default"
                      loading={choose.isPending && choose.variables === wanted}
                      onClick={() => choose.mutate(wanted)}
                    >
                      {t('assistant/workshop/choose')}
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      <div className={knowledge.split}>
        <section className={knowledge.section}>
          <h2>{t('assistant/workshop/confusions')}</h2>
          {data.confusions.length === 0 && <p>{t('assistant/workshop/noConfusions')}</p>}
          <table className={knowledge.rows}>
            <tbody>
              {data.confusions.map(({ name, takenFor, phrasings }) => (
                <tr key={`${name} ${takenFor}`}>
                  <td>
                    {t('assistant/workshop/confusionLine', {
                      name,
                      other: takenFor ?? t('assistant/workshop/elsewhere'),
                    })}
                    <div className={knowledge.quiet}>{phrasings.join(' · ')}</div>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {data.doubles.length > 0 && <p role="alert">{t('assistant/workshop/doubles')}</p>}
          {data.doubles.map(({ text, names }) => (
            <p key={text} className={knowledge.quiet}>
              <b>{text}</b>: {names.join(', ')}
            </p>
          ))}
        </section>
        <section className={knowledge.section}>
          <h2>{t('assistant/workshop/heard')}</h2>
          {data.heard.length === 0 && <p>{t('assistant/workshop/noHeard')}</p>}
          {judge.error && <ProblemNote error={judge.error} />}
          <table className={knowledge.rows}>
            <tbody>
              {data.heard.map(({ id, text, language, name, isRight }) => (
                <tr key={id}>
                  <td>
                    <span lang={language}>{text}</span>
                    <div className={knowledge.quiet}>
                      {t(isRight ? 'assistant/workshop/heardRight' : 'assistant/workshop/heardWrong', {
                        name,
                      })}
                    </div>
                  </td>
                  <td data-number>
                    <Group gap={4} wrap="nowrap" justify="flex-end">
                      {isRight && (
                        <Button
                          size="compact-xs"
                          aria-label={`${t('assistant/workshop/accept')}: ${text}`}
                          onClick={() => judge.mutate({ id, accept: true })}
                        >
                          {t('assistant/workshop/accept')}
                        </Button>
                      )}
                      <Button
                        size="compact-xs"
                        variant="default"
                        aria-label={`${t('assistant/workshop/refuse')}: ${text}`}
                        onClick={() => judge.mutate({ id, accept: false })}
                      >
                        {t('assistant/workshop/refuse')}
                      </Button>
                    </Group>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      </div>
    </div>
  );
}
