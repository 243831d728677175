import { isAgent } from '../../../core/rights';
import { Button, Group, NativeSelect, Select, TextInput } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useDebouncedValue } from '@mantine/hooks';
import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import '../../messages/listsWords';
import { fillIn, type Answers } from '../../../core/forms';
import { Templates } from './Templates';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import {
  useAskSearch,
  useMe,
  usePeopleSearch,
  useRenew,
  useService,
  useAllServices,
} from '../../api/queries';
import { useDraft } from '../../api/useDraft';
import { useWords } from '../../messages/useWords';
import { FittingNotices } from '../../notices/Bands';
import { Lost } from '../../ui/Lost';
import { onEnterTakeOnly } from '../../ui/onlyHit';
import { PersonName } from '../../ui/PersonName';
import { ProblemNote } from '../../ui/ProblemNote';
import { PastConversations } from '../people/PastConversations';
import { PersonTickets, usePersonCard } from '../people/PersonTickets';
import { useWhyAlike } from '../ticket/Together';
import classes from './Raise.module.css';
import { IMPACTS, isInward, URGENCIES, type Impact, type Urgency } from '../../../core/tickets';

type Draft = {
  personId: string | null;
  serviceId: string | null;
  title: string;
  /** What a template answers. */
  answers: Answers;
  via: 'phone' | 'inPerson';
  /** As it was judged on the call; null: as the form or the service has it. */
  impact?: Impact | null;
  urgency?: Urgency | null;
  key: string;
};

/** Who is calling: what is open, and what happened before. */
function Caller({ id }: { id: string }) {
  const { t } = useWords();
  const { data, error } = usePersonCard(id);
  if (error) return <ProblemNote error={error} />;
  if (!data) return null;
  const facts = [data.title, data.department, data.site, data.known.vessel, data.known.device, data.phone];
  return (
    <section aria-label={t('raise/caller')} className={classes.caller}>
      <h2>
        <PersonName person={data} />
      </h2>
      <p>{facts.filter(Boolean).join(' · ')}</p>
      {data.manager && <p>{t('raise/manager', { name: data.manager })}</p>}
      <PersonTickets tickets={data.tickets} />
      {data.conversations.length > 0 && (
        <>
          <h3>{t('talk/desk/before')}</h3>
          <PastConversations conversations={data.conversations} />
        </>
      )}
      {data.tickets.length === 0 && <p>{t('raise/noHistory')}</p>}
    </section>
  );
}

/** Whether it is reported already. */
function Reported({ title, serviceId }: { title: string; serviceId: string }) {
  const { t } = useWords();
  const why = useWhyAlike();
  const [asked] = useDebouncedValue(title, 250);
  const { data = [] } = useQuery({
    queryKey: ['reported', asked, serviceId],
    enabled: asked.trim().length > 3,
    placeholderData: keepPreviousData,
    queryFn: () => call(api.together.reported, { query: { title: asked, serviceId } }),
  });
  if (data.length === 0) return null;
  return (
    <section className={classes.reported} aria-label={t('together/reported')}>
      <h2>{t('together/reported')}</h2>
      <ul>
        {data.map((like) => (
          <li key={like.number} data-like={like.number}>
            <Link to={`/desk/everything/${like.number}`}>
              {like.number} <bdi>{like.title}</bdi>
            </Link>
            <small>
              {like.requester} · {why(like)}
            </small>
          </li>
        ))}
      </ul>
    </section>
  );
}

type JudgedProps<V extends string> = {
  name: 'impact' | 'urgency';
  values: readonly V[];
  value: V | null | undefined;
  wordsOf(value: V): string;
  onChange(value: V | null): void;
};

/** How grave or how urgent it is, by who takes the call; null: as the form of the service has it. */
function Judged<V extends string>({ name, values, value, wordsOf, onChange }: JudgedProps<V>) {
  const { t } = useWords();
  return (
    <NativeSelect
      label={t(`conflict/fields/${name}`)}
      value={value ?? ''}
      data={[
        { value: '', label: t('raise/asService') },
        ...values.map((each) => ({ value: each, label: wordsOf(each) })),
      ]}
      onChange={({ target }) => onChange(values.find((each) => each === target.value) ?? null)}
    />
  );
}

