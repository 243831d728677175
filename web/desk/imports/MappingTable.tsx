import { NativeSelect, Select, Table, TextInput } from '@mantine/core';
import type { Import } from '../../../contract/imports';
import { IMPORT_FIELDS, NEEDED_FIELDS, type ImportField, type Mapping } from '../../../core/imports';
import { useAllServices } from '../../api/queries';
import { useWords } from '../../messages/useWords';

const ALWAYS = 'always';
type Props = { table: Import; mapping: Mapping; onChange(mapping: Mapping): void };

/** What a field holds in the first rows, as it is mapped. */
function sampleOf({ sample }: Import, from: Mapping[ImportField]): string {
  if (!from || 'always' in from) return '';
  return sample
    .map((cells) => cells[from.column] ?? '')
    .filter(Boolean)
    .slice(0, 3)
    .join(' · ')
    .slice(0, 120);
}

/** Which column becomes what of a ticket. */
export function MappingTable({ table, mapping, onChange }: Props) {
  const { t, local } = useWords();
  const { data: services = [] } = useAllServices();
  const put = (field: ImportField, from: Mapping[ImportField]): void => {
    const { [field]: _, ...others } = mapping;
    onChange(from ? { ...others, [field]: from } : others);
  };
  const columns = table.headings.map((heading, i) => ({
    value: String(i),
    label: t('imports/column', { number: i + 1, heading }),
  }));
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          <Table.Th>{t('imports/field')}</Table.Th>
          <Table.Th>{t('imports/from')}</Table.Th>
          <Table.Th>{t('imports/first')}</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {IMPORT_FIELDS.map((field) => {
          const from = mapping[field];
          const name = t(`imports/fields/${field}`);
          const isAlways = from !== undefined && 'always' in from;
          return (
            <Table.Tr key={field}>
              <Table.Td>
                <b>{name}</b>
                {NEEDED_FIELDS.includes(field) && ` · ${t('common/needed')}`}
                {(field === 'requester' || field === 'service') && (
                  <div style={{ color: 'var(--muted)', fontSize: 12.5 }}>{t(`imports/hints/${field}`)}</div>
                )}
              </Table.Td>
              <Table.Td>
                <NativeSelect
                  size="xs"
                  miw={220}
                  aria-label={name}
                  value={from === undefined ? '' : isAlways ? ALWAYS : String(from.column)}
                  data={[
                    { value: '', label: t('imports/nowhere') },
                    ...columns,
                    { value: ALWAYS, label: t('imports/always') },
                  ]}
                  onChange={({ target: { value } }) =>
                    put(
                      field,
                      value === ''
                        ? undefined
                        : value === ALWAYS
                          ? { always: '' }
                          : { column: Number(value) },
                    )
                  }
                />
                {isAlways &&
                  (field === 'service' ? (
                    <Select
                      size="xs"
                      mt={4}
                      searchable
                      aria-label={`${name}: ${t('imports/always')}`}
                      data={services.map(({ id, title }) => ({ value: id, label: local(title) }))}
                      value={from.always || null}
                      onChange={(value) => put(field, { always: value ?? '' })}
                    />
                  ) : (
                    <TextInput
                      size="xs"
                      mt={4}
                      aria-label={`${name}: ${t('imports/always')}`}
                      value={from.always}
                      onChange={({ target }) => put(field, { always: target.value })}
                    />
                  ))}
              </Table.Td>
              <Table.Td style={{ color: 'var(--muted)' }}>
                <bdi>{sampleOf(table, from)}</bdi>
              </Table.Td>
            </Table.Tr>
          );
        })}
      </Table.Tbody>
    </Table>
  );
}
