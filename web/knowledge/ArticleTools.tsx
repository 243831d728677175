import { Button, FileButton, Group, Select } from '@mantine/core';
import type { RefObject } from 'react';
import { insertTextIntoField, wrapFieldSelection } from 'text-field-edit';
import { useAllServices } from '../api/queries';
import { useWords } from '../messages/useWords';
import { beginLines } from '../words/Tools';
import type { Pictures } from './usePictures';

type Field = HTMLTextAreaElement;
const TABLE = '\n| | |\n| --- | --- |\n| | |\n';

const DEEDS = {
  heading: (field: Field) => beginLines(field, '## '),
  bold: (field: Field) => wrapFieldSelection(field, '**'),
  steps: (field: Field) => beginLines(field, '1. '),
  list: (field: Field) => beginLines(field, '* '),
  callout: (field: Field) => beginLines(field, '> '),
  table: (field: Field) => insertTextIntoField(field, TABLE),
  code: (field: Field) => wrapFieldSelection(field, '`'),
} as const;

/** What an article is made of, put where the caret is. */
export function ArticleTools({ field, pictures }: { field: RefObject<Field | null>; pictures: Pictures }) {
  const { t, local } = useWords();
  const { data: services = [] } = useAllServices();
  return (
    <Group gap={4} mt="xs" role="group" aria-label={t('words/formatting')}>
      {Object.entries(DEEDS).map(([name, run]) => (
        <Button key={name} size="compact-xs" variant="default" onClick={() => run(field.current!)}>
          {t(`knowledge/tools/${name}`)}
        </Button>
      ))}
      <FileButton accept="image/png,image/jpeg,image/gif,image/webp" multiple onChange={pictures.putAll}>
        {(props) => (
          <Button {...props} size="compact-xs" variant="default" loading={pictures.underWay !== null}>
            {t('knowledge/tools/picture')}
          </Button>
        )}
      </FileButton>
      {pictures.problem !== null && <span role="alert">{pictures.problem}</span>}
      <Select
        size="xs"
        w={190}
        searchable
        value={null}
        placeholder={t('knowledge/tools/service')}
        aria-label={t('knowledge/tools/service')}
        data={services.map(({ id, title }) => ({ value: id, label: local(title) }))}
        onChange={(id) => {
          const service = services.find((each) => each.id === id);
          if (service)
            insertTextIntoField(field.current!, `[${local(service.title)}](/ask/services/${service.id})`);
        }}
      />
    </Group>
  );
}
