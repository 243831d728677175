import { Button, Group, Progress, Table } from '@mantine/core';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Replay, ReplayResult } from '../../contract/compliance';
import { GROUPINGS } from '../../contract/complianceNames';
import type { Target } from '../../contract/targets';
import { toDefinition, toSentence, type TargetDefinition } from '../../core/targets';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { api } from '../api/endpoints';
import { useTeams } from '../api/queries';
import '../messages/measuresWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import { TargetForm } from '../workshop/promises/TargetForm';
import { useTargetErrors, useTeamCalendars } from '../workshop/promises/TargetPage';
import { useTargets } from '../workshop/queries';
import { Bar, showShare } from './Bars';
import { MeasuresFrame } from './Frame';
import workshop from '../workshop/Workshop.module.css';
import classes from './Measures.module.css';
import { usePeriod } from './usePeriod';

const LOOK_MS = 400;

function Parts({ result }: { result: ReplayResult }) {
  const { t } = useWords();
  return (
    <div className={classes.parts}>
      {GROUPINGS.map((by) => (
        <section key={by}>
          <h2>{t(`measures/by/${by}`)}</h2>
          <ul className={classes.both}>
            {result.groups[by].map(({ key, name, before, after }) => (
              <li key={key}>
                <span>{by === 'kind' ? t(`measures/kinds/${name}`) : name}</span>
                <span>
                  <Bar tally={before} />
                  <Bar tally={after} />
                </span>
                <span>
                  {showShare(before.share)}
                  <br />
                  <b>{showShare(after.share)}</b>
                </span>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </div>
  );
}

function Result({ result }: { result: ReplayResult }) {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  const { tickets, clocks, all, changed, flips, ms } = result;
  const standing = (value: string | null): string =>
    t(value === null ? 'measures/nothing' : `measures/standings/${value}`);
  const when = (at: number | null): string => (at === null ? '–' : times.when(at, now));
  return (
    <div role="status">
      <div className={classes.total}>
        <strong>
          {showShare(all.before.share)} → {showShare(all.after.share)}
        </strong>
        <div>
          <small>{t('measures/before')}</small>
          <Bar tally={all.before} />
          <small>{t('measures/after')}</small>
          <Bar tally={all.after} />
        </div>
      </div>
      <p>
        {changed === 0 ? t('measures/unchanged') : t('measures/changed', { count: changed })}{' '}
        {t('measures/result', { tickets, clocks, seconds: (ms / 1000).toFixed(1) })}
      </p>
      <Parts result={result} />
      {flips.length > 0 && (
        <section>
          <h2>{t('measures/flips')}</h2>
          <Table verticalSpacing={4}>
            <Table.Thead>
              <Table.Tr>
                {['ticket', 'target', 'flip', 'due'].map((name) => (
                  <Table.Th key={name}>{t(`measures/${name}`)}</Table.Th>
                ))}
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {flips.map(({ number, title, target, before, after, dueBefore, dueAfter }) => (
                <Table.Tr key={`${number} ${target}`}>
                  <Table.Td>
                    <Link to={`/desk/everything/${number}`}>
                      {number} <bdi>{title}</bdi>
                    </Link>
                  </Table.Td>
                  <Table.Td>{target}</Table.Td>
                  <Table.Td>
                    {standing(before)} → {standing(after)}
                  </Table.Td>
                  <Table.Td>
                    {when(dueBefore)} → {when(dueAfter)}
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </section>
      )}
    </div>
  );
}

function Going({ replay, onStop }: { replay: Replay; onStop(): void }) {
  const { t } = useWords();
  if (replay.state === 'failed') return <p role="alert">{t('measures/failed')}</p>;
  if (replay.state === 'stopped') return <p role="status">{t('measures/stopped')}</p>;
  if (replay.result) return <Result result={replay.result} />;
  return (
    <div>
      <p role="status">{t('measures/going', { done: replay.done, total: replay.total })}</p>
      <Progress
        value={replay.total === 0 ? 0 : (100 * replay.done) / replay.total}
        aria-label={t('measures/run')}
      />
      <Button mt="sm" variant="default" onClick={onStop}>
        {t('measures/stop')}
      </Button>
    </div>
  );
}

type What = { target: Target; teamCalendars: TargetDefinition['calendars']; from: number; to: number };

function WhatIf({ target, teamCalendars, from, to }: What) {
  const { t } = useWords();
  const [sentence, setSentence] = useState(() => toSentence(target.definition, teamCalendars));
  const definition = toDefinition(sentence, target.definition, teamCalendars);
  const errors = useTargetErrors()(definition);
  const start = useMutation({
    mutationFn: () =>
      call(api.compliance.replay, {
        body: { from, to, targets: [{ id: target.id, definition }], calendars: {} },
      }),
  });
  const id = start.data?.id;
  const { data: replay, refetch } = useQuery({
    queryKey: ['replay', id],
    enabled: id !== undefined,
    refetchInterval: ({ state }) => (state.data && state.data.state !== 'running' ? false : LOOK_MS),
    queryFn: () => call(api.compliance.replayOf, { params: { id: id! } }),
  });
  const stop = useMutation({
    mutationFn: () => call(api.compliance.stopReplay, { params: { id: id! } }),
    onSettled: () => refetch(),
  });
  return (
    <div className={classes.whatIf}>
      <div>
        <TargetForm sentence={sentence} errors={errors} onChange={setSentence} />
        <ProblemNote error={start.error} />
        <Group mt="md">
          <Button
            loading={start.isPending || replay?.state === 'running'}
            disabled={Object.keys(errors).length > 0}
            onClick={() => start.mutate()}
          >
            {t('measures/run')}
          </Button>
        </Group>
      </div>
      <div>
        {replay ? <Going replay={replay} onStop={() => stop.mutate()} /> : id !== undefined && <Waiting />}
      </div>
    </div>
  );
}

/** What would have become of the real tickets under another promise. */
export function ReplayPage() {
  const { t } = useWords();
  const period = usePeriod();
  const { data: targets, error } = useTargets();
  const { data: teams } = useTeams();
  const teamCalendars = useTeamCalendars();
  const target = targets?.find(({ id }) => id === period.targetId) ?? targets?.[0];
  const { from, to } = period;
  return (
    <MeasuresFrame period={period}>
      <p className={workshop.lead}>{t('measures/what')}</p>
      <ProblemNote error={error} />
      {(!target || !teams) && !error && <Waiting />}
      {target && teams && <WhatIf key={target.id} {...{ target, teamCalendars, from, to }} />}
    </MeasuresFrame>
  );
}
