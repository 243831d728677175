import { Tooltip } from '@mantine/core';
import { IconChevronsUp } from '@tabler/icons-react';
import type { PersonRef } from '../../contract/shared';
import { useWords } from '../messages/useWords';

/** A name, with a mark for those who go first. */
export function PersonName({ person }: { person: PersonRef }) {
  const { t } = useWords();
  return (
    <span>
      <bdi>{person.name}</bdi>
      {person.goesFirst && (
        <Tooltip label={t('common/goesFirst')}>
          <span
            role="img"
            aria-label={t('common/goesFirst')}
            style={{ verticalAlign: '-2px', marginInlineStart: 3 }}
          >
            <IconChevronsUp size={14} />
          </span>
        </Tooltip>
      )}
    </span>
  );
}
