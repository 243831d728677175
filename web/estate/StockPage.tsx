import { Button, Group, Select, Textarea, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link } from 'react-router';
import type { AnswerOf } from '../../contract/endpoint';
import type { ThingCard } from '../../contract/estate';
import { readCode } from '../../core/estate';
import { call } from '../api/call';
import { api } from '../api/endpoints';
import { useSites } from '../api/queries';
import { useWords } from '../messages/useWords';
import { ProblemNote } from '../ui/ProblemNote';
import classes from './Estate.module.css';
import { EstateFrame } from './EstateFrame';
import { Camera } from './Scan';
import { useRenewThings } from './useThings';

type Counted = AnswerOf<typeof api.estate.count>;

function Cards({ title, things }: { title: string; things: ThingCard[] }) {
  const { t, local } = useWords();
  if (things.length === 0) return null;
  return (
    <section className={classes.section}>
      <h2>
        {title} ({things.length})
      </h2>
      <ul className={classes.list}>
        {things.map(({ id, name, tag, kind, holder, site, place, state }) => (
          <li key={id}>
            <Link to={`/estate/${id}`}>{name}</Link>
            <small>
              {[local(kind), tag, t(`estate/states/${state}`), holder?.name, site?.name, place]
                .filter(Boolean)
                .join(' · ')}
            </small>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Marks({ title, marks }: { title: string; marks: string[] }) {
  if (marks.length === 0) return null;
  return (
    <section className={classes.section}>
      <h2>
        {title} ({marks.length})
      </h2>
      <p>{marks.join(', ')}</p>
    </section>
  );
}

/** What was found when what was scanned was compared with what should be there. */
function Outcome({ counted }: { counted: Counted }) {
  const { t } = useWords();
  return (
    <div className={classes.cols} role="status">
      <Cards title={t('estate/stock/missing')} things={counted.missing} />
      <Cards title={t('estate/stock/strangers')} things={counted.strangers} />
      <Marks title={t('estate/stock/unknown')} marks={counted.unknown} />
      <Marks title={t('estate/stock/several')} marks={counted.several} />
      <Cards title={t('estate/stock/here')} things={counted.here} />
    </div>
  );
}

/** A code of ours names its thing; any other is taken as it stands. */
function toMarkOf(words: string): string {
  const code = readCode(words, window.location.origin);
  return code && 'id' in code ? code.id : words.trim();
}

/** Takes stock of a place by scanning what stands there. */
export function StockPage() {
  const { t } = useWords();
  const renew = useRenewThings();
  const { data: sites = [] } = useSites();
  const [siteId, setSite] = useState<string | null>(null);
  const [place, setPlace] = useState('');
  const [scanned, setScanned] = useState('');
  const [isOpen, setOpen] = useState(false);
  const marks = [...new Set(scanned.split('\n').map(toMarkOf))].filter((mark) => mark !== '');
  const count = useMutation({
    mutationFn: (isKept: boolean) =>
      call(api.estate.count, { body: { siteId: siteId!, place, marks, isKept }, key: nanoid() }),
    onSuccess: (_, isKept) => {
      if (isKept) notifications.show({ message: t('estate/stock/kept') });
      void renew();
    },
  });
  return (
    <EstateFrame title={t('estate/takeStock')} lead={t('estate/stock/lead')}>
      <Group align="end" mb="sm">
        <Select
          searchable
          label={t('estate/site')}
          value={siteId}
          data={sites.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={setSite}
        />
        <TextInput
          label={t('estate/stock/place')}
          style={{ flex: '0 1 320px' }}
          value={place}
          onChange={({ target }) => setPlace(target.value)}
        />
        <Button variant="default" onClick={() => setOpen(!isOpen)}>
          {t(isOpen ? 'estate/scanStop' : 'estate/scanCamera')}
        </Button>
      </Group>
      {isOpen && (
        <Camera
          onRead={(words) =>
            setScanned((before) => (before.split('\n').includes(words) ? before : `${before}${words}\n`))
          }
        />
      )}
      <Textarea
        {...{ autosize: true, minRows: 4, maxRows: 12 }}
        label={t('estate/stock/scannedList')}
        description={t('estate/stock/scannedHelp')}
        value={scanned}
        onChange={({ target }) => setScanned(target.value)}
      />
      <Group my="sm">
        <Button disabled={siteId === null} loading={count.isPending} onClick={() => count.mutate(false)}>
          {t('estate/stock/compare')}
        </Button>
        <Button
          variant="default"
          disabled={siteId === null || marks.length === 0 || count.isPending}
          onClick={() => count.mutate(true)}
        >
          {t('estate/stock/keep')}
        </Button>
        <span className={classes.quiet}>{t('estate/stock/scanned', { count: marks.length })}</span>
      </Group>
      <ProblemNote error={count.error} />
      {count.data && <Outcome counted={count.data} />}
    </EstateFrame>
  );
}
