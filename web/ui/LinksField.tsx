import { ActionIcon, Button, Group, Stack, TextInput } from '@mantine/core';
import { IconPlus, IconX } from '@tabler/icons-react';
import type { AnswerLink } from '../../core/forms';
import { useWords } from '../messages/useWords';

type Props = { links: AnswerLink[]; onChange(links: AnswerLink[]): void; error?: string | undefined };

/** Links with a name each. */
export function LinksField({ links, onChange, error }: Props) {
  const { t } = useWords();
  const set = (at: number, change: Partial<AnswerLink>): void =>
    onChange(links.map((link, i) => (i === at ? { ...link, ...change } : link)));
  return (
    <Stack gap={6} align="flex-start">
      {links.map((link, i) => (
        <Group key={i} gap={6} align="flex-end" wrap="nowrap">
          <TextInput
            size="sm"
            label={t('links/url')}
            value={link.url}
            error={Boolean(error)}
            onChange={({ target }) => set(i, { url: target.value })}
          />
          <TextInput
            size="sm"
            label={t('links/name')}
            value={link.name}
            onChange={({ target }) => set(i, { name: target.value })}
          />
          <ActionIcon
            variant="subtle"
            color="gray"
            mb={4}
            aria-label={t('links/remove')}
            onClick={() => onChange(links.filter((_, at) => at !== i))}
          >
            <IconX size={14} />
          </ActionIcon>
        </Group>
      ))}
      {error && <span style={{ color: 'var(--brick)' }}>{error}</span>}
      <Button
        size="compact-sm"
        variant="default"
        leftSection={<IconPlus size={14} />}
        onClick={() => onChange([...links, { url: 'https://', name: '' }])}
      >
        {t('links/add')}
      </Button>
    </Stack>
  );
}
