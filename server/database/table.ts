import {
  DataTypes,
  type FindOptions,
  type Model,
  type ModelAttributes,
  type ModelStatic,
  type Sequelize,
  type Transaction,
  type WhereOptions,
} from 'sequelize';
import { begunAgain, doneAgain } from './again';
import { claim } from './claims';
import { read, runInTransaction, send } from './transaction';

/** Column kinds; instants are epoch milliseconds. */
export const text = (length = 255) => DataTypes.STRING(length);
export const id = DataTypes.STRING(40);
export const instant = DataTypes.BIGINT;
export const json = DataTypes.JSON;
export const flag = DataTypes.BOOLEAN;
export const integer = DataTypes.BIGINT;
export const longText = DataTypes.TEXT('long');
/** A number that the database hands out. */
export const autoNumber = { type: DataTypes.BIGINT, autoIncrement: true };

/** Conditions that only say what columns are (one of a list, too), as SQL with question marks; null where they say more. */
function toPlain(where: WhereOptions): { sql: string; values: unknown[] } | null {
  const entries = Object.entries(where as Record<string, unknown>);
  const isScalar = (value: unknown): boolean => value !== null && typeof value !== 'object';
  const isPlain = (value: unknown): boolean =>
    value === null || isScalar(value) || (Array.isArray(value) && value.every(isScalar));
  const meets = (value: unknown): string =>
    value === null ? 'IS NULL' : Array.isArray(value) ? 'IN (?)' : '= ?';
  const isSaid = entries.length > 0 && Object.getOwnPropertySymbols(where).length === 0;
  if (!isSaid || !entries.every(([, value]) => value !== undefined && isPlain(value))) return null;
  return {
    sql: entries.map(([column, value]) => `\`${column}\` ${meets(value)}`).join(' AND '),
    // A list without anything is written as one of nothing: `IN ()` is no SQL.
    values: entries.flatMap(([, value]) =>
      value === null ? [] : Array.isArray(value) && value.length === 0 ? [[null]] : [value],
    ),
  };
}

const DIRECTIONS: unknown[] = ['ASC', 'DESC'];

/** An order by columns, as SQL; null where it is more. */
function toPlainOrder(order: FindOptions['order']): string | null {
  if (order === undefined) return '';
  if (!Array.isArray(order)) return null;
  const parts = (order as unknown[]).map((part) => {
    const [column, direction = 'ASC'] = (Array.isArray(part) ? part : [part]) as unknown[];
    return typeof column === 'string' && DIRECTIONS.includes(direction)
      ? `\`${column}\` ${String(direction)}`
      : null;
  });
  return parts.includes(null) ? null : `ORDER BY ${parts.join()}`;
}

/**
 * A table whose rows are plain objects. Sequelize does the work; its instances cost three times the read and are
 * not needed where a service changes rows by condition.
 */
export class Table<Row extends object> {
  readonly model: ModelStatic<Model>;
  private readonly columns: (keyof Row & string)[];
  /** Columns that the database keeps as 0 and 1, and those it keeps as text. */
  private readonly flags: string[];
  private readonly jsons: Set<string>;

  constructor(
    private readonly sequelize: Sequelize,
    private readonly name: string,
    columns: ModelAttributes,
    private readonly key: string[] = ['id'],
  ) {
    const attributes = Object.fromEntries(
      Object.entries(columns).map(([column, type]) => [
        column,
        {
          ...(type === autoNumber ? autoNumber : { type }),
          ...(key.includes(column) && { primaryKey: true }),
        },
      ]),
    ) as ModelAttributes;
    this.columns = Object.keys(columns) as (keyof Row & string)[];
    this.flags = this.columns.filter((column) => columns[column] === flag);
    this.jsons = new Set(this.columns.filter((column) => columns[column] === json));
    this.model = sequelize.define(name, attributes, { tableName: name, timestamps: false });
  }

  /** What is asked plainly goes straight to the driver: what Sequelize adds to it costs as much again. */
  async find(where: WhereOptions<Row>, options: Omit<FindOptions, 'where' | 'raw'> = {}): Promise<Row[]> {
    const { order, limit, attributes = this.columns, transaction, ...more } = options;
    const [plain, ordered] = [toPlain(where), toPlainOrder(order)];
    const isPlain = Array.isArray(attributes) && attributes.every((each) => typeof each === 'string');
    if (!plain || ordered === null || !isPlain || Object.keys(more).length > 0) {
      const ask = () => this.model.findAll({ ...options, where, raw: true });
      const found = await (transaction ? ask() : begunAgain(this.sequelize, ask));
      const rows = found.map((row) => this.toRow(row));
      if (options.lock && transaction) await this.claim(rows, transaction);
      return rows;
    }
    const names = attributes.map((column) => `\`${column}\``).join();
    const sql = `SELECT ${names} FROM ${this.name} WHERE ${plain.sql} ${ordered} ${limit === undefined ? '' : `LIMIT ${limit}`}`;
    const rows = await read<Row>(this.sequelize, { sql, values: plain.values }, transaction ?? undefined);
    return rows.map((row) => this.toRow(row));
  }

