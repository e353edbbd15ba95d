import type { Schema, SchemaDescription } from 'yup';
import { documentSchema, FEATURES } from '../src/core/survey';

interface Described extends SchemaDescription {
  fields?: Record<string, Described>;
  innerType?: Described;
}

type Json = Record<string, unknown>;

/** The JSON Schema (draft 2020-12) of the layout document, made from the one schema the program itself checks with. */
export function layoutJsonSchema(): Json {
  const root = convert(documentSchema.describe() as Described);
  const properties = root.properties as Json;
  const features = Object.values(FEATURES).map(({ schema }) => convert((schema as Schema).describe() as Described));
  properties.features = { type: 'array', maxItems: 20_000, items: { oneOf: features } };
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: 'Roblik layout document',
    description:
      'Lengths are whole tenths of a micrometre on the layout, with what was typed; speeds scale km/h; times milliseconds.',
    ...root,
  };
}

function convert(described: Described): Json {
  const { type, oneOf, tests = [], fields, innerType } = described;
  const values = oneOf?.filter((value) => value !== undefined && value !== null);
  if (values?.length) return { enum: values };
  const test = (name: string) => tests.find((t) => t.name === name)?.params as Json | undefined;
  if ((type as string) === 'lazy') return {};
  switch (type) {
    case 'object': {
      const entries = Object.entries(fields ?? {});
      return {
        type: 'object',
        additionalProperties: false,
        required: entries.filter(([, field]) => !field.optional).map(([name]) => name),
        properties: Object.fromEntries(entries.map(([name, field]) => [name, convert(field)])),
      };
    }
    case 'array':
      return { type: 'array', maxItems: test('max')?.max, items: innerType ? convert(innerType) : {} };
    case 'number': {
      const whole = tests.some((t) => t.name === 'integer');
      return { type: whole ? 'integer' : 'number', minimum: test('min')?.min, maximum: test('max')?.max };
    }
    case 'boolean':
      return { type: 'boolean' };
    default: {
      const pattern = test('matches')?.regex;
      const required = tests.some((t) => t.name === 'required') || !(described.optional || described.nullable);
      return {
        type: 'string',
        ...(test('max') ? { maxLength: test('max')?.max } : {}),
        ...(pattern instanceof RegExp ? { pattern: pattern.source } : {}),
        ...(required && described.meta?.mayBeEmpty !== true && !pattern ? { minLength: 1 } : {}),
      };
    }
  }
}
