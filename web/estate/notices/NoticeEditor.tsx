import {
  Alert,
  Button,
  Checkbox,
  Group,
  Modal,
  MultiSelect,
  Select,
  SimpleGrid,
  Textarea,
} from '@mantine/core';
import { useForm, type UseFormReturnType } from '@mantine/form';
import { notifications } from '@mantine/notifications';
import { useMutation, useQuery } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useNavigate } from 'react-router';
import type { Notice, NoticeBody } from '../../../contract/notices';
import type { ThingRef } from '../../../contract/estate';
import type { Audience } from '../../../core/catalogue';
import type { Named } from '../../../core/forms';
import { NOTICE_KINDS } from '../../../core/notices';
import { ApiProblem, call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAllServices, useMe, useTeams } from '../../api/queries';
import { now as serverNow } from '../../api/clock';
import { ThingSelect } from '../ThingSelect';
import { PersonInput } from '../../form/PersonInput';
import '../../messages/estateWords';
import '../../messages/servicesWords';
import '../../messages/noticesWords';
import { useWords } from '../../messages/useWords';
import { BothLanguages } from '../../ui/BothLanguages';
import { InstantInput } from '../../ui/InstantInput';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { AudienceSentence } from '../../workshop/services/AudiencePart';
import { useRenewNotices } from '../../notices/useNotices';

/** What a new notice begins with: what it was written from. */
export type NoticeSeed = Partial<NoticeBody> & {
  ofTicket?: number | null;
  ofWork?: number | null;
  numbers?: number[];
  things?: Pick<ThingRef, 'id' | 'name'>[];
};

type Values = Omit<NoticeBody, 'leadId' | 'thingIds'> & {
  lead: Named | null;
  things: Pick<ThingRef, 'id' | 'name'>[];
};
type Form = UseFormReturnType<Values>;
const NOTHING = { en: '', pt: '' };

function toValues(notice: Notice | null, seed: NoticeSeed, teamId: string): Values {
  if (notice) {
    const { kind, title, words, forAgents, audience, serviceIds, fromAt, untilAt, isPublic, isMajor } =
      notice;
    return {
      ...{ kind, title, words, forAgents, audience, serviceIds, fromAt, untilAt, isPublic, isMajor },
      ...{ teamId: notice.teamId, lead: notice.lead, things: notice.things },
    };
  }
  const { ofTicket: _, ofWork: __, numbers: ___, things = [], ...body } = seed;
  return {
    ...{
      kind: 'outage',
      title: NOTHING,
      words: NOTHING,
      forAgents: '',
      audience: [],
      serviceIds: [],
      teamId,
    },
    ...{ fromAt: serverNow(), untilAt: null, isPublic: false, isMajor: false, lead: null, things },
    ...body,
  };
}

const toBody = ({ lead, things, ...values }: Values): NoticeBody => ({
  ...values,
  leadId: lead?.id ?? null,
  thingIds: things.map(({ id }) => id),
});

/** What it is about: services by name, things by a few letters. */
function About({ form }: { form: Form }) {
  const { t, local } = useWords();
  const { data: services = [] } = useAllServices();
  const { things, serviceIds } = form.values;
  return (
    <>
      <MultiSelect
        label={t('notices/fields/services')}
        searchable
        data={services.map(({ id, title }) => ({ value: id, label: local(title) }))}
        value={serviceIds}
        error={form.errors.serviceIds}
        onChange={(value) => form.setFieldValue('serviceIds', value)}
      />
      <div>
        <ThingSelect
          label={t('notices/fields/things')}
          placeholder={t('notices/fields/addThing')}
          except={things.map(({ id }) => id)}
          onPick={({ id, name }) => form.setFieldValue('things', [...things, { id, name }])}
        />
        <Group gap={6} mt={4}>
          {things.map(({ id, name }) => (
            <Button
              key={id}
              size="compact-xs"
              variant="default"
              aria-label={`× ${name}`}
              onClick={() =>
                form.setFieldValue(
                  'things',
                  things.filter((thing) => thing.id !== id),
                )
              }
            >
              {name} ×
            </Button>
          ))}
        </Group>
      </div>
    </>
  );
}

function When({ form }: { form: Form }) {
  const { t } = useWords();
  const { kind, fromAt, untilAt } = form.values;
  return (
    <>
      <InstantInput
        label={t(kind === 'planned' ? 'notices/fields/plannedFrom' : 'notices/fields/fromAt')}
        value={fromAt}
        error={form.errors.fromAt}
        onChange={(at) => at !== null && form.setFieldValue('fromAt', at)}
      />
      <InstantInput
        label={t('notices/fields/untilAt')}
        value={untilAt}
        error={form.errors.untilAt}
        onChange={(at) => form.setFieldValue('untilAt', at)}
      />
    </>
  );
}

