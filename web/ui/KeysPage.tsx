import { Kbd, Modal, Switch, Table, Title } from '@mantine/core';
import { useState } from 'react';
import { useWords } from '../messages/useWords';
import { hasSingleKeys, setSingleKeys } from './useKeys';

const GROUPS: [title: string | null, keys: [string, string][]][] = [
  [
    null,
    [
      ['find', 'F'],
      ['keys', '?'],
      ['call', 'F8'],
      ['talk', 'F9'],
    ],
  ],
  [
    'list',
    [
      ['up', '↑ ↓'],
      ['open', 'Enter'],
      ['take', 'T'],
      ['hold', 'H'],
      ['finish', 'D'],
      ['give', 'G'],
      ['priority', 'P'],
      ['title_', 'E'],
      ['state', 'S'],
      ['choose', 'X'],
      ['why', 'Y'],
      ['density', ','],
    ],
  ],
  [
    'ticket',
    [
      ['next', '↓ ↑'],
      ['take', 'T'],
      ['hold', 'H'],
      ['finish', 'D'],
      ['give', 'G'],
      ['answer', 'A'],
      ['note', 'N'],
      ['send', 'Ctrl Enter'],
      ['full', 'W'],
      ['back', 'Esc'],
    ],
  ],
];

/** All keys, and the switch that turns single ones off. */
export function KeysPage({ opened, onClose }: { opened: boolean; onClose(): void }) {
  const { t } = useWords();
  const [isOn, setIsOn] = useState(hasSingleKeys);
  return (
    <Modal opened={opened} onClose={onClose} title={t('keys/title')}>
      {GROUPS.map(([title, keys]) => (
        <div key={title ?? ''}>
          {title && (
            <Title order={2} size="h5" mt="sm">
              {t(`keys/${title}`)}
            </Title>
          )}
          <Table>
            <Table.Tbody>
              {keys.map(([name, key]) => (
                <Table.Tr key={name}>
                  <Table.Td>{t(`keys/${name}`)}</Table.Td>
                  <Table.Td ta="right">
                    <Kbd>{key}</Kbd>
                  </Table.Td>
                </Table.Tr>
              ))}
            </Table.Tbody>
          </Table>
        </div>
      ))}
      <Switch
        mt="md"
        checked={isOn}
        label={t(isOn ? 'keys/on' : 'keys/off')}
        onChange={({ target }) => {
          setSingleKeys(target.checked);
          setIsOn(target.checked);
        }}
      />
    </Modal>
  );
}
