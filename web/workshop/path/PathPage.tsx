import { Anchor, Button } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { listSetup, nextOf, type SetupPart, type SetupStep } from '../../../core/setup';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import '../../messages/setupWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { listSubjects, type Subject } from '../find/subjects';
import { WorkshopFrame } from '../WorkshopFrame';
import classes from './Path.module.css';
import { SettingFinder } from '../find/SettingFinder';

/** On which page a part is made and changed. */
const PAGES: Record<SetupPart, Subject | null> = {
  ...{ calendars: 'calendars', sites: 'hours', people: 'people', teams: 'hours', services: 'services' },
  ...{ targets: 'promises', routing: 'routing', procedures: 'procedures', mail: 'mail', chat: 'chat' },
  ...{ things: 'things', lines: 'lines', knowledge: null, assistant: 'assistant', rules: 'rules' },
  ...{ programs: 'programs', records: 'records' },
};
const addressOf = (part: SetupPart): string =>
  PAGES[part] === null ? '/knowledge' : `/workshop/${PAGES[part]}`;

function Step({ step, isNext }: { step: SetupStep; isNext: boolean }) {
  const { t } = useWords();
  const { part, state, waitsFor, canWait, there, lacks } = step;
  const says = (count: string, number: number): string => t(`setup/counts/${count}`, { count: number });
  const told = there.filter(({ number }) => number > 0);
  return (
    <li className={classes.step} data-next={isNext}>
      <Anchor component={Link} to={addressOf(part)} fw={600}>
        {t(`setup/parts/${part}`)}
      </Anchor>
      <span className={classes.told}>
        {told.map(({ count, number }) => says(count, number)).join(', ')}{' '}
        {lacks.map(({ count, number }) => (
          <span key={count} className={classes.lack}>
            {says(count, number)}{' '}
          </span>
        ))}
        {waitsFor.length > 0 &&
          t('setup/waitsFor', { parts: waitsFor.map((other) => t(`setup/parts/${other}`)).join(', ') })}
        {isNext && (
          <Button component={Link} to={addressOf(part)} size="compact-sm">
            {t('setup/begin')}
          </Button>
        )}
      </span>
      <span className={classes.state}>
        {isNext
          ? t('setup/next')
          : state === 'notBegun' && canWait
            ? t('setup/canWait')
            : t(`setup/states/${state}`)}
      </span>
    </li>
  );
}

/** The Workshop's first page: what is set up in which order, what is there, and what is missing. */
export function PathPage() {
  const { t } = useWords();
  const me = useMe();
  const facts = useQuery({
    queryKey: ['organisation', 'setup'],
    queryFn: () => call(api.organisation.setup),
  });
  const mine = new Set<Subject | null>([null, ...listSubjects(me)]);
  const steps = facts.data ? listSetup(facts.data) : [];
  const next = nextOf(steps);
  return (
    <WorkshopFrame lead={t('setup/lead')} isPath>
      <SettingFinder isLarge />
      <small className={classes.help}>{t('setup/worry')}</small>
      {facts.isPending && <Waiting />}
      <ProblemNote error={facts.error} onRetry={() => void facts.refetch()} />
      {facts.data && next === null && <p>{t('setup/allThere')}</p>}
      <ol className={classes.steps}>
        {steps
          .filter(({ part }) => mine.has(PAGES[part]))
          .map((step) => (
            <Step key={step.part} step={step} isNext={step.part === next} />
          ))}
      </ol>
    </WorkshopFrame>
  );
}
