import { Button, Group, NativeSelect, NumberInput, Table, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { AnswerOf } from '../../../contract/endpoint';
import {
  MOST_LEVEL,
  parseSkills,
  ROUTING_WAYS,
  writeSkills,
  type RoutingSettings,
} from '../../../core/routing';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useAllServices, useTeams } from '../../api/queries';
import { useWords } from '../../messages/useWords';
import { InlineRemove, InlineSelect, InlineText } from '../../ui/Inline';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { Waiting } from '../../ui/Waiting';
import { WorkshopFrame } from '../WorkshopFrame';

type Routing = AnswerOf<typeof api.routing.get>;
type Person = Routing['people'][number];

function NeedsPart({
  settings,
  isFixed,
  onChange,
}: {
  settings: RoutingSettings;
  isFixed: boolean;
  onChange(needs: RoutingSettings['needs']): void;
}) {
  const { t, local } = useWords();
  const { data: services = [] } = useAllServices();
  const options = services.map(({ id, title }) => ({ value: id, label: local(title) }));
  const { needs } = settings;
  const put = (i: number, change: Partial<RoutingSettings['needs'][number]>): void =>
    onChange(needs.with(i, { ...needs[i]!, ...change }));
  return (
    <>
      {needs.map((need, i) => (
        <p key={i} style={{ margin: '4px 0' }}>
          {t('workshop/route/needs')}{' '}
          <InlineSelect
            label={t('workshop/route/service')}
            value={need.serviceId}
            options={options}
            isFixed={isFixed}
            onChange={(serviceId) => put(i, { serviceId })}
          />{' '}
          {t('workshop/route/skill')}{' '}
          <InlineText
            label={t('workshop/route/skillName')}
            value={need.skill}
            isFixed={isFixed}
            onChange={(skill) => put(i, { skill })}
          />{' '}
          {t('workshop/route/level')}{' '}
          <InlineSelect
            label={t('workshop/route/levelName')}
            value={String(need.level)}
            options={Array.from({ length: MOST_LEVEL }, (_, level) => ({
              value: String(level + 1),
              label: String(level + 1),
            }))}
            isFixed={isFixed}
            onChange={(level) => put(i, { level: Number(level) })}
          />
          {!isFixed && <InlineRemove name={need.skill} onRemove={() => onChange(needs.toSpliced(i, 1))} />}
        </p>
      ))}
      {!isFixed && services[0] && (
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => onChange([...needs, { serviceId: services[0]!.id, skill: '', level: 1 }])}
        >
          {t('workshop/route/addNeed')}
        </Button>
      )}
    </>
  );
}