  /** @param lock whether it stays as it is until the transaction ends, on every node of a cluster */
  async findOne(where: WhereOptions<Row>, tx?: Transaction, lock = false): Promise<Row | null> {
    const row = await this.readOne(where, tx, lock);
    if (row && lock && tx) await this.claim([row], tx);
    return row;
  }

  private claim(rows: Row[], tx: Transaction): Promise<void> {
    const nameOf = (row: Row): string =>
      `${this.name} ${this.key.map((column) => String(row[column as keyof Row])).join(' ')}`;
    return claim(this.sequelize, rows.map(nameOf), tx);
  }

  private async readOne(
    where: WhereOptions<Row>,
    tx: Transaction | undefined,
    lock: boolean,
  ): Promise<Row | null> {
    const plain = toPlain(where);
    if (plain) {
      const names = this.columns.map((column) => `\`${column}\``).join();
      const sql = `SELECT ${names} FROM ${this.name} WHERE ${plain.sql} LIMIT 1${lock ? ' FOR UPDATE' : ''}`;
      const [found] = await read<Row>(this.sequelize, { sql, values: plain.values }, tx);
      return found ? this.toRow(found) : null;
    }
    const options = tx ? { transaction: tx, ...(lock && { lock: tx.LOCK.UPDATE }) } : {};
    const ask = () => this.model.findOne({ ...options, where, raw: true });
    const row = await (tx ? ask() : begunAgain(this.sequelize, ask));
    return row && this.toRow(row);
  }

  /** Inserts a row. @returns the number that the database handed out, if it did */
  async insert(row: Partial<Row>, tx?: Transaction): Promise<number> {
    return this.insertRows([row], '', tx);
  }

  /** Inserts rows at once; with `updates`, a row that is there already takes over those columns. */
  async insertAll(
    rows: Partial<Row>[],
    tx?: Transaction,
    { updates = [] }: { updates?: (keyof Row & string)[] } = {},
  ): Promise<void> {
    if (rows.length === 0) return;
    const taken = updates.map((column) => `\`${column}\` = VALUES(\`${column}\`)`).join(', ');
    await this.insertRows(rows, taken && `ON DUPLICATE KEY UPDATE ${taken}`, tx);
  }

  /** How many rows changed. */
  async update(where: WhereOptions<Row>, changes: Partial<Row>, tx?: Transaction): Promise<number> {
    const plain = toPlain(where);
    const columns = this.columns.filter((column) => changes[column] !== undefined);
    if (plain && tx && columns.length > 0) {
      const set = columns.map((column) => `\`${column}\` = ?`).join();
      const values = columns.map((column) => this.toValue(column, changes[column]));
      const sql = `UPDATE ${this.name} SET ${set} WHERE ${plain.sql}`;
      return (await send(tx, sql, [...values, ...plain.values])).affectedRows;
    }
    const change = () => this.model.update(changes, { where, ...(tx && { transaction: tx }) });
    const [count] = await (tx ? change() : doneAgain(this.sequelize, change));
    return count;
  }

  async remove(where: WhereOptions<Row>, tx?: Transaction): Promise<number> {
    const plain = toPlain(where);
    if (plain && tx)
      return (await send(tx, `DELETE FROM ${this.name} WHERE ${plain.sql}`, plain.values)).affectedRows;
    const remove = () => this.model.destroy({ where, ...(tx && { transaction: tx }) });
    return tx ? remove() : doneAgain(this.sequelize, remove);
  }

  /** Plain SQL: building, validating and describing an instance costs more than the insert. */
  private async insertRows(rows: Partial<Row>[], ending: string, tx?: Transaction): Promise<number> {
    const columns = this.columns.filter((column) => rows.some((row) => row[column] !== undefined));
    const places = `(${columns.map(() => '?').join()})`;
    const names = columns.map((column) => `\`${column}\``).join();
    const sql = `INSERT INTO ${this.name} (${names}) VALUES ${rows.map(() => places).join()} ${ending}`;
    const values = rows.flatMap((row) => columns.map((column) => this.toValue(column, row[column])));
    const insert = async (within: Transaction): Promise<number> => (await send(within, sql, values)).insertId;
    return tx ? insert(tx) : begunAgain(this.sequelize, () => runInTransaction(this.sequelize, insert));
  }

  private toValue(column: keyof Row & string, value: unknown): unknown {
    if (value === undefined || value === null) return null;
    return this.jsons.has(column) ? JSON.stringify(value) : value;
  }

  private toRow(raw: Model | Row): Row {
    const row = raw as unknown as Record<string, unknown>;
    for (const column of this.flags) if (column in row) row[column] = Boolean(row[column]);
    return row as Row;
  }
}
