import { Button, Popover, ScrollArea, Text } from '@mantine/core';
import { IconBell } from '@tabler/icons-react';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../api/endpoints';
import type { Notification } from '../../contract/notifications';
import { call } from '../api/call';
import { useNow } from '../api/clock';
import { useMe, useNotifications, useRenew } from '../api/queries';
import { useWords } from '../messages/useWords';
import frame from '../frame/Frame.module.css';
import classes from './Notifications.module.css';
import { useTimes } from './useTimes';

const TEAM_SIDE = new Set(['assignee', 'team', 'lead']);

/** Where a notification leads: to the side on which its reader stands. */
function placeOf({ as, number, event }: Notification, isAgent: boolean): string {
  // A notice that one follows without a ticket stands on the first page.
  if (number === null) return '/ask';
  if (as === 'approver' && event === 'sent') return '/ask';
  return isAgent && TEAM_SIDE.has(as) ? `/desk/nextUp/${number}` : `/ask/tickets/${number}`;
}

/** All that was told of one ticket stands together, by the newest; of a notice by its title. */
function groupByTicket(all: Notification[]): Notification[][] {
  const groups = new Map<number | string, Notification[]>();
  for (const each of all) {
    const name = each.number ?? each.title;
    groups.set(name, [...(groups.get(name) ?? []), each]);
  }
  return [...groups.values()];
}

/** What one was told, grouped by ticket, each leading to its place. */
export function Notifications() {
  const { t, local } = useWords();
  const times = useTimes();
  const now = useNow(30_000);
  const renew = useRenew();
  const me = useMe();
  const [isOpen, setOpen] = useState(false);
  const { data } = useNotifications();
  const read = useMutation({
    mutationFn: (number?: number) =>
      call(api.notifications.read, { body: number === undefined ? {} : { number } }),
    onSettled: () => renew(),
  });
  const unread = data?.unread ?? 0;
  const groups = groupByTicket(data?.notifications ?? []);
  const wordsOf = ({ event, as, actor }: Notification): string =>
    t(event === 'sent' && as === 'approver' ? 'told/sentApprover' : `told/${event}`, {
      who: actor ?? t('entries/by'),
    });
  return (
    <Popover opened={isOpen} onChange={setOpen} position="bottom-end" width={380} trapFocus>
      <Popover.Target>
        <button
          type="button"
          className={frame.plain}
          onClick={() => setOpen(!isOpen)}
          aria-label={`${t('frame/notifications')}: ${unread}`}
        >
          <IconBell size={18} />
          {unread > 0 && <span className={frame.count}>{unread > 99 ? '99+' : unread}</span>}
        </button>
      </Popover.Target>
      <Popover.Dropdown p={0}>
        <div className={classes.head}>
          <Text fw={700}>{t('frame/notifications')}</Text>
          {unread > 0 && (
            <Button size="compact-xs" variant="subtle" onClick={() => read.mutate(undefined)}>
              {t('frame/readAll')}
            </Button>
          )}
        </div>
        <ScrollArea.Autosize mah={440}>
          {groups.length === 0 && <p className={classes.none}>{t('frame/noNotifications')}</p>}
          {groups.map((group) => (
            <Link
              key={group[0]!.number ?? group[0]!.title}
              className={classes.group}
              data-unread={group.some(({ isRead }) => !isRead) || undefined}
              to={placeOf(group[0]!, me.areas.includes('desk'))}
              onClick={() => {
                setOpen(false);
                read.mutate(group[0]!.number ?? undefined);
              }}
            >
              <strong>
                <bdi>{group[0]!.title}</bdi>
              </strong>
              {group.slice(0, 3).map((each) => (
                <span key={each.id}>
                  {each.words ? local(each.words) : `${wordsOf(each)} ${each.number ?? ''}`} ·{' '}
                  {times.when(each.at, now)}
                </span>
              ))}
            </Link>
          ))}
        </ScrollArea.Autosize>
      </Popover.Dropdown>
    </Popover>
  );
}
