import { isAgent } from '../../core/rights';
import { Menu, VisuallyHidden } from '@mantine/core';
import { createContext, lazy, Suspense, useContext, useState } from 'react';
import { Link, NavLink, Outlet, useLocation } from 'react-router';
import type { LiveEvent } from '../../contract/live';
import { useLive } from '../api/live';
import { useMe, useSession } from '../api/queries';
import { useReachable } from '../api/reachable';
import { useWords } from '../messages/useWords';
import classes from './Frame.module.css';
import { FileDialog } from '../files/FileDialog';
import { Notifications } from '../ui/Notifications';
import { palette } from './paletteStore';
import { Presence } from './Presence';
import { useOwnActs } from './useOwnActs';
import { Waiting } from '../ui/Waiting';
import { useKeys } from '../ui/useKeys';

/** They come once the page is there. */
const Palette = lazy(() => import('./Palette').then(({ Palette: palette }) => ({ default: palette })));
const KeysPage = lazy(() => import('../ui/KeysPage').then(({ KeysPage: page }) => ({ default: page })));
/** It comes with the Desk. */
const TimerBar = lazy(() => import('../desk/spent/TimerBar').then(({ TimerBar: bar }) => ({ default: bar })));
/** They come once the page is there: who may talk, and who talks to them. */
const PersonLink = lazy(() =>
  import('../ask/person/PersonLink').then(({ PersonLink: link }) => ({ default: link })),
);
const ConversationBar = lazy(() =>
  import('../desk/conversations/ConversationBar').then(({ ConversationBar: bar }) => ({ default: bar })),
);
const BreakOff = lazy(() =>
  import('../desk/breakOff/BreakOff').then(({ BreakOff: button }) => ({ default: button })),
);
const LastChange = createContext<LiveEvent | null>(null);
/** The last change that the live stream brought. */
export const useLastChange = (): LiveEvent | null => useContext(LastChange);

function initialsOf(name: string): string {
  const words = name.replace(/^Capt\. /, '').split(' ');
  return `${words[0]?.[0] ?? ''}${words.length > 1 ? (words.at(-1)?.[0] ?? '') : ''}`;
}

function PersonMenu({ onKeys }: { onKeys(): void }) {
  const { t } = useWords();
  const me = useMe();
  const acts = useOwnActs();
  const { data: session } = useSession();
  return (
    <Menu position="bottom-end" width={230}>
      <Menu.Target>
        <button type="button" className={classes.plain}>
          <span className={classes.me}>{initialsOf(me.name)}</span>
          <VisuallyHidden>{`${t('frame/person')}: ${me.name}`}</VisuallyHidden>
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Label>
          {me.name}, {me.title}
        </Menu.Label>
        <Menu.Item onClick={acts.switchLanguage}>{t('frame/language')}</Menu.Item>
        <Menu.Item onClick={acts.switchTheme}>{t(acts.isDark ? 'frame/light' : 'frame/dark')}</Menu.Item>
        <Menu.Item onClick={onKeys}>{t('frame/keys')}</Menu.Item>
        <Menu.Item component={Link} to="/away">
          {t('away/title')}
        </Menu.Item>
        {session?.isDemo && (
          <Menu.Item component={Link} to="/mailbox">
            {t('frame/mailbox')}
          </Menu.Item>
        )}
        <Menu.Item onClick={() => acts.wantMail(!me.wantsMail)}>
          {t(me.wantsMail ? 'frame/mailOff' : 'frame/mailOn')}
        </Menu.Item>
        <Menu.Item component={Link} to="/sessions">
          {t('frame/sessions')}
        </Menu.Item>
        <Menu.Divider />
        <Menu.Item onClick={acts.signOut}>{t('frame/signOut')}</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}

/** The slim bar with the areas one may enter, and the page below it. */
export function Frame() {
  const { t } = useWords();
  const me = useMe();
  const last = useLive(me.id);
  const isReachable = useReachable();
  const isEmbedded = useLocation().pathname.startsWith('/embed/');
  const [isKeysOpen, setKeysOpen] = useState(false);
  useKeys({ f: () => palette.open(), '?': () => setKeysOpen(true) });
  return (
    <LastChange.Provider value={last}>
      <a href="#content" className={classes.skip}>
        {t('common/skip')}
      </a>
      <header className={classes.bar} hidden={isEmbedded}>
        <Link to="/" className={classes.logo} aria-label={t('name')}>
          list<span>o</span>
        </Link>
        <nav className={classes.areas} aria-label={t('name')}>
          {me.areas.map((area) => (
            <NavLink key={area} to={`/${area}`}>
              {t(`areas/${area}`)}
            </NavLink>
          ))}
        </nav>
        <button type="button" className={classes.find} onClick={palette.open}>
          <span>{t('frame/find')}</span>
          <kbd>F</kbd>
        </button>
        {isAgent(me) && (
          <Suspense fallback={null}>
            <BreakOff />
            <ConversationBar />
            <TimerBar />
          </Suspense>
        )}
        <Presence />
        <Notifications />
        <PersonMenu onKeys={() => setKeysOpen(true)} />
      </header>
      {!isReachable && (
        <div role="status" className={classes.offline}>
          {t('frame/offline')}
        </div>
      )}
      <main id="content">
        <Suspense fallback={null}>{!isEmbedded && <PersonLink />}</Suspense>
        <Suspense fallback={<Waiting />}>
          <Outlet />
          <FileDialog />
        </Suspense>
      </main>
      <Suspense fallback={null}>
        <Palette />
        {isKeysOpen && <KeysPage opened onClose={() => setKeysOpen(false)} />}
      </Suspense>
    </LastChange.Provider>
  );
}
