import { ActionIcon, Button, Group, Modal, NativeSelect, TextInput } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconX } from '@tabler/icons-react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { Category } from '../../../contract/catalogue';
import { LANGUAGES } from '../../../core/forms';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import classes from './services.module.css';

/** A subject and all below it: none of them can be its parent. */
function listBelow(categories: Category[], id: string): string[] {
  const below = categories.filter(({ parentId }) => parentId === id);
  return [id, ...below.flatMap((each) => listBelow(categories, each.id))];
}

/** Every subject after its parent, with its depth. */
function inOrder(
  categories: Category[],
  parentId: string | null = null,
  depth = 0,
): (Category & { depth: number })[] {
  return categories
    .filter((each) => each.parentId === parentId)
    .flatMap((each) => [{ ...each, depth }, ...inOrder(categories, each.id, depth + 1)]);
}

/** The tree of subjects that services stand under, in any depth. */
export function Subjects({ before, onClose }: { before: Category[]; onClose(): void }) {
  const { t, local } = useWords();
  const client = useQueryClient();
  const [categories, setCategories] = useState(before);
  const save = useMutation({
    mutationFn: () =>
      call(api.services.saveCategories, {
        body: { categories: categories.map((category, position) => ({ ...category, position })) },
      }),
    onSuccess: async () => {
      for (const name of ['categories', 'serviceLines']) await client.invalidateQueries({ queryKey: [name] });
      onClose();
    },
  });
  const set = (id: string, part: Partial<Category>): void =>
    setCategories(categories.map((each) => (each.id === id ? { ...each, ...part } : each)));
  const move = (id: string, by: 1 | -1): void => {
    const own = categories.find((each) => each.id === id)!;
    const beside = categories.filter(({ parentId }) => parentId === own.parentId);
    const other = beside[beside.indexOf(own) + by];
    if (!other) return;
    const swap = (each: Category): Category => (each === own ? other : each === other ? own : each);
    setCategories(categories.map(swap));
  };
  const remove = (id: string): void => {
    const gone = new Set(listBelow(categories, id));
    setCategories(categories.filter((each) => !gone.has(each.id)));
  };
  const isSaid = categories.every(({ name }) => LANGUAGES.every((language) => name[language].trim() !== ''));
  return (
    <Modal opened onClose={onClose} size="xl" title={t('services/subjects/title')}>
      {inOrder(categories).map(({ id, name, parentId, depth }) => (
        <Group key={id} gap={6} mt={6} wrap="nowrap" style={{ paddingInlineStart: depth * 22 }}>
          {LANGUAGES.map((language) => (
            <TextInput
              key={language}
              size="xs"
              style={{ flex: 1 }}
              aria-label={`${t('services/subjects/name')}, ${language}: ${local(name)}`}
              value={name[language]}
              onChange={({ target }) => set(id, { name: { ...name, [language]: target.value } })}
            />
          ))}
          <NativeSelect
            size="xs"
            aria-label={`${t('services/subjects/under')}: ${local(name)}`}
            value={parentId ?? ''}
            data={[
              { value: '', label: t('services/subjects/top') },
              ...categories
                .filter((each) => !listBelow(categories, id).includes(each.id))
                .map((each) => ({ value: each.id, label: local(each.name) })),
            ]}
            onChange={({ target }) => set(id, { parentId: target.value || null })}
          />
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label={`${t('services/subjects/up')}: ${local(name)}`}
            onClick={() => move(id, -1)}
          >
            <IconArrowUp size={14} />
          </ActionIcon>
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label={`${t('services/subjects/down')}: ${local(name)}`}
            onClick={() => move(id, 1)}
          >
            <IconArrowDown size={14} />
          </ActionIcon>
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label={t('services/audience/remove', { name: local(name) })}
            onClick={() => remove(id)}
          >
            <IconX size={14} />
          </ActionIcon>
        </Group>
      ))}
      <p className={classes.quiet}>{t('services/subjects/lead')}</p>
      <ProblemNote error={save.error} />
      <Group justify="space-between">
        <Button
          size="xs"
          variant="default"
          onClick={() =>
            setCategories([
              ...categories,
              { id: nanoid(10), parentId: null, name: { en: '', pt: '' }, position: categories.length },
            ])
          }
        >
          {t('services/subjects/add')}
        </Button>
        <Button disabled={!isSaid} loading={save.isPending} onClick={() => save.mutate()}>
          {t('common/save')}
        </Button>
      </Group>
    </Modal>
  );
}
