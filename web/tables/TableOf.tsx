import { Button, Checkbox, Progress, Table } from '@mantine/core';
import { useState } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useDropzone } from 'react-dropzone';
import { Link, useSearchParams } from 'react-router';
import type { Import, ImportKind, ImportProblem, Reading } from '../../contract/imports';
import { guessMapping } from '../../core/imports';
import { guessThingMapping } from '../../core/estate';
import { guessPersonMapping } from '../../core/people';
import { IMPACTS, URGENCIES } from '../../core/tickets';
import { ApiProblem, call } from '../api/call';
import { api } from '../api/endpoints';
import { useDraft } from '../api/useDraft';
import '../messages/importsWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import { useTimes } from '../ui/useTimes';
import { Waiting } from '../ui/Waiting';
import classes from './Tables.module.css';
import { MappingTable, type Mapping } from './MappingTable';

const LOOK_MS = 700;
const PARTED: Record<string, string> = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' };

/** Sending a table. */
function Arrival({ kind, onArrived }: { kind: ImportKind; onArrived(table: Import): void }) {
  const { t } = useWords();
  const send = useMutation({
    mutationFn: (file: File) => {
      const body = new FormData();
      body.append('file', file, file.name);
      return call(api.imports.upload, { query: { kind }, body });
    },
    onSuccess: onArrived,
  });
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    multiple: false,
    onDrop: ([file]) => file && send.mutate(file),
  });
  const line = send.error instanceof ApiProblem ? send.error.problem?.facts?.line : undefined;
  return (
    <div {...getRootProps()} className={classes.drop} data-over={isDragActive || undefined}>
      <input {...getInputProps({ 'aria-label': t('imports/choose') })} />
      {send.isPending ? (
        t('imports/sending', { name: send.variables.name })
      ) : (
        <>
          {t('imports/drop')}{' '}
          <Button variant="default" onClick={open}>
            {t('imports/choose')}
          </Button>
        </>
      )}
      {line !== undefined && <b>{t('imports/badLine', { line: Number(line) })}</b>}
      <ProblemNote error={send.error} />
    </div>
  );
}

