import { useMe } from '../../api/queries';
import '../../messages/roomsWords';
import { useWords } from '../../messages/useWords';
import { WorkshopFrame } from '../WorkshopFrame';
import { Accounts } from './Accounts';
import { Connections } from './Connections';
import { FormSettings } from './FormSettings';
import { Notices } from './Notices';

/** What Listo does in the workplace chat. */
export function ChatPage() {
  const { t } = useWords();
  const { isAdministrator } = useMe();
  return (
    <WorkshopFrame lead={t('rooms/setUp/lead')}>
      <Connections />
      <Notices />
      {isAdministrator && (
        <>
          <FormSettings />
          <Accounts />
        </>
      )}
    </WorkshopFrame>
  );
}
