import { Group, Select } from '@mantine/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { ThingMap } from '../../../contract/estate';
import { ARRANGEMENTS, indexNeeds, reach, type Arrangement } from '../../../core/estate';
import { ApiProblem, call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import classes from '../Estate.module.css';
import { EstateFrame } from '../EstateFrame';
import { Shape } from '../ThingRefs';
import { MapCanvas } from './MapCanvas';
import { useReckoned } from './useReckoned';

const WAYS = ['both', 'below', 'above'] as const;
const DEPTHS = ['1', '2', '3', '5', '9'] as const;

/** The same as the drawing, for those who do not see it: each thing with what it needs, the nearest first. */
function AsList({ map, centre }: { map: ThingMap; centre: string }) {
  const { t, local } = useWords();
  const nameOf = new Map(map.things.map(({ id, name }) => [id, name]));
  const walked = { needs: map.needs, index: indexNeeds(map.needs) };
  const steps = new Map(
    (['below', 'above'] as const).flatMap((way) => [...reach(walked, [centre], { way })]).reverse(),
  );
  const ordered = [...map.things].sort((a, b) => (steps.get(a.id) ?? 99) - (steps.get(b.id) ?? 99));
  return (
    <details className={classes.section}>
      <summary>{t('estate/mapAsList')}</summary>
      <ul className={classes.list}>
        {ordered.map(({ id, name, kind, standing, openTickets }) => {
          const of = [...new Set((walked.index.ofThing.get(id) ?? []).flatMap((i) => map.needs[i]!.of))];
          return (
            <li key={id}>
              <Shape standing={standing} />
              <Link to={`/estate/${id}`}>{name}</Link>
              <small>
                {[
                  local(kind),
                  t(`estate/standings/${standing}`),
                  ...(openTickets > 0 ? [t('estate/openTickets', { count: openTickets })] : []),
                  ...(of.length > 0
                    ? [t('estate/onTicket/needs', { names: of.map((each) => nameOf.get(each)).join(', ') })]
                    : []),
                ].join(' · ')}
              </small>
            </li>
          );
        })}
      </ul>
    </details>
  );
}

/** What stands in the address: how it is drawn, which way and how far. */
function useView() {
  const [params, setParams] = useSearchParams();
  const set = (name: string, value: string | null): void =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before);
        next.set(name, value ?? '');
        return next;
      },
      { replace: true },
    );
  const choose = <T extends string>(name: string, all: readonly T[], otherwise: T): T =>
    all.find((each) => each === params.get(name)) ?? otherwise;
  return {
    by: choose<Arrangement>('by', ARRANGEMENTS, 'layers'),
    way: choose('way', WAYS, 'both'),
    depth: choose('depth', DEPTHS, '3'),
    set,
  };
}

function Choices({ by, way, depth, set }: ReturnType<typeof useView>) {
  const { t } = useWords();
  const choose = (name: string, value: string, data: [string, string][], label: string, w: number) => (
    <Select
      {...{ label, w, value, size: 'xs', allowDeselect: false }}
      data={data.map(([each, words]) => ({ value: each, label: words }))}
      onChange={(chosen) => set(name, chosen)}
    />
  );
  return (
    <Group align="end" mb="xs">
      {choose(
        'by',
        by,
        ARRANGEMENTS.map((each) => [each, t(`estate/arrangements/${each}`)]),
        t('estate/seenAs'),
        300,
      )}
      {choose(
        'way',
        way,
        WAYS.map((each) => [each, t(`estate/ways/${each}`)]),
        t('estate/showing'),
        170,
      )}
      {choose(
        'depth',
        depth,
        DEPTHS.map((each) => [each, each]),
        t('estate/depth'),
        120,
      )}
    </Group>
  );
}

/** The map around one thing. */
export function MapPage() {
  const { t } = useWords();
  const id = useParams().id!;
  const navigate = useNavigate();
  const view = useView();
  const { by, way, depth } = view;
  const [pointed, setPointed] = useState<string | null>(null);
  const {
    data: map,
    error,
    refetch,
  } = useQuery({
    queryKey: ['things', 'map', id, way, depth],
    placeholderData: keepPreviousData,
    queryFn: () => call(api.estate.map, { params: { id }, query: { way, depth: Number(depth) } }),
  });
  const { spots, fallen } = useReckoned(map, { by, centre: id, pointed });
  const name = useMemo(() => map?.things.find((thing) => thing.id === id)?.name ?? '', [map, id]);
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  return (
    <EstateFrame title={<Link to={`/estate/${id}`}>{name || '…'}</Link>} lead={t('estate/map')}>
      <Choices {...view} />
      {error && !map && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!map && !error && <Waiting />}
      {map && map.things.length === 1 && <p>{t('estate/nothingNear')}</p>}
      {map && spots && map.things.length > 1 && (
        <>
          <MapCanvas
            {...{ map, spots, pointed, fallen, centre: id }}
            label={t('estate/mapOf', { name })}
            onPoint={setPointed}
            onOpen={(thing) => void navigate(`/estate/${thing}`)}
          />
          {map.isCut && <p className={classes.quiet}>{t('estate/cut')}</p>}
          <AsList map={map} centre={id} />
        </>
      )}
    </EstateFrame>
  );
}
