import { Button, SegmentedControl } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import '../../messages/assistantWords';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';
import workshop from '../Workshop.module.css';
import { Figures } from './Figures';
import { Insight } from './Insight';
import { MatterEditor } from './MatterEditor';
import { OwnWords } from './OwnWords';

const VIEWS = ['matters', 'sure', 'figures', 'words'] as const;

/** What the assistant can do, how sure it is, and how good. */
export function MattersPage() {
  const { t, local } = useWords();
  const [search, setSearch] = useSearchParams();
  const view = VIEWS.find((each) => each === search.get('view')) ?? 'matters';
  const id = search.get('matter');
  const [isNew, setNew] = useState(false);
  const { data, error, refetch } = useQuery({
    queryKey: ['matters'],
    queryFn: () => call(api.assistant.matters),
  });
  const chosen = isNew ? null : (data?.find((matter) => matter.id === id) ?? data?.[0] ?? null);
  return (
    <WorkshopFrame lead={t('assistant/workshop/lead')}>
      <SegmentedControl
        size="xs"
        mb="md"
        value={view}
        data={VIEWS.map((value) => ({ value, label: t(`assistant/workshop/${value}`) }))}
        onChange={(value) => setSearch({ view: value })}
      />
      {error && !data && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {view === 'sure' && <Insight />}
      {view === 'figures' && <Figures />}
      {view === 'words' && <OwnWords />}
      {view === 'matters' && data && (
        <div className={workshop.split}>
          <nav aria-label={t('assistant/workshop/matters')}>
            <ul className={workshop.list}>
              {data.map((matter) => (
                <li key={matter.id}>
                  <a
                    href={`/workshop/assistant?matter=${matter.id}`}
                    aria-current={chosen?.id === matter.id ? 'page' : undefined}
                    onClick={(event) => {
                      event.preventDefault();
                      setNew(false);
                      setSearch({ matter: matter.id });
                    }}
                  >
                    {local(matter.name)}
                    <small>
                      {t('assistant/workshop/count', { count: matter.phrasings.length })}
                      {!matter.isOn && ` · ${t('assistant/workshop/off')}`}
                    </small>
                  </a>
                </li>
              ))}
            </ul>
            {data.every(({ mayEdit }) => mayEdit) && (
              <Button size="xs" variant="default" onClick={() => setNew(true)}>
                {t('assistant/workshop/new')}
              </Button>
            )}
          </nav>
          <MatterEditor
            key={chosen?.id ?? 'new'}
            matter={chosen}
            onSaved={(savedId) => {
              setNew(false);
              setSearch({ matter: savedId });
            }}
          />
        </div>
      )}
    </WorkshopFrame>
  );
}
