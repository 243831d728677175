import { isAgent } from '../../../core/rights';
import { Alert, Button, Group, Pill, TextInput } from '@mantine/core';
import { useEffect, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import type { Service } from '../../../contract/catalogue';
import { isNeeded, listPages } from '../../../core/forms';
import { ApiProblem } from '../../api/call';
import { useMe, useService, useTicket } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { Lost } from '../../ui/Lost';
import { PersonPicker } from '../../ui/PersonPicker';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { useMoney } from '../../ui/useMoney';
import { Waiting } from '../../ui/Waiting';
import { useServiceLine } from '../home/useServiceLine';
import { FittingNotices } from '../../notices/Bands';
import { FieldInput, FieldLabel } from '../../form/FieldInput';
import { Fitting } from './Fitting';
import { RecurringCase } from './RecurringCase';
import classes from './ServicePage.module.css';
import { ServiceIcon } from '../../ui/ServiceIcon';
import { useServiceForm, type Like } from './useServiceForm';

/** The place that an address carries. */
function readPlace(search: URLSearchParams): { site?: string; place?: string } {
  const site = search.get('site');
  const place = search.get('place');
  return { ...(site && { site }), ...(place && { place }) };
}

/** Until when a service is open, and for how many more; null: always, for any number. */
function useOpenWords(): (service: Service) => string | null {
  const { t } = useWords();
  const times = useTimes();
  return ({ standing }) => {
    if (standing.state !== 'open') return null;
    const { until, left } = standing;
    const words = [
      until !== null && t('service/openUntil', { at: times.full(until) }),
      left !== null && t('service/placesLeft', { count: left }),
    ].filter(Boolean);
    return words.length === 0 ? null : words.join(' · ');
  };
}

function ServiceForm({ service, like }: { service: Service; like: Like | null }) {
  const { t, local } = useWords();
  const money = useMoney();
  const me = useMe();
  const lineOf = useServiceLine();
  const openWords = useOpenWords();
  const [search, setSearch] = useSearchParams();
  const forPerson = me.mayAskForOthers ? search.get('for') : null;
  const form = useServiceForm(service, {
    title: search.get('title') ?? '',
    forPerson,
    hangsAt: readPlace(search),
    like,
  });
  const [at, setAt] = useState(0);
  const [toMend, setToMend] = useState<string | null>(null);
  const { draft, problems, sending } = form;
  const count = Object.keys(problems).length;
  const pages = listPages(service.form, draft.answers);
  const page = Math.min(at, pages.length - 1);
  const isLast = page === pages.length - 1;
  // The page of what is to be mended comes first, then its question can be entered.
  useEffect(() => {
    if (toMend !== null) document.getElementById(`field-${toMend}`)?.focus();
  }, [toMend, page]);
  const send = (): void => {
    const [first] = form.send();
    if (first === undefined) return;
    const found = pages.findIndex((fields) => fields.some(({ name }) => name === first));
    setAt(Math.max(0, found));
    setToMend(null);
    requestAnimationFrame(() => setToMend(first));
  };
  const pickOther = (person: { id: string; name: string }): void =>
    setSearch({ for: person.id, name: person.name });
  const line = [
    lineOf(service),
    service.cost === null ? null : t('service/cost', { amount: money(service.cost) }),
    openWords(service),
  ]
    .filter(Boolean)
    .join(' · ');
  return (
    <div className={classes.page}>
      <Link to="/ask">{t('common/back')}</Link>
      <h1>
        <ServiceIcon name={service.icon} size={26} /> {local(service.title)}
      </h1>
      <p className={classes.lead}>
        {local(service.description)}
        <br />
        {line}
      </p>
      {service.isConfidential && (
        <Alert mb="md" color="gray" variant="outline">
          {t('service/confidential', { team: local(service.teamName) })}
        </Alert>
      )}
      <form
        className={classes.card}
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          if (isLast) send();
          else setAt(page + 1);
        }}
      >
        {me.mayAskForOthers && (
          <Group align="flex-end">
            {forPerson !== null && (
              <Pill size="lg">{t('service/forWhom', { name: search.get('name') ?? forPerson })}</Pill>
            )}
            <PersonPicker
              label={t('service/forOther')}
              placeholder={t('service/forWhom', { name: me.name })}
              onPick={pickOther}
            />
          </Group>
        )}
        {page === 0 && (
          <RecurringCase
            serviceId={service.id}
            onTake={({ title, answers }) => form.change({ title, answers: { ...draft.answers, ...answers } })}
          />
        )}
        {page === 0 && <FittingNotices words={draft.title} service={service.id} forPerson={forPerson} />}
        {page === 0 && (
          <TextInput
            id="field-title"
            label={<FieldLabel text={t('service/heading')} isNeeded />}
            description={t('service/headingHelp')}
            value={draft.title}
            error={problems.title}
            onChange={({ target }) => form.change({ title: target.value })}
          />
        )}
        {page === 0 && <Fitting words={draft.title} serviceId={service.id} onSolved={form.startAfresh} />}
        {pages[page]!.map((field) => (
          <FieldInput
            key={field.name}
            {...{ field, value: draft.answers[field.name], error: problems[field.name], files: draft.files }}
            forPerson={forPerson}
            isNeeded={isNeeded(field, draft.answers)}
            isFilled={
              form.known[field.name] !== undefined && form.known[field.name] === draft.answers[field.name]
            }
            onFiles={(files) => form.change({ files })}
            onChange={(value) => form.answer(field.name, value)}
          />
        ))}
        <PersonPicker
          label={t('service/alsoTold')}
          description={t('service/alsoToldHelp')}
          onPick={(person) =>
            form.change({ alsoTold: [...draft.alsoTold.filter(({ id }) => id !== person.id), person] })
          }
        />
        {draft.alsoTold.length > 0 && (
          <Group gap={6}>
            {draft.alsoTold.map(({ id, name }) => (
              <Pill
                key={id}
                withRemoveButton
                onRemove={() =>
                  form.change({ alsoTold: draft.alsoTold.filter((person) => person.id !== id) })
                }
              >
                {name}
              </Pill>
            ))}
          </Group>
        )}
        {count > 0 && <p role="alert">{t('service/mend', { count })}</p>}
        {sending.error && count === 0 && <ProblemNote error={sending.error} />}
        <Group>
          {page > 0 && (
            <Button variant="default" onClick={() => setAt(page - 1)}>
              {t('form/pageBefore')}
            </Button>
          )}
          <Button type="submit" loading={sending.isPending}>
            {isLast
              ? t('service/send', { team: local(service.teamName) })
              : t('form/pageNext', { page: page + 2, pages: pages.length })}
          </Button>
          <Button variant="subtle" color="gray" onClick={form.startAfresh}>
            {t('service/startAfresh')}
          </Button>
        </Group>
        <span className={classes.note}>{t('service/kept')}</span>
      </form>
    </div>
  );
}

