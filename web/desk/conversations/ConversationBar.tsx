import { isAgent } from '../../../core/rights';
import { useEffect } from 'react';
import { Link } from 'react-router';
import { useMe } from '../../api/queries';
import '../../messages/talkWords';
import { useWords } from '../../messages/useWords';
import { useAtDesk, useConversationsLive } from '../../talk/useConversation';
import { useCountInTitle } from '../../ui/useCountInTitle';
import classes from './Conversations.module.css';

const BEEP_HZ = 660;
const BEEP_S = 0.18;

/** A short sound, made here: no file is needed for it. */
function beep(): void {
  const audio = new AudioContext();
  const tone = audio.createOscillator();
  const volume = audio.createGain();
  volume.gain.value = 0.08;
  tone.frequency.value = BEEP_HZ;
  tone.connect(volume).connect(audio.destination);
  tone.start();
  tone.stop(audio.currentTime + BEEP_S);
  tone.onended = () => void audio.close();
}

/** On every page of an agent: what is offered and who waits for them; as long as it is there, so are they. */
export function ConversationBar() {
  const { t } = useWords();
  const me = useMe();
  const { data } = useAtDesk();
  useConversationsLive(true);
  const offered = data?.rows.filter(({ isOfferedToMe }) => isOfferedToMe) ?? [];
  const waiting = data?.rows.filter(({ isMine, whoWaits }) => isMine && whoWaits.who === 'person') ?? [];
  const alert = data?.agent.alert ?? 'none';
  const newest = offered.at(-1)?.id;
  useEffect(() => {
    if (newest !== undefined && alert === 'sound') beep();
  }, [newest, alert]);
  const count = offered.length + waiting.length;
  useCountInTitle(alert === 'none' ? 0 : count);
  if (count === 0 || !isAgent(me)) return null;
  return (
    <span role="status">
      <Link className={classes.bar} to="/desk/conversations">
        {offered.length > 0
          ? t('talk/desk/offerBar', { count: offered.length })
          : t('talk/desk/waitBar', { count: waiting.length })}
      </Link>
    </span>
  );
}
