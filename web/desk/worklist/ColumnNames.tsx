import { Tooltip } from '@mantine/core';
import { memo } from 'react';
import { useWords } from '../../messages/useWords';
import { colsOf } from './colsOf';
import type { Density } from './useDensity';
import type { SeenList } from './useList';
import classes from './Worklist.module.css';

/** What the columns are called and, where their list says so, what they mean here. */
export const ColumnNames = memo(function ColumnNames({
  list,
  density,
  onDensity,
}: {
  list: SeenList;
  density: Density;
  onDensity(): void;
}) {
  const { t } = useWords();
  const { columns, meanings } = list.definition;
  return (
    <div className={classes.names} style={{ gridTemplateColumns: colsOf(columns) }}>
      <span />
      <span>{t('desk/columns/ticket')}</span>
      {columns.map((column) => (
        <Tooltip
          key={column}
          label={meanings[column] || t(`lists/meaning/${column}`)}
          multiline
          maw={280}
          withArrow
        >
          <span className={classes.wide} tabIndex={0} data-own={Boolean(meanings[column]) || undefined}>
            {t(`lists/columns/${column}`)}
          </span>
        </Tooltip>
      ))}
      <button type="button" className={classes.density} onClick={onDensity}>
        {t(density === 'dense' ? 'lists/roomy' : 'lists/dense')}
      </button>
    </div>
  );
});
