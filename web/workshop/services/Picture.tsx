import { Button, TextInput } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { fillIn, isNeeded, listPages, type Answers, type FormDefinition } from '../../../core/forms';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useMe, useTeams } from '../../api/queries';
import { FieldInput, FieldLabel } from '../../form/FieldInput';
import { useWords } from '../../messages/useWords';
import { PersonPicker } from '../../ui/PersonPicker';
import { useMoney } from '../../ui/useMoney';
import classes from './services.module.css';
import { ServiceIcon } from '../../ui/ServiceIcon';
import type { PartProps } from './useService';

function useAs(id: string, personId: string | null) {
  return useQuery({
    queryKey: ['tryAs', id, personId],
    enabled: personId !== null,
    queryFn: () => call(api.services.tryAs, { params: { id, personId: personId! } }),
  });
}

/** The form as someone will see it: answered here as one likes, and never sent. */
export function Picture({ id, definition }: { id: string; definition: PartProps['definition'] }) {
  const { t, local } = useWords();
  const me = useMe();
  const money = useMoney();
  const { data: teams = [] } = useTeams();
  const [as, setAs] = useState<string | null>(null);
  const { data: other } = useAs(id, as);
  const [said, setSaid] = useState<Answers>({});
  const [page, setPage] = useState(0);
  const form = definition.form as FormDefinition;
  const known = fillIn(form, other?.known ?? me.known);
  const answers: Answers = { ...known, ...said };
  const pages = listPages(form, answers);
  const shown = Math.min(page, pages.length - 1);
  const team = teams.find((each) => each.id === definition.teamId);
  const facts = [
    definition.cost !== null && t('service/cost', { amount: money(definition.cost) }),
    definition.approvals.length > 0 && definition.approvals.map(({ name }) => local(name)).join(', '),
  ].filter(Boolean);
  return (
    <aside className={classes.picture}>
      <div className={classes.as}>
        <span>
          {t('services/picture/as')} <strong>{other ? `${other.name}, ${other.title}` : me.name}</strong>{' '}
          {t('services/picture/sees')}
        </span>
      </div>
      <PersonPicker label={t('services/picture/choose')} onPick={(person) => setAs(person.id)} />
      {other && !other.isForThem && <p className={classes.problem}>{t('services/picture/notForThem')}</p>}
      <div className={classes.card} style={{ marginTop: 12 }} inert={other?.isForThem === false}>
        <div>
          <h2>
            <ServiceIcon name={definition.icon} /> {local(definition.title) || '…'}
          </h2>
          <p className={classes.quiet}>{local(definition.description)}</p>
          {facts.length > 0 && <p className={classes.quiet}>{facts.join(' · ')}</p>}
        </div>
        {shown === 0 && (
          <TextInput
            label={<FieldLabel text={t('service/heading')} isNeeded />}
            description={t('service/headingHelp')}
          />
        )}
        {pages[shown]!.map((field, i) => (
          <FieldInput
            // Two may be stored alike while they are being written.
            key={`${field.name}${i}`}
            {...{ field, value: answers[field.name], error: undefined, files: [], forPerson: as }}
            isNeeded={isNeeded(field, answers)}
            isFilled={
              known[field.name] !== undefined &&
              known[field.name] === answers[field.name] &&
              field.filledFrom !== undefined
            }
            onFiles={() => undefined}
            onChange={(value) => setSaid({ ...said, [field.name]: value })}
          />
        ))}
        <div className={classes.as} style={{ margin: 0 }}>
          {shown > 0 && (
            <Button variant="default" onClick={() => setPage(shown - 1)}>
              {t('form/pageBefore')}
            </Button>
          )}
          {shown < pages.length - 1 ? (
            <Button onClick={() => setPage(shown + 1)}>
              {t('form/pageNext', { page: shown + 2, pages: pages.length })}
            </Button>
          ) : (
            <Button disabled>{t('service/send', { team: team ? local(team.name) : '' })}</Button>
          )}
        </div>
        <small className={classes.quiet}>{t('services/picture/try')}</small>
      </div>
    </aside>
  );
}
