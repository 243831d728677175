import { Button, Menu, Modal } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { EditedService } from '../../../contract/services';
import { ApiProblem, call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { BothLanguages } from '../../ui/BothLanguages';
import { InTheWay } from './InTheWay';
import { NewService } from './NewService';
import { Share } from './Share';
import classes from './services.module.css';
import type { Writing } from './useService';
import { Versions } from './Versions';

const EMPTY = { en: '', pt: '' };

/** What can be done with a service: publish, switch off, copy, hand on; and what is in the way. */
export function PublishBar({ service, writing }: { service: EditedService; writing: Writing }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const navigate = useNavigate();
  const [dialog, setDialog] = useState<'off' | 'copy' | 'share' | 'discard' | 'versions' | null>(null);
  const [offWords, setOffWords] = useState(service.offWords ?? EMPTY);
  const { id, version, isOn, openRequests } = service;
  const { definition, problems, draftVersion, settle } = writing;
  const params = { id };
  const renew = async (): Promise<void> => {
    for (const name of ['edited', 'serviceLines', 'services', 'service'])
      await client.invalidateQueries({ queryKey: [name] });
  };
  const publish = useMutation({
    mutationFn: async () => call(api.services.publish, { params, body: { draftVersion: await settle() } }),
    onSuccess: async (done) => {
      notifications.show({ message: t('services/editor/done', { version: done.version }) });
      await renew();
    },
  });
  const turn = useMutation({
    mutationFn: (on: boolean) =>
      call(api.services.turn, { params, body: { isOn: on, offWords: on ? null : offWords } }),
    onSuccess: async () => {
      setDialog(null);
      await renew();
    },
  });
  const discard = useMutation({
    mutationFn: () => call(api.services.discard, { params }),
    onSuccess: async () => {
      setDialog(null);
      if (version === 0) await navigate('/workshop/services');
      await renew();
    },
  });
  const hasDraft = draftVersion > 0 || writing.keeping.state === 'saving';
  const keeps =
    version > 0 && openRequests > 0 ? ` ${t('services/editor/keeps', { count: openRequests })}` : '';
  return (
    <>
      <div className={classes.bar}>
        <Button
          disabled={!hasDraft || problems.length > 0 || writing.isStale}
          loading={publish.isPending}
          onClick={() => publish.mutate()}
        >
          {t('services/editor/publish')}
        </Button>
        <Menu>
          <Menu.Target>
            <Button variant="default">…</Button>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item onClick={() => setDialog('share')}>{t('services/editor/share')}</Menu.Item>
            <Menu.Item onClick={() => setDialog('copy')}>{t('services/editor/copy')}</Menu.Item>
            {version > 0 && (
              <Menu.Item onClick={() => setDialog('versions')}>{t('services/versions/title')}</Menu.Item>
            )}
            {version > 0 && isOn && (
              <Menu.Item onClick={() => setDialog('off')}>{t('services/editor/turnOff')}</Menu.Item>
            )}
            {version > 0 && !isOn && (
              <Menu.Item onClick={() => turn.mutate(true)}>{t('services/editor/turnOn')}</Menu.Item>
            )}
            {hasDraft && (
              <Menu.Item onClick={() => setDialog('discard')}>{t('services/editor/discard')}</Menu.Item>
            )}
          </Menu.Dropdown>
        </Menu>
        <span className={classes.quiet} role="status">
          {problems.length > 0 ? (
            <InTheWay problems={problems} />
          ) : hasDraft ? (
            t('services/editor/ready') + keeps
          ) : (
            t('services/editor/nothingNew')
          )}
        </span>
      </div>
      <ProblemNote error={publish.error instanceof ApiProblem ? publish.error : null} />
      {dialog === 'off' && (
        <Modal opened onClose={() => setDialog(null)} title={t('services/editor/offTitle')}>
          <BothLanguages
            isLong
            isFixed={false}
            label={t('services/editor/offWords')}
            value={offWords}
            onChange={setOffWords}
          />
          <ProblemNote error={turn.error} />
          <Button mt="md" loading={turn.isPending} onClick={() => turn.mutate(false)}>
            {t('services/editor/offNow')}
          </Button>
        </Modal>
      )}
      {dialog === 'discard' && (
        <Modal opened onClose={() => setDialog(null)} title={t('services/editor/discard')}>
          <p>{t('services/editor/discardSure', { name: local(definition.title) })}</p>
          <ProblemNote error={discard.error} />
          <Button mt="md" loading={discard.isPending} onClick={() => discard.mutate()}>
            {t('services/editor/discard')}
          </Button>
        </Modal>
      )}
      {dialog === 'copy' && (
        <NewService
          copyOf={{ id, title: definition.title, teamId: definition.teamId }}
          onClose={() => setDialog(null)}
        />
      )}
      {dialog === 'versions' && (
        <Versions
          id={id}
          mayTake={service.mayEdit && !writing.isStale}
          onClose={() => setDialog(null)}
          onTake={(former) => {
            writing.change(former);
            setDialog(null);
          }}
        />
      )}
      {dialog === 'share' && (
        <Share
          id={id}
          title={local(definition.title)}
          audience={writing.audience}
          embedOrigins={service.embedOrigins}
          onClose={() => setDialog(null)}
        />
      )}
    </>
  );
}
