import { Button, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import type { EditedDefinition } from '../../../contract/services';
import { call } from '../../api/call';
import { api } from '../../api/endpoints';
import { useWords } from '../../messages/useWords';
import { ProblemNote } from '../../ui/ProblemNote';
import { useTimes } from '../../ui/useTimes';
import { Waiting } from '../../ui/Waiting';
import classes from './services.module.css';

type Props = {
  id: string;
  /** Whether a version may be taken into the draft. */
  mayTake: boolean;
  onTake(definition: EditedDefinition): void;
  onClose(): void;
};

/** The versions of a service: when and by whom each was published, what it changed, and which requests still keep it. */
export function Versions({ id, mayTake, onTake, onClose }: Props) {
  const { t } = useWords();
  const times = useTimes();
  const { data, error } = useQuery({
    queryKey: ['serviceVersions', id],
    queryFn: () => call(api.services.versions, { params: { id } }),
  });
  return (
    <Modal opened onClose={onClose} title={t('services/versions/title')} size="lg">
      <ProblemNote error={error} />
      {!data && !error && <Waiting />}
      <ul className={classes.versions}>
        {data?.map(({ version, publishedAt, by, changed, openRequests, definition }, i) => (
          <li key={version}>
            <div>
              <strong>
                {t(i === 0 ? 'services/versions/now' : 'services/versions/former', { version })}
              </strong>
              <p className={classes.quiet}>
                {[
                  publishedAt !== null && times.full(publishedAt),
                  by,
                  openRequests > 0 && t('services/versions/kept', { count: openRequests }),
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </p>
              {changed.length > 0 && (
                <p>
                  {t('services/versions/changed', {
                    parts: changed.map((part) => t(`services/parts/${part}`)).join(', '),
                  })}
                </p>
              )}
            </div>
            {mayTake && i > 0 && (
              <Button size="compact-sm" variant="default" onClick={() => onTake(definition)}>
                {t('services/versions/take', { version })}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </Modal>
  );
}
