import { Kind, KindGuard, Type, type TObject, type TSchema } from '@sinclair/typebox';

/**
 * The same schema, closed: no property that it does not name, at any depth. Throws for a form that cannot be closed (an intersection,
 * anything unknown), so that nobody defines one by mistake.
 */
export function closed<T extends TSchema>(schema: T): T {
  return close(schema) as T;
}

function close(schema: TSchema): TSchema {
  if (KindGuard.IsObject(schema))
    return {
      ...schema,
      properties: Object.fromEntries(Object.entries((schema as TObject).properties).map(([name, of]) => [name, close(of)])),
      additionalProperties: false,
    } as TSchema;
  if (KindGuard.IsRecord(schema))
    return {
      ...schema,
      patternProperties: Object.fromEntries(Object.entries(schema.patternProperties).map(([name, of]) => [name, close(of)])),
      additionalProperties: false,
    } as TSchema;
  if (KindGuard.IsArray(schema)) return { ...schema, items: close(schema.items) } as TSchema;
  if (KindGuard.IsTuple(schema)) return { ...schema, items: schema.items?.map(close) } as TSchema;
  if (KindGuard.IsUnion(schema)) return { ...schema, anyOf: schema.anyOf.map(close) } as TSchema;
  if (
    KindGuard.IsString(schema) ||
    KindGuard.IsNumber(schema) ||
    KindGuard.IsInteger(schema) ||
    KindGuard.IsBoolean(schema) ||
    KindGuard.IsLiteral(schema) ||
    KindGuard.IsNull(schema)
  )
    return schema;
  throw new Error(`A schema of kind ${schema[Kind]} cannot be closed`);
}

export const Nothing = Type.Object({});
