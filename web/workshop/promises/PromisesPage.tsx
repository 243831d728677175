import { Button, Switch } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Target } from '../../../contract/targets';
import { checkTarget, type TargetNotice } from '../../../core/targets';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import '../../messages/measuresWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { showUndo } from '../../ui/showUndo';
import { Waiting } from '../../ui/Waiting';
import { useTargets } from '../queries';
import { WorkshopFrame } from '../WorkshopFrame';
import { NoticesForm } from './NoticesForm';
import classes from './Promises.module.css';
import { useTargetWords } from './useTargetWords';

const KINDS = ['serviceLevel', 'operationalLevel', 'supplierContract'] as const;

function useUpdate({ id, version, definition }: Target) {
  const { t } = useWords();
  const client = useQueryClient();
  const patch = async (change: { version: number; isOn?: boolean; notices?: TargetNotice[] }) => {
    const saved = await call(api.targets.update, { params: { id }, body: change });
    await client.invalidateQueries({ queryKey: ['targets'] });
    return saved.version;
  };
  return useMutation({
    mutationFn: (change: { isOn?: boolean; notices?: TargetNotice[] }) => patch({ version, ...change }),
    onSuccess: (saved, { isOn }) => {
      if (isOn === undefined) return;
      showUndo(
        t(`workshop/target/${isOn ? 'switchedOn' : 'switchedOff'}`, { name: definition.name }),
        t('common/undo'),
        () => patch({ version: saved, isOn: !isOn }),
      );
    },
  });
}

function Promise({ target }: { target: Target }) {
  const { t } = useWords();
  const { limits, hours, notice, teamName } = useTargetWords();
  const [isEditing, setEditing] = useState(false);
  const update = useUpdate(target);
  const problems = [...new Set(checkTarget(target.definition).map(({ code }) => code))];
  const { definition, notices, isOn, mayEdit, going, teamId } = target;
  return (
    <article className={classes.promise} data-off={!isOn || undefined} aria-label={definition.name}>
      <div>
        <h3>
          <Link to={`/workshop/promises/${target.id}`}>{definition.name}</Link>
        </h3>
        {limits(target)}
        <small>
          {hours(target)} · {t(`workshop/target/${definition.countFrom}`)}
          {teamId && ` · ${teamName(teamId)}`}
        </small>
        {problems.map((code) => (
          <p key={code} className={classes.problem}>
            {t(`workshop/target/problems/${code}`)}
          </p>
        ))}
      </div>
      <div>
        <ul>
          {notices.map((each) => (
            <li key={each.percent}>{notice(each)}</li>
          ))}
        </ul>
        {mayEdit && (
          <Button size="compact-xs" variant="subtle" onClick={() => setEditing(true)}>
            {t('workshop/target/edit')}
          </Button>
        )}
      </div>
      <div>
        <Switch
          size="sm"
          checked={isOn}
          disabled={!mayEdit || update.isPending}
          aria-label={t('workshop/target/switch', { name: definition.name })}
          label={t(isOn ? 'workshop/target/on' : 'workshop/target/off')}
          onChange={({ target: input }) => update.mutate({ isOn: input.checked })}
        />
        {isOn && <small>{t('workshop/target/going', { count: going })}</small>}
        {!isEditing && <ProblemNote error={update.error} />}
      </div>
      {isEditing && (
        <NoticesForm
          target={target}
          isSaving={update.isPending}
          error={update.error}
          onSave={(changed) => update.mutate({ notices: changed }, { onSuccess: () => setEditing(false) })}
          onClose={() => setEditing(false)}
        />
      )}
    </article>
  );
}

/** Every promise, grouped by to whom it is made, with what it does as time runs out. */
export function PromisesPage() {
  const { t } = useWords();
  const me = useMe();
  const { data, error, refetch } = useTargets();
  return (
    <WorkshopFrame lead={t('workshop/target/lead')}>
      {(me.isAdministrator || data?.some(({ mayEdit }) => mayEdit)) && (
        <Link to="/workshop/promises/new">{t('measures/edit/new')}</Link>
      )}
      {!data && !error && <Waiting />}
      {error && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {data &&
        KINDS.map((kind) => {
          const own = data.filter(({ definition }) => definition.kind === kind);
          if (own.length === 0) return null;
          return (
            <section key={kind}>
              <h2 className={classes.kind}>{t(`workshop/target/kinds/${kind}`)}</h2>
              {own.map((target) => (
                <Promise key={target.id} target={target} />
              ))}
            </section>
          );
        })}
    </WorkshopFrame>
  );
}
