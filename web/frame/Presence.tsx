import { Menu } from '@mantine/core';
import { PRESENCES } from '../../contract/names';
import { useMe } from '../api/queries';
import { useWords } from '../messages/useWords';
import classes from './Frame.module.css';
import { useOwnActs } from './useOwnActs';

/** Whether one takes tickets, and how much one carries; a click changes it. */
export function Presence() {
  const { t } = useWords();
  const { presence, carries } = useMe();
  const { setPresence } = useOwnActs();
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
          <Menu.Item key={each} onClick={() => setPresence(each)}>
            {t(`frame/presence/${each}`)}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
