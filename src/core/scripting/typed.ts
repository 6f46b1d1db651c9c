import { z } from 'zod';

type Json = {
  type?: string | string[];
  description?: string;
  properties?: Record<string, Json>;
  required?: string[];
  items?: Json;
  prefixItems?: Json[];
  additionalProperties?: Json | boolean;
  anyOf?: Json[];
  oneOf?: Json[];
  enum?: unknown[];
  const?: unknown;
};

/** What ids in arguments stand for. */
const REFERENCES: Readonly<Record<string, string>> = {
  'id of a glyph': 'Glyph',
  'id of a master': 'Master',
};

const list = (item: string): string => (/[|&{ ]/.test(item) ? `(${item})[]` : `${item}[]`);

function typeIn(j: Json, depth: number): string {
  const referred = j.description && REFERENCES[j.description];
  if (referred) return referred;
  if (j.const !== undefined) return JSON.stringify(j.const);
  if (j.enum) return j.enum.map((v) => JSON.stringify(v)).join(' | ');
  const among = j.anyOf ?? j.oneOf;
  if (among) return [...new Set(among.map((x) => typeIn(x, depth)))].join(' | ');
  if (Array.isArray(j.type)) return j.type.map((type) => typeIn({ ...j, type }, depth)).join(' | ');
  switch (j.type) {
    case 'string':
      return 'string';
    case 'integer':
    case 'number':
      return 'number';
    case 'boolean':
      return 'boolean';
    case 'null':
      return 'null';
    case 'array':
      if (j.prefixItems) return `[${j.prefixItems.map((x) => typeIn(x, depth)).join(', ')}]`;
      return list(j.items ? typeIn(j.items, depth) : 'unknown');
    case 'object':
      return objectIn(j, depth);
    default:
      return 'unknown';
  }
}

function objectIn(j: Json, depth: number): string {
  const fields = Object.entries(j.properties ?? {});
  const keys = fields.map(([k]) => k);
  // A drawing of a glyph in a master stands for both.
  if (keys.includes('glyph') && keys.includes('master') && keys.every((k) => ['glyph', 'master', 'also'].includes(k)))
    return 'Drawing';
  // A side of a pair is a glyph or a group, which is named by its id.
  if (keys.includes('kind') && keys.includes('id') && keys.length === 2)
    return `{ kind: ${typeIn(j.properties!.kind!, depth + 1)}; id: Glyph | string }`;
  if (keys.includes('closed') && keys.includes('points')) return 'Contour';
  if (fields.length === 0)
    return typeof j.additionalProperties === 'object'
      ? `Record<string, ${typeIn(j.additionalProperties, depth)}>`
      : 'object';
  // What lies deeper than three levels is in the model, and told there.
  if (depth > 3) return 'object';
  const required = new Set(j.required ?? []);
  return `{ ${fields.map(([k, v]) => `${k}${required.has(k) ? '' : '?'}: ${typeIn(v, depth + 1)}`).join('; ')} }`;
}

/** A schema as a type of the declarations. */
export const typeOf = (schema: z.ZodType): string =>
  typeIn(z.toJSONSchema(schema, { unrepresentable: 'any', io: 'input' }) as Json, 0);
