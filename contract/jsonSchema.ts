import { Schema, SchemaDescription } from 'yup';

type Json = Record<string, unknown>;

/** A Yup schema in JSON Schema's words, for OpenAPI; tests that JSON Schema has no word for are left out. */
export function jsonSchema(schema: Schema): Json {
  return translate(schema.describe() as SchemaDescription);
}

interface Described extends SchemaDescription {
  fields?: Record<string, Described>;
  innerType?: Described | Described[];
}

function translate(description: Described): Json {
  const { type, nullable, oneOf, tests } = description;
  const limits = Object.assign({}, ...tests.map(({ name, params }) => limit(type, name, params ?? {}))) as Json;
  const base: Json = { ...shape(description), ...limits, ...(oneOf.length > 0 && { enum: oneOf }) };
  return nullable && typeof base.type === 'string' ? { ...base, type: [base.type, 'null'] } : base;
}

function shape({ type, fields, innerType }: Described): Json {
  if (type === 'object') {
    const properties = Object.entries(fields ?? {});
    return {
      type,
      properties: Object.fromEntries(properties.map(([name, field]) => [name, translate(field)])),
      required: properties.filter(([, field]) => !field.optional).map(([name]) => name),
    };
  }
  if (type === 'array') return { type, items: innerType && !Array.isArray(innerType) ? translate(innerType) : {} };
  if (type === 'tuple') return { type: 'array', prefixItems: Array.isArray(innerType) ? innerType.map(translate) : [] };
  return type === 'mixed' ? {} : { type };
}

function limit(type: string, name: string | undefined, params: Record<string, unknown>): Json {
  const value = params[name ?? ''];
  const noun = type === 'string' ? 'Length' : type === 'array' ? 'Items' : 'imum';
  if (name === 'min') return { [`min${noun}`]: value };
  if (name === 'max') return { [`max${noun}`]: value };
  if (name === 'integer') return { type: 'integer' };
  if (name === 'uuid') return { format: 'uuid' };
  return {};
}
