import { Button, Group, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import type { Team } from '../../../contract/people';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import classes from '../Workshop.module.css';

/** The groups of a team, and one more. */
export function Groups({ team: { id, name, groups, mayEdit } }: { team: Team }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const toProblems = useProblems();
  const form = useForm({ initialValues: { name: '' } });
  const make = useMutation({
    mutationFn: (body: { name: string }) =>
      call(api.organisation.createGroup, { params: { id }, body, key: nanoid() }),
    onSuccess: () => {
      form.reset();
      return client.invalidateQueries({ queryKey: ['teams'] });
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  if (groups.length === 0 && !mayEdit) return null;
  const names = groups.map((group) => group.name).join(', ');
  const label = t('workshop/team/newGroup', { team: local(name) });
  return (
    <>
      {groups.length > 0 && !mayEdit && <small className={classes.small}>{names}</small>}
      {mayEdit && (
        <form onSubmit={form.onSubmit((values) => make.mutate(values))} aria-label={label}>
          <Group gap="xs" mt={10} align="end">
            <TextInput
              size="xs"
              label={t('workshop/team/groups')}
              description={names}
              placeholder={t('workshop/team/groupName')}
              {...form.getInputProps('name')}
            />
            <Button
              type="submit"
              size="xs"
              variant="default"
              loading={make.isPending}
              disabled={!form.values.name.trim()}
            >
              {t('workshop/team/addGroup')}
            </Button>
          </Group>
        </form>
      )}
      {make.error && Object.keys(form.errors).length === 0 && <ProblemNote error={make.error} />}
    </>
  );
}
