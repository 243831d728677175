import type { Condition, Scalar } from './types';

/** How SQL reads a field: as a value of one type, or as a list that is asked only whether it contains something. */
export type Column =
  { sql: string; type: 'text' | 'number' | 'flag' } | { type: 'list'; contains(value: string): string };

/** A condition as SQL, with the values of its named places. */
export type Compiled = { sql: string; values: Record<string, unknown> };

type Leaf = Extract<Condition, { op: string }>;
type Context = { columns: Record<string, Column>; add(value: unknown): string };

const TYPES = { string: 'text', number: 'number', boolean: 'flag' } as const;
const FLIPPED = { lt: '>=', lte: '>', gt: '<=', gte: '<' } as const;
const SIGNS = { lt: '<', lte: '<=', gt: '>', gte: '>=' } as const;
/** Keys are written in ASCII: nothing else equals one. */
const isAscii = (value: Scalar): boolean => typeof value !== 'string' || /^[\x20-\x7e]*$/.test(value);
/** Compares texts as JavaScript does: by their characters, case and trailing spaces included. */
const EXACTLY = 'COLLATE utf8mb4_nopad_bin';

const truth = (is: boolean): string => (is ? 'TRUE' : 'FALSE');
const isKey = (sql: string): boolean => /(Id|\.state|\.heldFor|\.priority|\.kind)$/.test(sql);
const isOf = ({ sql, type }: { sql: string; type: string }, value: Scalar): boolean =>
  value !== null && TYPES[typeof value as keyof typeof TYPES] === type && (!isKey(sql) || isAscii(value));

/** What a column is compared with. Keys are stored in one case without blanks at their end, so their index serves. */
function exact({ sql, type }: { sql: string; type: string }, placed: string): string {
  return type === 'text' && !isKey(sql) ? `${placed} ${EXACTLY}` : placed;
}

function equals(
  column: Extract<Column, { sql: string }>,
  value: Scalar,
  isNot: boolean,
  { add }: Context,
): string {
  const { sql } = column;
  if (value === null) return isNot ? `${sql} IS NOT NULL` : `${sql} IS NULL`;
  if (!isOf(column, value)) return truth(isNot);
  const placed = exact(column, add(value));
  return isNot ? `(${sql} <> ${placed} OR ${sql} IS NULL)` : `${sql} = ${placed}`;
}

function among(
  column: Extract<Column, { sql: string }>,
  given: Scalar[],
  isNot: boolean,
  { add }: Context,
): string {
  const { sql } = column;
  const values = given.filter((value) => isOf(column, value));
  const hasNull = given.includes(null);
  const list =
    values.length > 0 ? `${sql} IN (${values.map((value) => exact(column, add(value))).join()})` : null;
  if (!isNot) return `(${[list, hasNull ? `${sql} IS NULL` : null].filter(Boolean).join(' OR ') || 'FALSE'})`;
  const outside = list?.replace(' IN (', ' NOT IN (');
  if (hasNull) return `(${[outside, `${sql} IS NOT NULL`].filter(Boolean).join(' AND ')})`;
  return outside ? `(${outside} OR ${sql} IS NULL)` : 'TRUE';
}

function isEmptySql({ sql, type }: Extract<Column, { sql: string }>, isNot: boolean): string {
  const empty = type === 'text' ? `(${sql} IS NULL OR ${sql} = '')` : `${sql} IS NULL`;
  return isNot ? `NOT ${empty}` : empty;
}

/** A leaf, or (where `isNot`) its contrary. SQL knows a third truth value; here every leaf is plainly true or false. */
function compileLeaf(leaf: Leaf, isNot: boolean, context: Context): string {
  const column = context.columns[leaf.field];
  if (!column) throw new RangeError(`no column for the field ${leaf.field}`);
  if (column.type === 'list') {
    if (leaf.op === 'contains') return `${isNot ? 'NOT ' : ''}${column.contains(context.add(leaf.value))}`;
    throw new RangeError(`a list cannot be asked ${leaf.op}`);
  }
  const { sql } = column;
  switch (leaf.op) {
    case 'is':
      return equals(column, leaf.value, isNot, context);
    case 'isNot':
      return equals(column, leaf.value, !isNot, context);
    case 'in':
      return among(column, leaf.value, isNot, context);
    case 'notIn':
      return among(column, leaf.value, !isNot, context);
    case 'empty':
      return isEmptySql(column, isNot);
    case 'notEmpty':
      return isEmptySql(column, !isNot);
    case 'hasAny':
    case 'hasAll':
      throw new RangeError(`word forms cannot be asked in SQL: ${leaf.field}`);
    case 'contains': {
      if (column.type !== 'text') return truth(isNot);
      const found = `INSTR(CONVERT(LOWER(${sql}) USING utf8mb4) ${EXACTLY}, ${context.add(leaf.value.toLowerCase())}) > 0`;
      return isNot ? `(NOT ${found} OR ${sql} IS NULL)` : `COALESCE(${found}, FALSE)`;
    }
    default: {
      if (!isOf(column, leaf.value) || column.type === 'flag') return truth(isNot);
      const placed = exact(column, context.add(leaf.value));
      return isNot
        ? `(${sql} ${FLIPPED[leaf.op]} ${placed} OR ${sql} IS NULL)`
        : `${sql} ${SIGNS[leaf.op]} ${placed}`;
    }
  }
}

/** Negation is pushed down to the leaves, where it is exact also for what is not there. */
function compile(condition: Condition, isNot: boolean, context: Context): string {
  if ('not' in condition) return compile(condition.not, !isNot, context);
  if ('op' in condition) return compileLeaf(condition, isNot, context);
  const isAll = 'all' in condition;
  const parts = isAll ? condition.all : condition.any;
  if (parts.length === 0) return truth(isAll !== isNot);
  return `(${parts.map((part) => compile(part, isNot, context)).join(isAll === isNot ? ' OR ' : ' AND ')})`;
}

/**
 * A condition as SQL, which says the same of a row as `holds` says of its fields. Values stand at named places that
 * begin with `prefix`.
 * @example toSql({ field: 'priority', op: 'is', value: 'P1' }, { priority: { sql: 't.priority', type: 'text' } })
 *   // { sql: 't.priority = :c0', values: { c0: 'P1' } }
 * @throws RangeError where a field has no column
 */
export function toSql(condition: Condition, columns: Record<string, Column>, prefix = 'c'): Compiled {
  const values: Record<string, unknown> = {};
  const add = (value: unknown): string => {
    const name = `${prefix}${Object.keys(values).length}`;
    values[name] = value;
    return `:${name}`;
  };
  return { sql: compile(condition, false, { columns, add }), values };
}
