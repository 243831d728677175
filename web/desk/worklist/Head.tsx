import { Button, Menu, Popover } from '@mantine/core';
import { IconChevronDown } from '@tabler/icons-react';
import { Link } from 'react-router';
import { COUNT_LIMIT, WORKLISTS, type WorklistName } from '../../../contract/names';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import type { Stretch } from './Dayline';
import classes from './Worklist.module.css';
import { ZoneClocks } from './ZoneClocks';

type Props = {
  name: WorklistName;
  total: { count: number; isMore: boolean } | undefined;
  chosen: Stretch | null;
  now: number;
  isNarrow: boolean;
  onChoose(stretch: null): void;
};

/** The heading sentence of a worklist: which one, how many, seen and ordered how. */
export function Head({ name, total, chosen, now, isNarrow, onChoose }: Props) {
  const { t } = useWords();
  const times = useTimes();
  const count = total ? (total.isMore ? `${COUNT_LIMIT}+` : String(total.count)) : '…';
  return (
    <div className={classes.title}>
      <h1>
        <Menu position="bottom-start">
          <Menu.Target>
            <button type="button">
              {t(`worklists/${name}`)} <IconChevronDown size={17} />
            </button>
          </Menu.Target>
          <Menu.Dropdown>
            {WORKLISTS.map((each) => (
              <Menu.Item key={each} component={Link} to={`/desk/${each}`}>
                {t(`worklists/${each}`)}
              </Menu.Item>
            ))}
            <Menu.Divider />
            <Menu.Item component={Link} to="/ask">
              {t('desk/raise')}
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </h1>
      <span className={classes.lead}>
        {t(`worklistLead/${name}`, { count })}
        {!isNarrow && <ZoneClocks now={now} />}
      </span>
      {!isNarrow && (
        <span className={classes.lead}>
          {t('desk/seenAs')}{' '}
          <Popover width={340} withArrow>
            <Popover.Target>
              <button type="button">{t('desk/tightest')}</button>
            </Popover.Target>
            <Popover.Dropdown>{t('desk/whyOrderText')}</Popover.Dropdown>
          </Popover>
          {chosen && (
            <>
              {' · '}
              {t('desk/narrowed', {
                from: times.when(chosen.from, now),
                to: times.when(chosen.to, now),
              })}{' '}
              <Button size="compact-xs" variant="default" onClick={() => onChoose(null)}>
                {t('desk/whole')}
              </Button>
            </>
          )}
        </span>
      )}
    </div>
  );
}
