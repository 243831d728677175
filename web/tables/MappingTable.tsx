import { NativeSelect, Select, Table, TextInput } from '@mantine/core';
import type { Import } from '../../contract/imports';
import { IMPORT_FIELDS, NEEDED_FIELDS, type ImportField, type MappingOf } from '../../core/imports';
import { NEEDED_OF_THING, THING_FIELDS, type ThingField } from '../../core/estate';
import { NEEDED_OF_PERSON, PERSON_FIELDS, type PersonField } from '../../core/people';
import { useAllServices } from '../api/queries';
import { useWords } from '../messages/useWords';

const ALWAYS = 'always';
type Field = ImportField | PersonField | ThingField;
/** Where each field of what a table is of comes from. */
export type Mapping = MappingOf<Field>;

/** What the columns of each kind of table can be, and which have to be there. */
const FIELDS: Record<Import['kind'], { all: readonly Field[]; needed: readonly Field[] }> = {
  tickets: { all: IMPORT_FIELDS, needed: NEEDED_FIELDS },
  people: { all: PERSON_FIELDS, needed: NEEDED_OF_PERSON },
  things: { all: THING_FIELDS, needed: NEEDED_OF_THING },
};
/** Fields about which something has to be known. */
const HINTED = new Set<Field>([
  'requester',
  'service',
  'site',
  'manager',
  'team',
  'language',
  'goesFirst',
  'email',
  'kind',
  'serial',
  'holder',
  'cost',
  'boughtOn',
  'needs',
]);

type Props = { table: Import; mapping: Mapping; onChange(mapping: Mapping): void };

/** What a field holds in the first rows, as it is mapped. */
function sampleOf({ sample }: Import, from: Mapping[Field]): string {
  if (!from || 'always' in from) return '';
  return sample
    .map((cells) => cells[from.column] ?? '')
    .filter(Boolean)
    .slice(0, 3)
    .join(' · ')
    .slice(0, 120);
}

/** Which column becomes what. */
export function MappingTable({ table, mapping, onChange }: Props) {
  const { t, local } = useWords();
  const { data: services = [] } = useAllServices();
  const put = (field: Field, from: Mapping[Field]): void => {
    const { [field]: _, ...others } = mapping;
    onChange(from ? { ...others, [field]: from } : others);
  };
  const { all, needed } = FIELDS[table.kind];
  const columns = table.headings.map((heading, i) => ({
    value: String(i),
    label: t('imports/column', { number: i + 1, heading }),
  }));
  return (
    <Table>
      <Table.Thead>
        <Table.Tr>
          <Table.Th>{t(table.kind === 'tickets' ? 'imports/field' : `imports/${table.kind}/field`)}</Table.Th>
          <Table.Th>{t('imports/from')}</Table.Th>
          <Table.Th>{t('imports/first')}</Table.Th>
        </Table.Tr>
      </Table.Thead>
      <Table.Tbody>
        {all.map((field) => {
          const from = mapping[field];
          const name = t(`imports/fields/${field}`);
          const isAlways = from !== undefined && 'always' in from;
          return (
            <Table.Tr key={field}>
              <Table.Td>
                <b>{name}</b>
                {needed.includes(field) && ` · ${t('common/needed')}`}
                {HINTED.has(field) && (
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
