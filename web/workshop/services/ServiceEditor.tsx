import { Alert, Button } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { EditedService } from '../../../contract/services';
import { ApiProblem } from '../../api/call';
import { useMe, useTeams } from '../../api/queries';
import '../../messages/servicesWords';
import { addWorkshopWords } from '../../messages/workshopWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { isAboutService, RulesAbout } from '../rules/RulesAbout';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { AboutPart, HelpPart } from './AboutPart';
import { ApprovalsPart } from './ApprovalsPart';
import { AudiencePart } from './AudiencePart';
import { Part } from './Part';
import { Picture } from './Picture';
import { OpeningPart } from './OpeningPart';
import { PlanPart } from './PlanPart';
import { PublishBar } from './PublishBar';
import { QuestionsPart } from './QuestionsPart';
import classes from './services.module.css';
import { TimePart, WordsPart } from './TimePart';
import { useEdited, useWriting } from './useService';

addWorkshopWords();
/** The names of people that are known to the page, by their ids. */
function usePeopleNames(named: Record<string, string>) {
  const { data: teams = [] } = useTeams();
  const [picked, setPicked] = useState<Record<string, string>>({});
  const names = useMemo(
    () =>
      new Map([
        ...teams.flatMap(({ members }) => members.map(({ id, name }) => [id, name] as const)),
        ...Object.entries(named),
        ...Object.entries(picked),
      ]),
    [teams, named, picked],
  );
  return { names, onName: (id: string, name: string) => setPicked((before) => ({ ...before, [id]: name })) };
}

function Editor({ service }: { service: EditedService }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const people = usePeopleNames(service.names);
  const { data: teams = [] } = useTeams();
  const writing = useWriting(service);
  const { definition, change, problems, keeping, audience } = writing;
  const isFixed = !service.mayEdit || writing.isStale;
  const props = { definition, change, isFixed };
  const of = (part: string) => problems.filter((problem) => problem.part === part);
  const bad = useMemo(
    () => new Set(problems.filter(({ part }) => part === 'plan').flatMap(({ at }) => at?.split(', ') ?? [])),
    [problems],
  );
  const hasDraft = writing.draftVersion > 0;
  const team = teams.find(({ id }) => id === definition.teamId);
  const version = service.version;
  const state = t(
    hasDraft
      ? version > 0
        ? 'services/editor/draftOf'
        : 'services/editor/draftFirst'
      : 'services/editor/unchanged',
    { version },
  );
  const kept = keeping.state === 'failed' ? null : t(`services/editor/${keeping.state}`);
  return (
    <div className={classes.editor}>
      <div className={classes.written}>
        <div className={classes.crumb}>
          <Link to="/workshop/services">{t('services/editor/back')}</Link> · {state}
          {!service.isOn && version > 0 && ` · ${t('services/off')}`}
          {hasDraft && kept && <span role="status"> · {kept}</span>}
        </div>
        <h1 className={classes.title}>{local(definition.title) || '…'}</h1>
        {!service.mayEdit && (
          <Alert color="gray" variant="outline" mb="sm">
            {t('services/editor/lookOnly', { team: team ? local(team.name) : '' })}
          </Alert>
        )}
        {writing.isStale && (
          <Alert color="gray" variant="outline" mb="sm">
            {t('services/editor/stale')}{' '}
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => void client.resetQueries({ queryKey: ['edited', service.id] })}
            >
              {t('services/editor/show')}
            </Button>
          </Alert>
        )}
        {keeping.state === 'failed' && !writing.isStale && (
          <ProblemNote error={keeping.error} onRetry={() => void writing.settle()} />
        )}
        <Part name="about" problems={of('about')}>
          <AboutPart {...props} {...people} />
        </Part>
        <Part name="audience" problems={of('audience')}>
          <AudiencePart {...props} count={audience} />
          <OpeningPart {...props} />
        </Part>
        <Part name="form" problems={of('form')}>
          <QuestionsPart {...props} />
        </Part>
        <Part name="approvals" problems={of('approvals')}>
          <ApprovalsPart {...props} {...people} />
        </Part>
        <Part name="plan" problems={of('plan')}>
          <PlanPart {...props} {...people} bad={bad} />
        </Part>
        <Part name="time">
          <TimePart id={service.id} definition={definition} />
        </Part>
        <Part name="words" problems={of('words')}>
          <WordsPart {...props} />
        </Part>
        <Part name="help">
          <HelpPart {...props} />
        </Part>
        <RulesAbout what="service" isAbout={isAboutService(service.id)} />
        {service.mayEdit && <PublishBar service={service} writing={writing} />}
      </div>
      <Picture id={service.id} definition={definition} />
    </div>
  );
}

/** A service as it is written: sentences to fill in, beside a live picture of what the employee will see. */
export function ServiceEditor() {
  const { id = '' } = useParams();
  const me = useMe();
  const { data, error, isPending, refetch } = useEdited(id);
  if (!me.areas.includes('workshop')) return <Lost />;
  if (isPending) return <Waiting />;
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  if (!data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  // Written anew from what the server holds, once that has changed by publishing or by someone else.
  return <Editor key={`${id}:${data.version}:${data.draftVersion}:${data.isOn}`} service={data} />;
}
