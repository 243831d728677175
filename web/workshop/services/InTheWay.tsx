import { Button, Menu } from '@mantine/core';
import type { EditedService } from '../../../contract/services';
import { useWords } from '../../messages/useWords';

/** What is in the way of publishing: how much, and each of it as a way to where it can be mended. */
export function InTheWay({ problems }: { problems: EditedService['problems'] }) {
  const { t } = useWords();
  const words = t('services/editor/inTheWay', { count: problems.length });
  function go(part: string): void {
    const section = document.getElementById(`part-${part}`);
    section?.scrollIntoView({ block: 'start' });
    section?.focus({ preventScroll: true });
  }
  return (
    <Menu position="top-start" returnFocus={false}>
      <Menu.Target>
        <Button variant="subtle" size="compact-sm">
          {words}
        </Button>
      </Menu.Target>
      <Menu.Dropdown aria-label={words}>
        {problems.map(({ part, code, at, detail }, i) => (
          <Menu.Item key={i} onClick={() => go(part)}>
            <strong>{t(`services/parts/${part}`)}</strong>
            {': '}
            {at && `${at}: `}
            {t(`services/problems/${code}`, { detail })}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}
