import { Menu } from '@mantine/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { PRESENCES, type Presence as Present } from '../../contract/names';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import classes from './Frame.module.css';

/** Whether one takes tickets, and how much one carries; a click changes it. */
export function Presence() {
  const { t } = useWords();
  const { presence, carries } = useMe();
  const client = useQueryClient();
  const set = useMutation({
    mutationFn: (wanted: Present) => call(api.routing.setPresence, { body: { presence: wanted } }),
    onSettled: () => client.invalidateQueries({ queryKey: ['session'] }),
  });
  if (presence === null) return null;
  const load = carries && (carries.capacity === null ? String(carries.load) : t('frame/loadOf', carries));
  return (
    <Menu position="bottom-end">
      <Menu.Target>
        <button type="button" className={classes.presence} data-presence={presence}>
          <i aria-hidden />
          {t(`frame/presence/${presence}`)}
          {load && ` · ${load}`}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {PRESENCES.map((each) => (
          <Menu.Item key={each} onClick={() => set.mutate(each)}>
            {t(`frame/presence/${each}`)}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
