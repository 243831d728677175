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

/**
 * A table whose rows are plain objects. Sequelize does the work; its instances cost three times the read and are
 * not needed where a service changes rows by condition.
 */
export class Table<Row extends object> {
  readonly model: ModelStatic<Model>;
  /** Columns that the database keeps as 0 and 1. */
  private readonly flags: string[];

  constructor(sequelize: Sequelize, name: string, columns: ModelAttributes, key: string[] = ['id']) {
    const attributes = Object.fromEntries(
      Object.entries(columns).map(([column, type]) => [
        column,
        {
          ...(type === autoNumber ? autoNumber : { type }),
          ...(key.includes(column) && { primaryKey: true }),
        },
      ]),
    ) as ModelAttributes;
    this.flags = Object.keys(columns).filter((column) => columns[column] === flag);
    this.model = sequelize.define(name, attributes, { tableName: name, timestamps: false });
  }

  async find(where: WhereOptions<Row>, options: Omit<FindOptions, 'where' | 'raw'> = {}): Promise<Row[]> {
    const rows = await this.model.findAll({ ...options, where, raw: true });
    return rows.map((row) => this.toRow(row));
  }

  async findOne(where: WhereOptions<Row>, tx?: Transaction, lock = false): Promise<Row | null> {
    const options = tx ? { transaction: tx, ...(lock && { lock: tx.LOCK.UPDATE }) } : {};
    const row = await this.model.findOne({ ...options, where, raw: true });
    return row && this.toRow(row);
  }

  async insert(row: Partial<Row>, tx?: Transaction): Promise<number> {
    const created = await this.model.create(row as never, tx ? { transaction: tx } : {});
    return (created.get('id') ?? created.get('number')) as number;
  }

  async insertAll(
    rows: Partial<Row>[],
    tx?: Transaction,
    options: { updates?: (keyof Row & string)[] } = {},
  ): Promise<void> {
    if (rows.length === 0) return;
    await this.model.bulkCreate(rows as never[], {
      ...(tx && { transaction: tx }),
      ...(options.updates && { updateOnDuplicate: options.updates }),
    });
  }

  /** How many rows changed. */
  async update(where: WhereOptions<Row>, changes: Partial<Row>, tx?: Transaction): Promise<number> {
    const [count] = await this.model.update(changes, { where, ...(tx && { transaction: tx }) });
    return count;
  }

  async remove(where: WhereOptions<Row>, tx?: Transaction): Promise<number> {
    return this.model.destroy({ where, ...(tx && { transaction: tx }) });
  }

  private toRow(raw: Model): Row {
    const row = raw as unknown as Record<string, unknown>;
    for (const column of this.flags) if (column in row) row[column] = Boolean(row[column]);
    return row as Row;
  }
}
