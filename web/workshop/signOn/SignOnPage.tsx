import { Anchor, Button, CopyButton, Group, Table, Text } from '@mantine/core';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { ProviderView } from '../../../contract/signOn';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe } from '../../api/queries';
import '../../messages/peopleWords';
import '../../messages/signOnWords';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { Waiting } from '../../ui/Waiting';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';
import { Access } from './Access';
import { ProviderForm } from './ProviderForm';
import { useRenewSignOn, useSignOn, type SignOnPage as Page } from './useSignOn';

function Row({ provider: { id, name, domains, isOn, people } }: { provider: ProviderView }) {
  const { t } = useWords();
  return (
    <Table.Tr>
      <Table.Td>
        <Anchor component={Link} to={`/workshop/signOn/${id}`} fw={600}>
          {name}
        </Anchor>
        <small className={classes.small}>{domains.join(', ')}</small>
      </Table.Td>
      <Table.Td>{t(isOn ? 'signOn/on' : 'signOn/off')}</Table.Td>
      <Table.Td>{t('signOn/people', { count: people })}</Table.Td>
    </Table.Tr>
  );
}

function All({ page }: { page: Page }) {
  const { t } = useWords();
  return (
    <>
      <section className={classes.section} aria-labelledby="sign-on-providers">
        <h2 id="sign-on-providers">{t('signOn/providers')}</h2>
        {page.providers.length === 0 && <p>{t('signOn/none')}</p>}
        {page.providers.length > 0 && (
          <Table mb="sm">
            <Table.Tbody>
              {page.providers.map((provider) => (
                <Row key={provider.id} provider={provider} />
              ))}
            </Table.Tbody>
          </Table>
        )}
        <Button size="xs" component={Link} to="/workshop/signOn/new">
          {t('signOn/new')}
        </Button>
      </section>
      <Access page={page} />
    </>
  );
}

/** What the provider has to know, and what it says when it is asked. */
function LinkBack({ address }: { address: string }) {
  const { t } = useWords();
  return (
    <Group gap="sm" mb="md">
      <Text size="sm">
        {t('signOn/returnAddress')} <code>{address}</code>
      </Text>
      <CopyButton value={address}>
        {({ copied, copy }) => (
          <Button size="compact-sm" variant="default" onClick={copy}>
            {t(copied ? 'signOn/copied' : 'signOn/copy')}
          </Button>
        )}
      </CopyButton>
    </Group>
  );
}

function Check({ id }: { id: string }) {
  const { t } = useWords();
  const check = useMutation({ mutationFn: () => call(api.signOn.check, { params: { id }, body: {} }) });
  const said =
    check.data &&
    (check.data.error === null
      ? t(check.data.endsSessions ? 'signOn/checkEnds' : 'signOn/checkOk')
      : t('signOn/checkFailed', { error: check.data.error }));
  return (
    <Group gap="sm" mb="md">
      <Button size="compact-sm" variant="default" loading={check.isPending} onClick={() => check.mutate()}>
        {t('signOn/check')}
      </Button>
      <Text size="sm" role="status">
        {said}
      </Text>
      <ProblemNote error={check.error} />
    </Group>
  );
}

function Remove({ id }: { id: string }) {
  const { t } = useWords();
  const navigate = useNavigate();
  const renew = useRenewSignOn();
  const [isAsked, setAsked] = useState(false);
  const remove = useMutation({
    mutationFn: () => call(api.signOn.remove, { params: { id } }),
    onSuccess: async () => {
      await navigate('/workshop/signOn', { replace: true });
      await renew();
    },
  });
  return (
    <>
      <Button
        {...{ mt: 'lg', size: 'compact-sm', variant: 'default', loading: remove.isPending }}
        onClick={() => (isAsked ? remove.mutate() : setAsked(true))}
      >
        {t(isAsked ? 'signOn/removeSure' : 'signOn/remove')}
      </Button>
      <ProblemNote error={remove.error} />
    </>
  );
}

function One({ page, id, onReload }: { page: Page; id: string; onReload(): void }) {
  const { t } = useWords();
  const provider = page.providers.find((each) => each.id === id) ?? null;
  if (id !== 'new' && provider === null) return <Lost />;
  return (
    <>
      <Anchor component={Link} to="/workshop/signOn" size="sm">
        {t('signOn/back')}
      </Anchor>
      <h2>{provider?.name ?? t('signOn/new')}</h2>
      <LinkBack address={page.returnAddress} />
      {provider && <Check id={provider.id} />}
      <ProviderForm key={`${id} ${provider?.version}`} provider={provider} onReload={onReload} />
      {provider && <Remove id={provider.id} />}
    </>
  );
}

/** Where and how people sign in; one of the providers. */
export function SignOnPage() {
  const { t } = useWords();
  const me = useMe();
  const { id } = useParams();
  const { data, error, refetch } = useSignOn();
  if (!me.isAdministrator) return <Lost />;
  return (
    <WorkshopFrame lead={t('signOn/lead')}>
      {error && <ProblemNote error={error} onRetry={() => void refetch()} />}
      {!data && !error && <Waiting />}
      {data && id === undefined && <All page={data} />}
      {data && id !== undefined && <One page={data} id={id} onReload={() => void refetch()} />}
    </WorkshopFrame>
  );
}
