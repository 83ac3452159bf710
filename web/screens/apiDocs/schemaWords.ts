import type { Schema } from '../../api/apiDescription.ts';

/** A value in words: what it is, and what is allowed of it. Objects are told field by field instead. */
export function schemaWords(schema: Schema): string {
  const name = nameOf(schema);
  if (name !== null) return name;
  const branches = branchesOf(schema);
  if (branches) return [...new Set(branches.map(schemaWords))].join(', or ');
  if ('const' in schema) return JSON.stringify(schema.const);
  if (schema.enum) return schema.enum.map((one) => JSON.stringify(one)).join(', ');
  if (schema.type === 'array') {
    return `list of ${schema.items ? schemaWords(schema.items) : 'values'}${between(schema.minItems, schema.maxItems, ' of them')}`;
  }
  if (schema.type === 'object') return 'object';
  if (schema.type === 'string') return textWords(schema);
  if (schema.type === 'integer' || schema.type === 'number') return numberWords(schema);
  if (schema.type === 'boolean') return 'true or false';
  if (schema.type === 'null') return 'null';
  return 'any value';
}

/** What a schema is called, where it is one of the things that are described once. */
export const nameOf = ({ $ref }: Schema): string | null => $ref?.split('/').at(-1) ?? null;

/** The kinds that a value may be of; null where there is one. */
export const branchesOf = ({ anyOf, oneOf }: Schema): Schema[] | null => anyOf ?? oneOf ?? null;

/** The fields of an object, or of what a list or a choice is made of; null where there are none to tell. */
export function fieldsOf(schema: Schema): { name: string; schema: Schema; isNeeded: boolean }[] | null {
  if (schema.properties) {
    const { required = [] } = schema;
    return Object.entries(schema.properties).map(([name, one]) => ({
      name,
      schema: one,
      isNeeded: required.includes(name),
    }));
  }
  const { additionalProperties: each } = schema;
  if (typeof each === 'object') return [{ name: '(each name)', schema: each, isNeeded: true }];
  return null;
}

const formats: Record<string, string> = {
  uuid: 'id',
  'date-time': 'date and time (ISO 8601)',
  date: 'date (YYYY-MM-DD)',
  uri: 'address',
  binary: 'file',
};

const textWords = ({ format, minLength, maxLength }: Schema): string =>
  (format && formats[format]) ?? `text${between(minLength, maxLength, ' characters')}`;

/** Zod notes the range of all safe integers where a schema sets none. */
const isRange = (limit: number | undefined): limit is number =>
  limit !== undefined && Math.abs(limit) < Number.MAX_SAFE_INTEGER;

function numberWords({ type, minimum, maximum, exclusiveMinimum, exclusiveMaximum }: Schema): string {
  const kind = type === 'integer' ? 'whole number' : 'number';
  const over = isRange(exclusiveMinimum) ? ` over ${exclusiveMinimum}` : '';
  const under = isRange(exclusiveMaximum) ? ` under ${exclusiveMaximum}` : '';
  return `${kind}${over}${under}${between(isRange(minimum) ? minimum : undefined, isRange(maximum) ? maximum : undefined)}`;
}

function between(least: number | undefined, most: number | undefined, of = ''): string {
  if (least !== undefined && most !== undefined) return `, ${least} to ${most}${of}`;
  if (least !== undefined) return `, at least ${least}${of}`;
  if (most !== undefined) return `, at most ${most}${of}`;
  return '';
}
