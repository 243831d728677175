import { Anchor, Button, Checkbox, Group, MultiSelect, NumberInput, Select } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { ThingKind, ThingKindBody } from '../../../contract/thingKinds';
import { SEEN_BY } from '../../../contract/estateNames';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useAllServices, useMe, useTeams } from '../../api/queries';
import estate from '../../estate/Estate.module.css';
import { useKinds, useRenewThings } from '../../estate/useThings';
import '../../messages/estateWords';
import '../../messages/listsWords';
import '../../messages/servicesWords';
import { useWords } from '../../messages/useWords';
import { BothLanguages } from '../../ui/BothLanguages';
import { Lost } from '../../ui/Lost';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { Waiting } from '../../ui/Waiting';
import { QuestionsPart } from '../services/QuestionsPart';
import classes from '../Workshop.module.css';
import { WorkshopFrame } from '../WorkshopFrame';

const EMPTY: ThingKindBody = {
  ...{ name: { en: '', pt: '' }, form: { fields: [] }, seenBy: 'everyone', keptBy: [], isHandedOut: true },
  ...{ serviceId: null, months: null },
};
const bodyOf = ({
  name,
  form,
  seenBy,
  keptBy,
  isHandedOut,
  serviceId,
  months,
}: ThingKind): ThingKindBody => ({
  ...{ name, form, seenBy, keptBy, isHandedOut, serviceId, months },
});

type Part = {
  body: ThingKindBody;
  set(part: Partial<ThingKindBody>): void;
  problems: Record<string, string>;
};

function Settings({ body, set, problems }: Part) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const { data: services = [] } = useAllServices();
  return (
    <>
      <BothLanguages
        label={t('estate/kindPage/name')}
        value={body.name}
        isFixed={false}
        onChange={(name) => set({ name })}
      />
      {problems.name && <p role="alert">{problems.name}</p>}
      <Group align="start" my="sm">
        <Select
          {...{ allowDeselect: false, w: 300 }}
          label={t('estate/kindPage/seenBy')}
          value={body.seenBy}
          data={SEEN_BY.map((who) => ({ value: who, label: t(`estate/kindPage/seen/${who}`) }))}
          onChange={(who) => set({ seenBy: SEEN_BY.find((each) => each === who) ?? 'everyone' })}
        />
        <MultiSelect
          {...{ searchable: true, w: 300 }}
          label={t('estate/kindPage/keptBy')}
          {...(body.keptBy.length === 0 && { placeholder: t('estate/kindPage/everyTeam') })}
          value={body.keptBy}
          error={problems.keptBy}
          data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
          onChange={(keptBy) => set({ keptBy })}
        />
        <Select
          {...{ searchable: true, clearable: true, w: 260 }}
          label={t('estate/kindPage/service')}
          placeholder={t('estate/kindPage/noService')}
          value={body.serviceId}
          data={services.map(({ id, title }) => ({ value: id, label: local(title) }))}
          onChange={(serviceId) => set({ serviceId })}
        />
        <NumberInput
          {...{ min: 1, max: 600, w: 220 }}
          label={t('estate/kindPage/months')}
          value={body.months ?? ''}
          error={problems.months}
          onChange={(months) => set({ months: months === '' ? null : Number(months) })}
        />
      </Group>
      <Checkbox
        mb="sm"
        label={t('estate/kindPage/isHandedOut')}
        checked={body.isHandedOut}
        onChange={({ target }) => set({ isHandedOut: target.checked })}
      />
    </>
  );
}

/** A kind, as it is written. What was typed stays where keeping it fails. */
function KindEditor({ kind }: { kind: ThingKind | null }) {
  const { t } = useWords();
  const navigate = useNavigate();
  const renew = useRenewThings();
  const [body, setBody] = useState(kind ? bodyOf(kind) : EMPTY);
  const save = useMutation({
    mutationFn: async () => {
      if (!kind) return (await call(api.estate.createKind, { body, key: nanoid() })).id;
      const { id, version } = kind;
      await call(api.estate.updateKind, { params: { id }, body: { ...body, version }, key: nanoid() });
      return id;
    },
    onSuccess: async () => {
      await renew();
      notifications.show({ message: t('estate/saved') });
      void navigate('/workshop/things');
    },
  });
  const problems = useProblems()(save.error);
  const set = (part: Partial<ThingKindBody>): void => setBody({ ...body, ...part });
  const said = Object.entries(problems).filter(([field]) => field.startsWith('form'));
  return (
    <section>
      <Settings {...{ body, set, problems }} />
      <h2>{t('estate/kindPage/questions')}</h2>
      <QuestionsPart definition={{ form: body.form }} isFixed={false} change={set} />
      {said.map(([field, words]) => (
        <p key={field} role="alert">
          {field.slice('form.'.length)}: {words}
        </p>
      ))}
      {Object.keys(problems).length === 0 && <ProblemNote error={save.error} />}
      <Group mt="md">
        <Button loading={save.isPending} onClick={() => save.mutate()}>
          {t('estate/save')}
        </Button>
        <Button variant="default" component={Link} to="/workshop/things">
          {t('estate/cancel')}
        </Button>
      </Group>
    </section>
  );
}

function KindList({ kinds }: { kinds: ThingKind[] }) {
  const { t, local } = useWords();
  const { data: teams = [] } = useTeams();
  const nameOf = (id: string): string =>
    local(teams.find((team) => team.id === id)?.name ?? { en: '…', pt: '…' });
  return (
    <>
      <Button size="xs" mb="md" component={Link} to="/workshop/things/new">
        {t('estate/kindPage/new')}
      </Button>
      {kinds.length === 0 && <p>{t('estate/kindPage/none')}</p>}
      <ul className={estate.list}>
        {kinds.map(({ id, name, count, seenBy, keptBy, form }) => (
          <li key={id}>
            <Anchor component={Link} to={`/workshop/things/${id}`} fw={600}>
              {local(name)}
            </Anchor>
            <small>
              <Link to={`/estate?kindId=${id}`}>{t('estate/kindPage/count', { count })}</Link>
              {' · '}
              {[
                t(`estate/kindPage/seen/${seenBy}`),
                `${t('estate/kindPage/keptBy')}: ${keptBy.length === 0 ? t('estate/kindPage/everyTeam') : keptBy.map(nameOf).join(', ')}`,
                form.fields.map(({ label }) => local(label)).join(', '),
              ]
                .filter(Boolean)
                .join(' · ')}
            </small>
          </li>
        ))}
      </ul>
    </>
  );
}

/** The kinds of things that are kept track of, for administrators. */
export function KindsPage() {
  const { t } = useWords();
  const me = useMe();
  const { id } = useParams();
  const { data: kinds, error, refetch } = useKinds();
  if (!me.isAdministrator) return <Lost />;
  const kind = kinds?.find((each) => each.id === id) ?? null;
  return (
    <WorkshopFrame lead={t('estate/kindPage/lead')}>
      <div className={classes.section}>
        {error && !kinds && <ProblemNote error={error} onRetry={() => void refetch()} />}
        {!kinds && !error && <Waiting />}
        {kinds && id === undefined && <KindList kinds={kinds} />}
        {kinds && id !== undefined && (id === 'new' || kind ? <KindEditor key={id} kind={kind} /> : <Lost />)}
      </div>
    </WorkshopFrame>
  );
}
