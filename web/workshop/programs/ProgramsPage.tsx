import { Anchor, Button, Group, Table } from '@mantine/core';
import { Link, useParams } from 'react-router';
import type { ProgramView } from '../../../contract/programs';
import { isLive } from '../../../core/programs';
import { useNow } from '../../api/clock';
import { useMe } from '../../api/queries';
import '../../messages/listsWords';
import '../../messages/peopleWords';
import '../../messages/programsWords';
import '../../messages/rulesWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';
import { Keys } from './Keys';
import { ProgramForm } from './ProgramForm';
import { usePrograms } from './usePrograms';
import { Webhooks } from './Webhooks';

/** How an account stands: what it may do, until when, how many of its keys work, when one was last used. */
function useStanding(): (program: ProgramView) => string[] {
  const { t } = useWords();
  const times = useTimes();
  const now = useNow(60_000);
  return ({ isOn, mayChange, endsAt, keys }) => {
    const used = Math.max(0, ...keys.map(({ lastUsedAt }) => lastUsedAt ?? 0));
    const isOver = endsAt !== null && endsAt <= now;
    return [
      isOn ? t(mayChange ? 'programs/changes' : 'programs/reads') : t('programs/off'),
      ...(endsAt === null
        ? []
        : [t(isOver ? 'programs/ended' : 'programs/ends', { when: times.when(endsAt, now) })]),
      t('programs/keysWork', { count: keys.filter((key) => isLive(key, now)).length }),
      used === 0 ? t('programs/neverUsed') : t('programs/used', { when: times.when(used, now) }),
    ];
  };
}

function Row({ program, standing }: { program: ProgramView; standing: string[] }) {
  const { t } = useWords();
  const { id, name, purpose, owner } = program;
  return (
    <Table.Tr>
      <Table.Td>
        <Anchor component={Link} to={`/workshop/programs/${id}`} fw={600}>
          {name}
        </Anchor>
        <small className={classes.small}>{purpose}</small>
      </Table.Td>
      <Table.Td>{standing.join(', ')}</Table.Td>
      <Table.Td>
        {owner && t(owner.hasLeft ? 'programs/askLeft' : 'programs/ask', { name: owner.name })}
      </Table.Td>
    </Table.Tr>
  );
}

function ProgramList({ programs }: { programs: ProgramView[] }) {
  const { t } = useWords();
  const toStanding = useStanding();
  return (
    <>
      <Group mb="md" gap="md">
        <Button size="xs" component={Link} to="/workshop/programs/new">
          {t('programs/new')}
        </Button>
        <Anchor size="sm" component={Link} to="/workshop/programs/calls">
          {t('programs/calls')}
        </Anchor>
        <Anchor size="sm" href="/interface" target="_blank">
          {t('programs/describe')}
        </Anchor>
      </Group>
      {programs.length === 0 && <p>{t('programs/none')}</p>}
      {programs.length > 0 && (
        <Table.ScrollContainer minWidth={560}>
          <Table>
            <Table.Tbody>
              {programs.map((program) => (
                <Row key={program.id} program={program} standing={toStanding(program)} />
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      )}
    </>
  );
}

function One({ programs, id, onReload }: { programs: ProgramView[]; id: string; onReload(): void }) {
  const { t } = useWords();
  const program = programs.find((each) => each.id === id) ?? null;
  if (id !== 'new' && program === null) return <Lost />;
  return (
    <>
      <Anchor component={Link} to="/workshop/programs" size="sm">
        {t('programs/back')}
      </Anchor>
      <h2>{program?.name ?? t('programs/new')}</h2>
      {program && <Keys program={program} />}
      {program && <Webhooks program={program} />}
      <section className={classes.section} aria-labelledby="program-account">
        <h2 id="program-account">{t('programs/account')}</h2>
        <ProgramForm key={`${id} ${program?.version}`} program={program} onReload={onReload} />
      </section>
    </>
  );
}

/** The accounts of other programs; one of them with its keys and what it is told. */
export function ProgramsPage() {
  const { t } = useWords();
  const me = useMe();
  const { id } = useParams();
  const { data, error, refetch } = usePrograms();
  if (!me.isAdministrator) return <Lost />;
  return (
    <WorkshopFrame lead={t('programs/lead')}>
      {error && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data && id === undefined && <ProgramList programs={data} />}
      {data && id !== undefined && <One programs={data} id={id} onReload={() => void refetch()} />}
    </WorkshopFrame>
  );
}