/** Raising a ticket for someone who calls or stands at the desk: who, what, in a few words. The rest is filled in. */
export function RaisePage() {
  const { t, local } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const renew = useRenew();
  const [search] = useSearchParams();
  const [draft, setDraft, clear] = useDraft<Draft>('raise', {
    ...{ personId: search.get('for'), serviceId: null, title: '', answers: {}, via: 'phone', key: nanoid() },
  });
  const [typed, setTyped] = useState('');
  const [q] = useDebouncedValue(typed, 120);
  const { data: people = [], isPlaceholderData } = usePeopleSearch(q);
  const { data: all = [] } = useAllServices();
  const services = all.filter(({ kind }) => !isInward(kind));
  const { data: service } = useService(draft.serviceId ?? services[0]?.id ?? '');
  const { data: person } = usePersonCard(draft.personId);
  const [saidSoFar] = useDebouncedValue(draft.title, 120);
  const { data: fitting } = useAskSearch(saidSoFar, draft.personId);
  const send = useMutation({
    mutationFn: () =>
      call(api.tickets.create, {
        key: draft.key,
        body: {
          serviceId: draft.serviceId!,
          requesterId: draft.personId!,
          title: draft.title.trim(),
          answers: {
            ...(service?.id === draft.serviceId ? fillIn(service.form, person?.known ?? {}) : {}),
            ...draft.answers,
          },
          via: draft.via,
          ...(draft.impact && { impact: draft.impact }),
          ...(draft.urgency && { urgency: draft.urgency }),
        },
      }),
    onSuccess: async ({ number }) => {
      clear();
      renew(number);
      notifications.show({ message: t('service/sent', { number }) });
      await navigate(`/desk/everything/${number}`);
    },
  });
  if (!isAgent(me)) return <Lost />;
  const set = (change: Partial<Draft>): void => setDraft({ ...draft, ...change, key: nanoid() });
  const guessed = draft.title.trim() === '' ? [] : (fitting?.services ?? []);
  const isReady = draft.personId !== null && draft.serviceId !== null && draft.title.trim() !== '';
  const known = person && person.id === draft.personId ? [{ value: person.id, label: person.name }] : [];
  const found = people.map(({ id, name, title, site }) => ({
    value: id,
    label: `${name}, ${title}, ${site}`,
  }));
  return (
    <div className={classes.page}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (isReady) send.mutate();
        }}
      >
        <h1>{t('raise/title')}</h1>
        <Select
          autoFocus
          searchable
          clearable
          label={t('raise/who')}
          placeholder={t('raise/whoBlank')}
          filter={({ options }) => options}
          searchValue={typed}
          onSearchChange={setTyped}
          data={found.length > 0 ? found : known}
          value={draft.personId}
          onChange={(personId) => set({ personId })}
          onKeyDown={onEnterTakeOnly(people, q !== '' && q === typed && !isPlaceholderData, ({ id }) =>
            set({ personId: id }),
          )}
        />
        <TextInput
          label={t('raise/what')}
          placeholder={t('raise/whatBlank')}
          maxLength={200}
          value={draft.title}
          onChange={({ target }) => set({ title: target.value })}
        />
        <Select
          searchable
          label={t('raise/service')}
          placeholder={t('raise/serviceBlank')}
          data={services.map(({ id, title }) => ({ value: id, label: local(title) }))}
          value={draft.serviceId}
          onChange={(serviceId) => set({ serviceId, answers: {} })}
        />
        {draft.serviceId === null && guessed.length > 0 && (
          <div className={classes.guesses}>
            {guessed.slice(0, 3).map(({ id, title }) => (
              <Button
                key={id}
                size="compact-sm"
                variant="default"
                onClick={() => set({ serviceId: id, answers: {} })}
              >
                {local(title)}
              </Button>
            ))}
          </div>
        )}
        <NativeSelect
          label={t('raise/door')}
          value={draft.via}
          data={(['phone', 'inPerson'] as const).map((value) => ({ value, label: t(`doors/${value}`) }))}
          onChange={({ target }) => set({ via: target.value as Draft['via'] })}
        />
        <Group grow gap="sm">
          <Judged
            {...{ name: 'impact', values: IMPACTS, value: draft.impact }}
            wordsOf={(value) => t(`impacts/${value}`)}
            onChange={(impact) => set({ impact })}
          />
          <Judged
            {...{ name: 'urgency', values: URGENCIES, value: draft.urgency }}
            wordsOf={(value) => t(`urgencies/${value}`)}
            onChange={(urgency) => set({ urgency })}
          />
        </Group>
        <Templates
          draft={draft}
          onTake={({ serviceId, title, answers }) => set({ serviceId, title, answers })}
        />
        <ProblemNote error={send.error} />
        <Button type="submit" loading={send.isPending} disabled={!isReady}>
          {t('raise/send')}
        </Button>
        {draft.serviceId && (
          <Link
            className={classes.whole}
            to={`/ask/services/${draft.serviceId}?${new URLSearchParams({ title: draft.title, ...(draft.personId && { for: draft.personId, name: person?.name ?? '' }) })}`}
          >
            {t('raise/whole')}
          </Link>
        )}
        <FittingNotices
          words={draft.title}
          {...(draft.serviceId !== null && { service: draft.serviceId })}
          forPerson={draft.personId}
        />
        {draft.serviceId && <Reported title={draft.title} serviceId={draft.serviceId} />}
      </form>
      <aside>
        {draft.personId ? <Caller id={draft.personId} /> : <p className={classes.lead}>{t('raise/lead')}</p>}
      </aside>
    </div>
  );
}
