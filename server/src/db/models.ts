import { DataTypes } from 'sequelize';
import type { Model, ModelAttributes, ModelStatic, Sequelize } from 'sequelize';
import type { z } from 'zod';
import { TABLES } from './schema.ts';
import type { TableName } from './schema.ts';

/** Columns the database itself numbers, dates or counts. */
const BY_DATABASE: ReadonlySet<string> = new Set(['createdAt', 'at', 'revision']);
/** Tables whose rows the database numbers. */
const NUMBERED: ReadonlySet<string> = new Set(['audit_events', 'sign_ins']);
const KEYS: Partial<Record<TableName, readonly string[]>> = {
  routine_drafts: ['athleteId', 'occasion'],
  session_entries: ['sessionId', 'itemId'],
  receipts: ['practiceId', 'id'],
};

interface Definition {
  readonly type: string;
  readonly format?: string;
  readonly innerType?: z.core.$ZodType;
}
const definitionOf = (schema: z.core.$ZodType): Definition => schema._zod.def as unknown as Definition;

/** The column type of a field: text, numbers, days and instants as they are, everything with parts as JSON. */
function columnType(schema: z.core.$ZodType) {
  const { type, format, innerType } = definitionOf(schema);
  if (innerType) return columnType(innerType);
  switch (type) {
    case 'string':
      if (format === 'uuid') return DataTypes.UUID;
      return format === 'date' ? DataTypes.DATEONLY : DataTypes.TEXT;
    case 'enum':
    case 'literal':
      return DataTypes.TEXT;
    case 'number':
      return format === 'safeint' ? DataTypes.INTEGER : DataTypes.DOUBLE;
    case 'boolean':
      return DataTypes.BOOLEAN;
    case 'date':
      return DataTypes.DATE;
    default:
      return DataTypes.JSONB;
  }
}

/** A model of the object-relational mapper, whatever its columns. */
export type AnyModel = ModelStatic<Model<Record<string, unknown>, Record<string, unknown>>>;

/** One model per table, its columns read off the table's schema. */
export function defineModels(sequelize: Sequelize): Record<TableName, AnyModel> {
  const entries = Object.entries(TABLES).map(([name, schema]) => {
    const keys = KEYS[name as TableName] ?? ['id'];
    const attributes = Object.fromEntries(
      Object.entries(schema.shape).map(([key, field]) => [
        key,
        {
          type: columnType(field),
          primaryKey: keys.includes(key),
          ...(BY_DATABASE.has(key) || (NUMBERED.has(name) && key === 'id')
            ? { defaultValue: sequelize.literal('DEFAULT') }
            : {}),
        },
      ]),
    ) as ModelAttributes;
    return [name, sequelize.define(name, attributes, { tableName: name })];
  });
  return Object.fromEntries(entries) as Record<TableName, AnyModel>;
}
