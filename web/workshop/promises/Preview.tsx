import { Button, Group, TextInput, UnstyledButton } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import type { TargetDefinition } from '../../../core/targets';
import { call } from '../../api/call';
import { useNow } from '../../api/clock';
import { api } from '../../api/endpoints';
import '../../messages/measuresWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import classes from './Promises.module.css';

const MINUTE = 60_000;
const SUGGESTED = 6;
const isNumber = (text: string): boolean => /^\s*\d{1,9}\s*$/.test(text);
const KINDS = ['counted', 'held', 'outsideHours', 'notCounted'] as const;

/** A real ticket's clock, drawn along its history under a definition that is not saved yet. */
export function Preview({ definition }: { definition: TargetDefinition }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(MINUTE);
  const [typed, setTyped] = useState('');
  const [words] = useDebouncedValue(typed.trim(), 150);
  const { data: found } = useQuery({
    queryKey: ['find', words],
    enabled: words.length > 1,
    placeholderData: keepPreviousData,
    queryFn: () => call(api.tickets.find, { query: { q: words.slice(0, 100) } }),
  });
  const [number, setNumber] = useState<number | null>(null);
  const [asked] = useDebouncedValue(definition, 250);
  const { data, error } = useQuery({
    queryKey: ['targetPreview', number, asked],
    enabled: number !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () => call(api.targets.preview, { body: { definition: asked, number: number! } }),
  });
  const first = data?.rows[0]?.from ?? 0;
  const last = Math.max(data?.rows.at(-1)?.to ?? 1, data?.dueAt ?? 0);
  const share = (at: number): number => (100 * (at - first)) / Math.max(1, last - first);
  const span = (ms: number): string => times.span(ms / MINUTE);
  return (
    <section className={classes.preview} aria-label={t('measures/edit/preview')}>
      <h2>{t('measures/edit/preview')}</h2>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isNumber(typed)) setNumber(Number(typed));
        }}
      >
        <Group gap="xs" align="flex-end">
          <TextInput
            size="xs"
            w={300}
            label={t('measures/edit/number')}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
          />
          <Button type="submit" size="xs" variant="default" disabled={!isNumber(typed)}>
            {t('measures/edit/show')}
          </Button>
        </Group>
      </form>
      {words !== String(number ?? '') && (
        <ul className={classes.suggested}>
          {found?.tickets.slice(0, SUGGESTED).map((ticket) => (
            <li key={ticket.number}>
              <UnstyledButton
                onClick={() => {
                  setTyped(String(ticket.number));
                  setNumber(ticket.number);
                }}
              >
                {ticket.number} <bdi>{ticket.title}</bdi>
              </UnstyledButton>
            </li>
          ))}
        </ul>
      )}
      <ProblemNote error={error} />
      {data && !error && (
        <>
          <p>
            <b>
              <bdi>{data.title}</bdi>
            </b>
            <br />
            {data.state === 'running' && data.breachedAt !== null
              ? t('measures/edit/lateNow')
              : t(`measures/edit/states/${data.state}`)}{' '}
            {data.limit === null
              ? t('measures/edit/usedNoLimit', { used: span(data.elapsed) })
              : t('measures/edit/usedOf', { used: span(data.elapsed), limit: span(data.limit) })}
            {data.dueAt !== null && ` · ${t('measures/due')} ${times.when(data.dueAt, now)}`}
          </p>
          <div className={classes.track} role="img" aria-label={t(`measures/edit/states/${data.state}`)}>
            {data.rows.map(({ from, to, kind }) => (
              <i
                key={from}
                data-kind={kind}
                style={{ insetInlineStart: `${share(from)}%`, width: `${share(to) - share(from)}%` }}
              />
            ))}
            {data.dueAt !== null && <em style={{ insetInlineStart: `${share(data.dueAt)}%` }} />}
          </div>
          <p className={classes.legend}>
            {KINDS.map((kind) => (
              <span key={kind}>
                <i data-kind={kind} /> {t(`measures/edit/legend/${kind}`)}
              </span>
            ))}
          </p>
          <ol className={classes.spans}>
            {data.rows.map(({ from, kind, worked, total }) => (
              <li key={from}>
                <span>{times.when(from, now)}</span> {t(`measures/edit/legend/${kind}`)}
                <span>{worked > 0 && kind === 'counted' ? `${span(worked)} → ${span(total)}` : ''}</span>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
