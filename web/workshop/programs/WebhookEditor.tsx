import { Button, Drawer, MultiSelect, Text, TextInput } from '@mantine/core';
import { useForm } from '@mantine/form';
import { useMutation } from '@tanstack/react-query';
import type { WebhookBody, WebhookView } from '../../../contract/webhooks';
import { ALWAYS } from '../../../core/conditions';
import { RULE_FIELDS } from '../../../core/rules';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useDraft } from '../../api/useDraft';
import { ConditionEditor, type ConditionScope } from '../../desk/worklist/ConditionEditor';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useProblems } from '../../ui/useProblems';
import { useKindWords } from './useKindWords';
import { useRenewPrograms } from './usePrograms';

const SCOPE: ConditionScope = {
  ...{ names: RULE_FIELDS, withWords: true, firstGroup: ['priority', 'urgency'] },
  lead: { none: 'programs/hooks/anyTicket', where: 'programs/hooks/where' },
};
const EMPTY: WebhookBody = { name: '', address: '', kinds: [], provided: ALWAYS };

type Props = {
  programId: string;
  /** Null: a new one. */
  webhook: WebhookView | null;
  /** @param secret of a new one, to be shown once */
  onClose(secret: string | null): void;
};

/** What a program is told, where, and of which tickets. What is written is kept until it is saved. */
export function WebhookEditor({ programId, webhook, onClose }: Props) {
  const { t } = useWords();
  const toProblems = useProblems();
  const renew = useRenewPrograms();
  const kinds = useKindWords();
  const fresh: WebhookBody = webhook
    ? { name: webhook.name, address: webhook.address, kinds: webhook.kinds, provided: webhook.provided }
    : EMPTY;
  const place = `webhook:${webhook?.id ?? `new:${programId}`}:${webhook?.version ?? 0}`;
  const [draft, setDraft, clear] = useDraft(place, fresh);
  const form = useForm<WebhookBody>({ initialValues: draft, onValuesChange: setDraft });
  const save = useMutation({
    mutationFn: async (body: WebhookBody) => {
      if (!webhook) return (await call(api.webhooks.create, { params: { id: programId }, body })).secret;
      const params = { id: webhook.id };
      await call(api.webhooks.update, { params, body: { ...body, version: webhook.version } });
      return null;
    },
    onSuccess: async (secret) => {
      clear();
      onClose(secret);
      await renew();
    },
    onError: (error) => form.setErrors(toProblems(error)),
  });
  return (
    <Drawer
      {...{ opened: true, onClose: () => onClose(null), position: 'right', size: 'lg' }}
      title={webhook ? t('programs/hooks/edit', { name: webhook.name }) : t('programs/hooks/new')}
      closeButtonProps={{ 'aria-label': t('common/close') }}
    >
      <form onSubmit={form.onSubmit((body) => save.mutate(body))} style={{ display: 'grid', gap: 12 }}>
        <TextInput data-autofocus label={t('programs/hooks/name')} {...form.getInputProps('name')} />
        <TextInput
          type="url"
          label={t('programs/hooks/address')}
          description={t('programs/hooks/addressHelp')}
          {...form.getInputProps('address')}
        />
        <MultiSelect
          {...{ searchable: true, clearable: true, data: kinds }}
          label={t('programs/hooks/kinds')}
          placeholder={form.values.kinds.length === 0 ? t('programs/hooks/allKinds') : ''}
          {...form.getInputProps('kinds')}
        />
        <div role="group" aria-label={t('programs/hooks/provided')}>
          <Text size="sm" fw={500}>
            {t('programs/hooks/provided')}
          </Text>
          <ConditionEditor
            scope={SCOPE}
            condition={form.values.provided}
            onChange={(provided) => form.setFieldValue('provided', provided)}
          />
        </div>
        <Text size="sm" c="var(--muted)">
          {t('programs/hooks/confidential')}
        </Text>
        {Object.keys(form.errors).length === 0 && <ProblemNote error={save.error} />}
        <Button type="submit" size="sm" w="fit-content" loading={save.isPending}>
          {t('common/save')}
        </Button>
      </form>
    </Drawer>
  );
}
