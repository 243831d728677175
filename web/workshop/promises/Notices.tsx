import { Button } from '@mantine/core';
import { useState } from 'react';
import type { Target } from '../../../contract/targets';
import { useWords } from '../../messages/useWords';
import { NoticesForm } from './NoticesForm';
import { useTargetWords } from './useTargetWords';
import { useUpdateTarget } from './useUpdateTarget';

/** Whom a promise warns at which share of its time, and the way to change that. */
export function Notices({ target }: { target: Target }) {
  const { t } = useWords();
  const { notice } = useTargetWords();
  const [isEditing, setEditing] = useState(false);
  const update = useUpdateTarget(target);
  return (
    <>
      <ul>
        {target.notices.map((each) => (
          <li key={each.percent}>{notice(each)}</li>
        ))}
      </ul>
      {target.mayEdit && (
        <Button size="compact-xs" variant="subtle" onClick={() => setEditing(true)}>
          {t('workshop/target/edit')}
        </Button>
      )}
      {isEditing && (
        <NoticesForm
          target={target}
          isSaving={update.isPending}
          error={update.error}
          onSave={(notices) => update.mutate({ notices }, { onSuccess: () => setEditing(false) })}
          onClose={() => setEditing(false)}
        />
      )}
    </>
  );
}
