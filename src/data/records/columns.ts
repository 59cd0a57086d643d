/** Kinds of columns, and how a table is made of them. */
import {
  DataTypes,
  type DataType,
  type Model,
  type ModelAttributeColumnOptions,
  type ModelAttributes,
  type ModelStatic,
} from 'sequelize';

/** Each column needs a definition of its own: Sequelize writes the column's name into it. */
export const key = (type: DataType): ModelAttributeColumnOptions => ({ type, primaryKey: true });
export const {
  TEXT: text,
  INTEGER: int,
  JSONB: jsonb,
  JSON: json,
  DATEONLY: day,
  DATE: instant,
  UUID: ref,
  BOOLEAN: bool,
} = DataTypes;
/** An amount: 18 digits, 6 of them decimals. */
export const money = DataTypes.DECIMAL(18, 6);
/** Filled by the database when left out. */
export const now = (): ModelAttributeColumnOptions => ({ type: instant, defaultValue: DataTypes.NOW });

/** Of what is said from a day on, kept under a version. */
export const dated = (): ModelAttributes => ({
  id: { ...key(ref), defaultValue: DataTypes.UUIDV4 },
  validFrom: day,
  validTo: day,
  version: { type: int, defaultValue: 1 },
});

/** A row that can be updated and destroyed. */
export type Stored<T extends object> = Model<T, T> & T;
/** A table of such rows. */
export type Table<T extends object> = ModelStatic<Stored<T>>;

/** Makes a table with typed rows of its name and columns. */
export type Define = <T extends object>(tableName: string, columns: ModelAttributes) => Table<T>;