function Whose({ form }: { form: Form }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const { isMajor, lead } = form.values;
  return (
    <>
      <Select
        label={t('notices/fields/team')}
        searchable
        allowDeselect={false}
        data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
        {...form.getInputProps('teamId')}
      />
      <div>
        <Checkbox
          mt="lg"
          label={t('notices/fields/isPublic')}
          {...form.getInputProps('isPublic', { type: 'checkbox' })}
        />
        <Checkbox
          mt="xs"
          label={t('notices/fields/isMajor')}
          {...form.getInputProps('isMajor', { type: 'checkbox' })}
        />
      </div>
      {isMajor && (
        <PersonInput
          id="lead"
          label={t('notices/fields/lead')}
          value={lead}
          error={form.errors.leadId}
          onChange={(person) => form.setFieldValue('lead', person)}
        />
      )}
    </>
  );
}

/** How many people it goes to, said before it goes. */
function useReach(audience: Audience): number | null {
  const { data } = useQuery({
    queryKey: ['notices', 'reach', audience],
    placeholderData: (before) => before,
    queryFn: () => call(api.notices.reach, { body: { audience: audience } }),
  });
  return data?.people ?? null;
}

function Fields({ form }: { form: Form }) {
  const { t } = useWords();
  const { title, words, audience } = form.values;
  const people = useReach(audience);
  return (
    <>
      <Select
        label={t('notices/fields/kind')}
        w={260}
        allowDeselect={false}
        data={NOTICE_KINDS.map((kind) => ({ value: kind, label: t(`notices/kinds/${kind}`) }))}
        {...form.getInputProps('kind')}
      />
      <BothLanguages
        label={t('notices/fields/title')}
        isFixed={false}
        value={title}
        onChange={(value) => form.setFieldValue('title', value)}
      />
      {form.errors.title && (
        <Alert color="gray" variant="outline">
          {form.errors.title}
        </Alert>
      )}
      <BothLanguages
        label={t('notices/fields/words')}
        isLong
        isFixed={false}
        value={words}
        onChange={(value) => form.setFieldValue('words', value)}
      />
      <SimpleGrid cols={{ base: 1, sm: 2 }} spacing="sm" mt="sm">
        <When form={form} />
        <About form={form} />
        <Whose form={form} />
      </SimpleGrid>
      <Textarea mt="sm" autosize label={t('notices/fields/forAgents')} {...form.getInputProps('forAgents')} />
      <p>
        <b>{t('notices/fields/audience')}</b>
      </p>
      <AudienceSentence
        audience={audience}
        isFixed={false}
        count={people ?? 0}
        onChange={(value) => form.setFieldValue('audience', value)}
      />
      {people !== null && <p>{t('notices/reach', { count: people })}</p>}
    </>
  );
}

type Props = { notice?: Notice | null; seed?: NoticeSeed; onClose(): void };

/** Writes a notice, in a minute: most of it comes with what it was written from. */
export function NoticeEditor({ notice = null, seed = {}, onClose }: Props) {
  const { t } = useWords();
  const me = useMe();
  const navigate = useNavigate();
  const renew = useRenewNotices();
  const toProblems = useProblems();
  const form = useForm<Values>({ initialValues: toValues(notice, seed, me.teams[0]?.teamId ?? '') });
  const { ofTicket = null, ofWork = null, numbers = [] } = seed;
  const save = useMutation({
    mutationFn: async (values: Values) => {
      const body = toBody(values);
      if (notice) {
        const { id, version } = notice;
        await call(api.notices.update, { params: { id }, body: { ...body, version }, key: nanoid() });
        return id;
      }
      return (await call(api.notices.create, { body: { ...body, ofTicket, ofWork, numbers }, key: nanoid() }))
        .id;
    },
    onSuccess: (id) => {
      if (!notice) notifications.show({ message: t('notices/published') });
      void renew();
      onClose();
      void navigate(`/estate/notices/${id}`);
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  const isStale = save.error instanceof ApiProblem && save.error.code === 'stale';
  return (
    <Modal opened onClose={onClose} size="xl" title={t(notice ? 'notices/edit' : 'notices/new')}>
      <form onSubmit={form.onSubmit((values) => save.mutate(values))}>
        {ofTicket !== null && <p>{t('notices/ofTicket', { number: ofTicket })}</p>}
        {numbers.length > 0 && <p>{t('notices/ofMany', { count: numbers.length })}</p>}
        <Fields form={form} />
        {isStale && (
          <Alert mt="sm" color="gray" variant="outline">
            {t('notices/stale')}
          </Alert>
        )}
        {form.errors.ofTicket && (
          <Alert mt="sm" color="gray" variant="outline">
            {form.errors.ofTicket}
          </Alert>
        )}
        {!isStale && Object.keys(form.errors).length === 0 && <ProblemNote error={save.error} />}
        <Group mt="md">
          <Button type="submit" loading={save.isPending}>
            {t(notice ? 'notices/save' : 'notices/publish')}
          </Button>
          <Button variant="default" onClick={onClose}>
            {t('notices/cancel')}
          </Button>
        </Group>
      </form>
    </Modal>
  );
}
