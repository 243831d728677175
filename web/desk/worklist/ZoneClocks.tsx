import { Popover } from '@mantine/core';
import { useMe, useSites } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { useTimes } from '../../ui/useTimes';
import classes from './Worklist.module.css';

/** What time it is where the sites are, those of another zone than one's own first; opens to say which sites. */
export function ZoneClocks({ now }: { now: number }) {
  const { t } = useWords();
  const me = useMe();
  const times = useTimes();
  const { data: sites = [] } = useSites();
  const zones = [...new Set(sites.map(({ timeZone }) => timeZone))].filter((zone) => zone !== me.timeZone);
  if (zones.length === 0) return null;
  const cityOf = (zone: string): string => zone.split('/').at(-1)!.replace(/_/g, ' ');
  return (
    <Popover width={260} withArrow>
      <Popover.Target>
        <button type="button" className={classes.zones}>
          {zones
            .map((zone) => t('desk/zone', { time: times.hour(now, zone), where: cityOf(zone) }))
            .join(' · ')}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        {[me.timeZone, ...zones].map((zone) => (
          <p key={zone} style={{ margin: '0 0 6px' }}>
            <b>{times.hour(now, zone)}</b> {cityOf(zone)}
            <small style={{ display: 'block', color: 'var(--muted)' }}>
              {sites
                .filter(({ timeZone }) => timeZone === zone)
                .map(({ name }) => name)
                .join(', ')}
            </small>
          </p>
        ))}
      </Popover.Dropdown>
    </Popover>
  );
}
