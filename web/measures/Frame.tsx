import { NativeSelect } from '@mantine/core';
import type { ReactNode } from 'react';
import { useLocation } from 'react-router';
import { useMe } from '../api/queries';
import '../messages/measuresWords';
import { useWords } from '../messages/useWords';
import { Lost } from '../ui/Lost';
import { MeasuresNav } from './MeasuresNav';
import { useTargets } from '../workshop/queries';
import workshop from '../workshop/Workshop.module.css';
import classes from './Measures.module.css';
import type { usePeriod } from './usePeriod';
import { DayInput } from '../ui/DayInput';

/** A page of figures: which, of what, and for when. */
export function MeasuresFrame({
  period,
  children,
}: {
  period: ReturnType<typeof usePeriod>;
  children: ReactNode;
}) {
  const { t } = useWords();
  const me = useMe();
  const { search } = useLocation();
  const { data: targets = [] } = useTargets();
  if (!me.areas.includes('measures')) return <Lost />;
  return (
    <div className={`${workshop.page} ${classes.page}`}>
      <MeasuresNav search={search} />
      <div className={classes.choose}>
        <NativeSelect
          label={t('measures/target')}
          value={period.targetId ?? targets[0]?.id ?? ''}
          data={targets.map(({ id, definition }) => ({ value: id, label: definition.name }))}
          onChange={({ target }) => period.set({ target: target.value })}
        />
        <DayInput
          label={t('measures/from')}
          value={period.fromDay}
          onChange={(day) => day && period.set({ from: day })}
        />
        <DayInput
          label={t('measures/to')}
          value={period.toDay}
          onChange={(day) => day && period.set({ to: day })}
        />
      </div>
      {children}
    </div>
  );
}