/** Why a service cannot be asked for: it is off for now, for others, not open yet, over, or taken. */
function useClosedWords(service: Service): { title: string; help: string } {
  const { t, local } = useWords();
  const times = useTimes();
  const team = local(service.teamName);
  const { standing } = service;
  if (!service.isOn)
    return {
      title: t('service/off'),
      help: (service.offWords && local(service.offWords).trim()) || t('service/offHelp'),
    };
  if (!service.isForYou) return { title: t('service/notForYou'), help: t('service/notForYouHelp', { team }) };
  if (standing.state === 'open') return { title: '', help: '' };
  const at = 'at' in standing ? times.full(standing.at) : '';
  return {
    title: t(`service/closed/${standing.state}`, { at }),
    help: t(`service/closed/${standing.state}Help`, { team }),
  };
}

/** A service that cannot be asked for. */
function Closed({ service }: { service: Service }) {
  const { t, local } = useWords();
  const { title, help } = useClosedWords(service);
  return (
    <div className={classes.page}>
      <Link to="/ask">{t('common/back')}</Link>
      <h1>{local(service.title)}</h1>
      <Alert color="gray" variant="outline" title={title}>
        {help}
      </Alert>
    </div>
  );
}

/** A service and its form. */
export function ServicePage() {
  const { id = '' } = useParams();
  const me = useMe();
  const [search] = useSearchParams();
  const forPerson = me.mayAskForOthers || isAgent(me) ? search.get('for') : null;
  const like = search.get('like');
  const before = useTicket(Number(like), like !== null);
  const { data, error, isPending, refetch } = useService(id, forPerson);
  if (isPending) return <Waiting />;
  if (error instanceof ApiProblem && error.code === 'notFound') return <Lost />;
  if (!data) return <ProblemNote error={error} onRetry={() => void refetch()} />;
  // Who writes down what someone else asked may do so at any time.
  const isForSomeone = forPerson !== null && isAgent(me);
  if (!data.isOn || !data.isForYou || (data.standing.state !== 'open' && !isForSomeone))
    return <Closed service={data} />;
  if (like !== null && before.isPending) return <Waiting />;
  return <ServiceForm key={`${id}:${like}`} service={data} like={before.data ?? null} />;
}