function Editor({ teamId, routing }: { teamId: string; routing: Routing }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const { data: teams = [] } = useTeams();
  const [settings, setSettings] = useState<RoutingSettings>(routing.settings);
  const [people, setPeople] = useState<(Person & { typed: string })[]>(() =>
    routing.people.map((person) => ({ ...person, typed: writeSkills(person.skills) })),
  );
  const isFixed = !routing.mayEdit;
  const save = useMutation({
    mutationFn: () =>
      call(api.routing.set, {
        params: { id: teamId },
        body: {
          settings,
          version: routing.version,
          people: people.map(({ id, capacity, typed }) => ({ id, capacity, skills: parseSkills(typed) })),
        },
      }),
    onSuccess: () =>
      Promise.all(['routing', 'teams'].map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
  const problems = useProblems()(save.error);
  const set = (change: Partial<RoutingSettings>): void => setSettings({ ...settings, ...change });
  const others = teams
    .filter(({ id }) => id !== teamId)
    .map(({ id, name }) => ({ value: id, label: local(name) }));
  const put = (i: number, change: Partial<Person & { typed: string }>): void =>
    setPeople(people.with(i, { ...people[i]!, ...change }));
  return (
    <>
      <p style={{ marginTop: 18 }}>
        {t('workshop/route/way')}{' '}
        <InlineSelect
          label={t('workshop/route/wayName')}
          value={settings.way}
          isFixed={isFixed}
          options={ROUTING_WAYS.map((value) => ({ value, label: t(`workshop/route/ways/${value}`) }))}
          onChange={(way) => set({ way: way as RoutingSettings['way'] })}
        />
        {'. '}
        {t('workshop/route/weighs')}{' '}
        <InlineText
          label={t('workshop/route/incident')}
          value={String(settings.units.incident)}
          isSmall
          isFixed={isFixed}
          onChange={(text) => set({ units: { ...settings.units, incident: Number(text) || 1 } })}
        />{' '}
        {t('workshop/route/weighsRequest')}{' '}
        <InlineText
          label={t('workshop/route/request')}
          value={String(settings.units.request)}
          isSmall
          isFixed={isFixed}
          onChange={(text) => set({ units: { ...settings.units, request: Number(text) || 1 } })}
        />
        .
      </p>
      <p>
        {t('workshop/route/nobody')}{' '}
        <InlineSelect
          label={t('workshop/route/next')}
          value={settings.next?.teamId ?? ''}
          isFixed={isFixed}
          options={[{ value: '', label: t('workshop/route/stays') }, ...others]}
          onChange={(next) =>
            set(
              next
                ? { next: { teamId: next, groupId: null }, goesOnAfter: settings.goesOnAfter ?? 60 }
                : { next: null, goesOnAfter: null },
            )
          }
        />
        {settings.next && (
          <>
            {' '}
            {t('workshop/route/after')}{' '}
            <InlineText
              label={t('workshop/route/minutes')}
              value={String(settings.goesOnAfter ?? '')}
              isSmall
              isFixed={isFixed}
              onChange={(text) => set({ goesOnAfter: Number(text) || 1 })}
            />{' '}
            {t('workshop/route/ofWorkingTime')}
          </>
        )}
      </p>
      <NeedsPart settings={settings} isFixed={isFixed} onChange={(needs) => set({ needs })} />
      <Table mt="md">
        <Table.Thead>
          <Table.Tr>
            <Table.Th>{t('workshop/route/person')}</Table.Th>
            <Table.Th>{t('workshop/route/carries')}</Table.Th>
            <Table.Th>{t('workshop/route/can')}</Table.Th>
            <Table.Th>{t('workshop/route/skills')}</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {people.map(({ id, name, load, capacity, typed, isAvailable, isAway }, i) => (
            <Table.Tr key={id}>
              <Table.Td>
                <bdi>{name}</bdi>
                {isAway
                  ? ` · ${t('workshop/route/away')}`
                  : !isAvailable
                    ? ` · ${t('workshop/route/busy')}`
                    : ''}
              </Table.Td>
              <Table.Td>{load}</Table.Td>
              <Table.Td w={110}>
                <NumberInput
                  size="xs"
                  min={1}
                  disabled={isFixed}
                  aria-label={`${name}: ${t('workshop/route/can')}`}
                  placeholder={t('workshop/route/noLimit')}
                  value={capacity ?? ''}
                  onChange={(value) => put(i, { capacity: typeof value === 'number' ? value : null })}
                />
              </Table.Td>
              <Table.Td>
                <TextInput
                  size="xs"
                  disabled={isFixed}
                  aria-label={`${name}: ${t('workshop/route/skills')}`}
                  placeholder={t('workshop/route/skillsBlank')}
                  value={typed}
                  onChange={({ target }) => put(i, { typed: target.value })}
                />
              </Table.Td>
            </Table.Tr>
          ))}
        </Table.Tbody>
      </Table>
      {Object.entries(problems).map(([field, words]) => (
        <p key={field} role="alert">
          {field.replace('needs.', '')}: {words}
        </p>
      ))}
      {save.error && Object.keys(problems).length === 0 && <ProblemNote error={save.error} />}
      {!isFixed && (
        <Group mt="md">
          <Button loading={save.isPending} onClick={() => save.mutate()}>
            {t('common/save')}
          </Button>
          {save.isSuccess && <span role="status">{t('workshop/route/saved')}</span>}
        </Group>
      )}
    </>
  );
}

/** How each team's tickets find a person. */
export function RoutingPage() {
  const { t, local } = useWords();
  const me = useMe();
  const { data: teams = [] } = useTeams();
  const [chosen, setChosen] = useState<string | null>(null);
  const teamId = chosen ?? me.teams[0]?.teamId ?? teams[0]?.id ?? null;
  const { data, error } = useQuery({
    queryKey: ['routing', teamId],
    enabled: teamId !== null,
    queryFn: () => call(api.routing.get, { params: { id: teamId! } }),
  });
  return (
    <WorkshopFrame lead={t('workshop/route/lead')}>
      <NativeSelect
        w={260}
        label={t('workshop/route/team')}
        value={teamId ?? ''}
        data={teams.map(({ id, name }) => ({ value: id, label: local(name) }))}
        onChange={({ target }) => setChosen(target.value)}
      />
      <ProblemNote error={error} />
      {data && teamId ? (
        <Editor key={`${teamId}:${data.version}`} teamId={teamId} routing={data} />
      ) : (
        <Waiting />
      )}
    </WorkshopFrame>
  );
}
