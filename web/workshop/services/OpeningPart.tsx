import { NumberInput } from '@mantine/core';
import type { Opening } from '../../../core/catalogue';
import { useWords } from '../../messages/useWords';
import { InlineSelect } from '../../ui/Inline';
import { InstantInput } from '../../ui/InstantInput';
import { useTimes } from '../../ui/useTimes';
import classes from './services.module.css';
import type { PartProps } from './useService';

const ALWAYS: Opening = { from: null, until: null, most: null };
const isAlways = ({ from, until, most }: Opening): boolean =>
  from === null && until === null && most === null;

/** From when until when a service may be asked for, and by how many. */
export function OpeningPart({ definition, isFixed, change }: PartProps) {
  const { t } = useWords();
  const times = useTimes();
  const { opening } = definition;
  const set = (changes: Partial<Opening>): void => change({ opening: { ...ALWAYS, ...opening, ...changes } });
  if (isFixed && opening)
    return (
      <p className={classes.sentence}>
        {[
          opening.from !== null && t('services/opening/sayFrom', { at: times.full(opening.from) }),
          opening.until !== null && t('services/opening/sayUntil', { at: times.full(opening.until) }),
          opening.most !== null && t('services/opening/sayMost', { count: opening.most }),
        ]
          .filter(Boolean)
          .join(', ') || t('services/opening/always')}
      </p>
    );
  return (
    <div className={classes.sentence}>
      <InlineSelect
        label={t('services/opening/label')}
        isFixed={isFixed}
        value={opening === null ? 'always' : 'limited'}
        options={(['always', 'limited'] as const).map((value) => ({
          value,
          label: t(`services/opening/${value}`),
        }))}
        onChange={(value) => change({ opening: value === 'always' ? null : ALWAYS })}
      />
      {opening && (
        <div className={classes.opening}>
          <InstantInput
            label={t('services/opening/from')}
            value={opening.from}
            onChange={(from) => set({ from })}
          />
          <InstantInput
            label={t('services/opening/until')}
            value={opening.until}
            onChange={(until) => set({ until })}
          />
          <NumberInput
            label={t('services/opening/most')}
            min={1}
            allowDecimal={false}
            value={opening.most ?? ''}
            onChange={(most) => set({ most: typeof most === 'number' ? most : null })}
          />
          {isAlways(opening) && <span className={classes.quiet}>{t('services/opening/nothingSet')}</span>}
        </div>
      )}
    </div>
  );
}
