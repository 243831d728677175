import { Switch } from '@mantine/core';
import { Link } from 'react-router';
import type { Target } from '../../../contract/targets';
import { checkTarget } from '../../../core/targets';
import { useMe } from '../../api/queries';
import '../../messages/measuresWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { useTargets } from '../queries';
import { WorkshopFrame } from '../WorkshopFrame';
import { Notices } from './Notices';
import classes from './Promises.module.css';
import { useTargetWords } from './useTargetWords';
import { useUpdateTarget } from './useUpdateTarget';

const KINDS = ['serviceLevel', 'operationalLevel', 'supplierContract'] as const;

function Promise({ target }: { target: Target }) {
  const { t } = useWords();
  const { limits, hours, teamName } = useTargetWords();
  const update = useUpdateTarget(target);
  const problems = [...new Set(checkTarget(target.definition).map(({ code }) => code))];
  const { definition, isOn, mayEdit, going, teamId } = target;
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
        <Notices target={target} />
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
        <ProblemNote error={update.error} />
      </div>
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
