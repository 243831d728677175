import { Button, Group, Modal, NativeSelect, TextInput } from '@mantine/core';
import { useClipboard } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSites } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import classes from './services.module.css';

function Copied({ label, text }: { label: string; text: string }) {
  const { t } = useWords();
  const clipboard = useClipboard();
  return (
    <>
      <h3 className={classes.subject}>{label}</h3>
      <span className={classes.address}>{text}</span>{' '}
      <Button size="compact-xs" variant="subtle" onClick={() => clipboard.copy(text)}>
        {t(clipboard.copied ? 'services/share/copied' : 'services/share/copy')}
      </Button>
    </>
  );
}

/** A service's own address, with a place filled in where it hangs; as a code to print, and inside another page. */
export function Share({
  id,
  title,
  audience,
  embedOrigins,
  onClose,
}: {
  id: string;
  title: string;
  audience: number;
  /** The pages that may show it within them. */
  embedOrigins: string[];
  onClose(): void;
}) {
  const { t } = useWords();
  const [site, setSite] = useState('');
  const [place, setPlace] = useState('');
  const { data: sites = [] } = useSites();
  const carried = Object.entries({ site, place: place.trim() }).filter(([, value]) => value !== '');
  const query =
    carried.length === 0 ? '' : `?${new URLSearchParams(carried).toString().replaceAll('+', '%20')}`;
  const where = carried.map(([, value]) => value).join(', ');
  const address = `${window.location.origin}/s/${id}${query}`;
  const { data: svg = '' } = useQuery({
    queryKey: ['code', address],
    staleTime: Infinity,
    queryFn: async () => (await import('qrcode')).toString(address, { type: 'svg', margin: 2 }),
  });
  return (
    <Modal opened onClose={onClose} title={`${title}: ${t('services/share/title')}`} size="lg">
      <p>{t('services/share/opens', { count: audience })}</p>
      <Group grow align="flex-end">
        <NativeSelect
          label={t('services/share/site')}
          value={site}
          data={[{ value: '', label: t('services/share/ownSite') }, ...sites.map(({ name }) => name)]}
          onChange={({ target }) => setSite(target.value)}
        />
        <TextInput
          label={t('services/share/place')}
          description={t('services/share/placeHelp')}
          value={place}
          onChange={({ target }) => setPlace(target.value)}
        />
      </Group>
      <Copied label={t('services/share/address')} text={address} />
      <div className={classes.printed}>
        <div
          className={classes.code}
          role="img"
          aria-label={t('services/share/code', { address })}
          // The library's own drawing of an address of ours.
          dangerouslySetInnerHTML={{ __html: svg }}
        />
        <strong>{where === '' ? title : `${title} · ${where}`}</strong>
      </div>
      <Button mt="xs" size="xs" variant="default" onClick={() => window.print()}>
        {t('services/share/print')}
      </Button>
      <p>
        {embedOrigins.length === 0
          ? t('services/share/embedNowhere')
          : t('services/share/embedIn', { origins: embedOrigins.join(', ') })}
      </p>
      <Copied
        label={t('services/share/embed')}
        text={`<iframe src="${window.location.origin}/embed/${id}${query}" title="${title.replaceAll('"', '&quot;')}" width="640" height="760"></iframe>`}
      />
    </Modal>
  );
}
