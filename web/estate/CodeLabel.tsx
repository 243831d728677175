import { Button, Modal } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Thing } from '../../contract/estate';
import { codeAddress } from '../../core/estate';
import { useWords } from '../messages/useWords';
import classes from './Estate.module.css';

/** The code that is stuck on a thing: read by a telephone, it opens its page. */
export function CodeLabel({ thing }: { thing: Thing }) {
  const { t } = useWords();
  const [isOpen, setOpen] = useState(false);
  const address = codeAddress(window.location.origin, thing.id);
  const { data: svg = '' } = useQuery({
    queryKey: ['code', address],
    staleTime: Infinity,
    enabled: isOpen,
    queryFn: async () => (await import('qrcode')).toString(address, { type: 'svg', margin: 2 }),
  });
  return (
    <>
      <Button size="compact-xs" variant="subtle" onClick={() => setOpen(true)}>
        {t('estate/code')}
      </Button>
      <Modal opened={isOpen} onClose={() => setOpen(false)} title={t('estate/code')}>
        <div
          className={classes.code}
          role="img"
          aria-label={t('estate/codeOf', { address })}
          // The library's own drawing of an address of ours.
          dangerouslySetInnerHTML={{ __html: svg }}
        />
        <strong>{thing.name}</strong> {thing.tag}
        <div>
          <Button mt="sm" size="xs" variant="default" onClick={() => window.print()}>
            {t('estate/print')}
          </Button>
        </div>
      </Modal>
    </>
  );
}