function ProblemTable({ problems }: { problems: ImportProblem[] }) {
  const { t } = useWords();
  return (
    <Table className={classes.problems}>
      <Table.Thead>
        <Table.Tr>
          <Table.Th>{t('imports/line')}</Table.Th>
          <Table.Th>{t('imports/fact')}</Table.Th>
          <Table.Th>{t('imports/wrong')}</Table.Th>
          <Table.Th>{t('imports/value')}</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {problems.map(({ line, field, code, value }, i) => (
          <Table.Tr key={i}>
            <Table.Td>{line}</Table.Td>
            <Table.Td>{field && t(`imports/fields/${field}`)}</Table.Td>
            <Table.Td>{t(field ? `imports/codes/${code}` : `problems/${code}`)}</Table.Td>
            <Table.Td>
              <bdi>{value}</bdi>
            </Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}

const GUESS: Record<ImportKind, (headings: string[]) => Mapping> = {
  tickets: guessMapping,
  people: guessPersonMapping,
  things: guessThingMapping,
};

/** The words of the page, for what the table is of. */
function useSaying(kind: ImportKind) {
  const { t } = useWords();
  return (name: string, values?: Record<string, unknown>): string =>
    t(kind === 'tickets' ? `imports/${name}` : `imports/${kind}/${name}`, values);
}

/** What the columns are, checked, and then written. */
function Reader({ table, onStarted }: { table: Import; onStarted(): void }) {
  const { t } = useWords();
  const [mapping, setMapping] = useDraft<Mapping>(`import:${table.id}`, GUESS[table.kind](table.headings));
  const [isInvited, setInvited] = useState(false);
  const say = useSaying(table.kind);
  const named = (group: string, choices: readonly string[]) =>
    Object.fromEntries(choices.map((choice) => [choice, [t(`${group}/${choice}`)]]));
  const reading: Reading = {
    ...{ mapping, isInvited },
    names: { impact: named('impacts', IMPACTS), urgency: named('urgencies', URGENCIES) },
  };
  const params = { id: table.id };
  const check = useMutation({ mutationFn: () => call(api.imports.check, { params, body: reading }) });
  const start = useMutation({
    mutationFn: () => call(api.imports.start, { params, body: reading }),
    onSuccess: onStarted,
  });
  const { data } = check;
  return (
    <>
      <h2>{t('imports/what')}</h2>
      <MappingTable
        {...{ table, mapping }}
        onChange={(changed) => {
          setMapping(changed);
          check.reset();
        }}
      />
      {table.kind === 'people' && (
        <Checkbox
          {...{ mt: 'md', size: 'xs', label: say('isInvited'), checked: isInvited }}
          onChange={({ target }) => setInvited(target.checked)}
        />
      )}
      <div className={classes.deeds}>
        <Button
          variant={data ? 'default' : 'filled'}
          loading={check.isPending}
          onClick={() => check.mutate()}
        >
          {t('imports/check')}
        </Button>
        {data && (
          <span role="status">
            {t('imports/result', { good: data.good, bad: data.bad })}{' '}
            {data.bad > 0 && data.good > 0 && t('imports/leftOut', { count: data.bad })}
          </span>
        )}
        {data && data.good > 0 && (
          <Button loading={start.isPending} onClick={() => start.mutate()}>
            {say('write', { count: data.good })}
          </Button>
        )}
      </div>
      <ProblemNote error={check.error ?? start.error} />
      {data && data.problems.length > 0 && (
        <>
          <ProblemTable problems={data.problems} />
          {data.problems.length >= 500 && <p>{t('imports/firstOf', { count: data.problems.length })}</p>}
        </>
      )}
    </>
  );
}

/** How far writing is. */
function Writing({ table, at, onChanged }: { table: Import; at: Place; onChanged(): void }) {
  const { t } = useWords();
  const say = useSaying(table.kind);
  const { id, state, done, rows, written, refused } = table;
  const stop = useMutation({
    mutationFn: () => call(api.imports.stop, { params: { id } }),
    onSuccess: onChanged,
  });
  const goOn = useMutation({
    mutationFn: () => call(api.imports.goOn, { params: { id } }),
    onSuccess: onChanged,
  });
  return (
    <>
      <Progress value={(100 * done) / rows} aria-label={say('title')} mt="md" />
      <div className={classes.deeds}>
        <span role="status">
          {state === 'done'
            ? say('done', { count: written })
            : state === 'stopped'
              ? say('stopped', { written })
              : say('going', { done, rows, written })}
        </span>
        {state === 'running' && (
          <Button size="xs" variant="default" onClick={() => stop.mutate()}>
            {t('imports/stop')}
          </Button>
        )}
        {state === 'stopped' && (
          <Button size="xs" loading={goOn.isPending} onClick={() => goOn.mutate()}>
            {t('imports/goOn')}
          </Button>
        )}
        {written > 0 && <Link to={at.written}>{t('imports/see')}</Link>}
      </div>
      <ProblemNote error={stop.error ?? goOn.error} />
      {refused.length > 0 && (
        <>
          <h2>{t('imports/refused')}</h2>
          <ProblemTable problems={refused} />
        </>
      )}
    </>
  );
}

/** Those sent before: what was stopped, or left before it was written, is found again. */
function Mine({ at: { kind, page } }: { at: Place }) {
  const { t } = useWords();
  const say = useSaying(kind);
  const times = useTimes();
  const { data = [] } = useQuery({
    queryKey: ['imports', kind],
    queryFn: () => call(api.imports.mine, { query: { kind } }),
  });
  if (data.length === 0) return null;
  return (
    <section aria-label={t('imports/mine')}>
      <h2>{t('imports/mine')}</h2>
      <ul>
        {data.map(({ id, name, at, state, rows, written }) => (
          <li key={id}>
            <Link to={`${page}?id=${id}`}>
              <bdi>{name}</bdi>
            </Link>{' '}
            <small>
              {times.full(at)} · {t('imports/rows', { count: rows })} · {t(`imports/states/${state}`)}
              {written > 0 && ` · ${say('done', { count: written })}`}
            </small>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Of what a table is, its page, and where what was written from it is seen. */
type Place = { kind: ImportKind; page: string; written: string };

/** A table of another program: looked at, mapped, checked row by row, and only then written. */
export function TableOf({ at }: { at: Place }) {
  const { t } = useWords();
  const client = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const id = search.get('id');
  const queryKey = ['import', id];
  const { data, error, isPending } = useQuery({
    queryKey,
    enabled: id !== null,
    queryFn: () => call(api.imports.get, { params: { id: id! } }),
    refetchInterval: ({ state }) => (state.data?.state === 'running' ? LOOK_MS : false),
  });
  const look = (): void => void client.invalidateQueries({ queryKey });
  return (
    <>
      {id === null ? (
        <>
          <Arrival kind={at.kind} onArrived={(table) => setSearch({ id: table.id })} />
          <Mine at={at} />
        </>
      ) : error ? (
        <ProblemNote error={error} />
      ) : isPending ? (
        <Waiting />
      ) : (
        <>
          <p>
            <bdi>
              {t('imports/about', {
                ...{ name: data.name, rows: t('imports/rows', { count: data.rows }) },
                encoding: data.encoding.toUpperCase(),
                delimiter: t(`imports/${PARTED[data.delimiter] ?? 'comma'}`),
              })}
            </bdi>{' '}
            <Button size="compact-xs" variant="subtle" onClick={() => setSearch({})}>
              {t('imports/another')}
            </Button>
          </p>
          {data.state === 'arrived' ? (
            <Reader table={data} onStarted={look} />
          ) : (
            <Writing table={data} at={at} onChanged={look} />
          )}
        </>
      )}
    </>
  );
}
