import { Anchor, Button, Group, Modal, TextInput } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { ThingCard } from '../../contract/estate';
import { readCode } from '../../core/estate';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import '../messages/estateWords';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import classes from './Estate.module.css';

/** The picture of the camera, and what is read in it. The library comes when a camera is wanted. */
export function Camera({ onRead }: { onRead(words: string): void }) {
  const { t } = useWords();
  const video = useRef<HTMLVideoElement>(null);
  const read = useRef(onRead);
  const [isAway, setAway] = useState(false);
  useEffect(() => {
    read.current = onRead;
  });
  useEffect(() => {
    const over = new AbortController();
    // Asked again after each wait.
    const isOver = (): boolean => over.signal.aborted;
    async function open(): Promise<void> {
      const { BrowserMultiFormatReader } = await import('@zxing/browser');
      if (isOver() || !video.current) return;
      const reader = new BrowserMultiFormatReader();
      const controls = await reader.decodeFromConstraints(
        { video: { facingMode: 'environment' } },
        video.current,
        (result) => {
          if (result) read.current(result.getText());
        },
      );
      const stop = (): void => controls.stop();
      over.signal.addEventListener('abort', stop);
      if (isOver()) stop();
    }
    open().catch(() => setAway(true));
    return () => {
      over.abort();
    };
  }, []);
  if (isAway) return <p role="alert">{t('estate/scanNoCamera')}</p>;
  return <video ref={video} className={classes.video} muted playsInline aria-label={t('estate/scan')} />;
}

/** What a code or a mark names, looked for; several are offered. */
function useLookUp(onFound: (thing: ThingCard) => void) {
  const { t } = useWords();
  const [said, setSaid] = useState('');
  const [several, setSeveral] = useState<ThingCard[]>([]);
  const look = useMutation({
    mutationFn: (mark: string) => call(api.estate.byMark, { query: { mark } }),
    onSuccess: (things, mark) => {
      setSeveral(things.length > 1 ? things : []);
      if (things.length === 1) onFound(things[0]!);
      setSaid(
        things.length === 1
          ? ''
          : t(things.length === 0 ? 'estate/scanNothing' : 'estate/scanSeveral', { mark }),
      );
    },
  });
  const lookUp = (words: string): void => {
    const code = readCode(words, window.location.origin);
    if (!code || look.isPending) return;
    if ('foreign' in code) setSaid(t('estate/scanForeign', { host: code.foreign }));
    else look.mutate('id' in code ? code.id : code.mark);
  };
  return { lookUp, said, several, error: look.error };
}

function ScanDialog({ onFound, onClose }: { onFound(thing: ThingCard): void; onClose(): void }) {
  const { t, local } = useWords();
  const [typed, setTyped] = useState('');
  const [isOpen, setOpen] = useState(false);
  const { lookUp, said, several, error } = useLookUp(onFound);
  return (
    <Modal opened onClose={onClose} title={t('estate/scanTitle')}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          lookUp(typed);
        }}
      >
        <Group align="end">
          <TextInput
            data-autofocus
            label={t('estate/scanTyped')}
            style={{ flex: 1 }}
            maxLength={80}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
          />
          <Button type="submit">{t('estate/scanGo')}</Button>
        </Group>
      </form>
      <Button my="sm" size="xs" variant="default" onClick={() => setOpen(!isOpen)}>
        {t(isOpen ? 'estate/scanStop' : 'estate/scanCamera')}
      </Button>
      {isOpen && <Camera onRead={lookUp} />}
      <ProblemNote error={error} />
      <p role="status">{said}</p>
      <ul className={classes.list}>
        {several.map((thing) => (
          <li key={thing.id}>
            <Anchor component="button" type="button" onClick={() => onFound(thing)}>
              {thing.name}
            </Anchor>
            <small>
              {[local(thing.kind), thing.holder?.name, thing.site?.name].filter(Boolean).join(' · ')}
            </small>
          </li>
        ))}
      </ul>
    </Modal>
  );
}

/** Finds a thing by the code on it, or by what is typed from its label. */
export function Scan({ onFound }: { onFound(thing: ThingCard): void }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <Button size="xs" variant="default" onClick={() => setOpen(true)}>
        {t('estate/scan')}
      </Button>
      {isOpen && (
        <ScanDialog
          onClose={() => setOpen(false)}
          onFound={(thing) => {
            setOpen(false);
            onFound(thing);
          }}
        />
      )}
    </>
  );
}
