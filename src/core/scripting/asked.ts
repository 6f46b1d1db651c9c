import { z } from 'zod';
import { refuse } from '../base/result';

/** One value that a script asks for: a number within bounds, a text, a choice, glyphs by names or characters, or yes and no. */
const label = z.string().max(80).optional();
const field = z.union([
  z.strictObject({
    label,
    number: z.number(),
    least: z.number().optional(),
    most: z.number().optional(),
  }),
  z.strictObject({ label, text: z.string().max(20_000) }),
  z.strictObject({ label, choice: z.string().max(200), of: z.array(z.string().max(200)).min(1).max(100) }),
  z.strictObject({ label, glyphs: z.string().max(20_000) }),
  z.strictObject({ label, yes: z.boolean() }),
]);
export const askedFields = z.record(z.string().regex(/^[A-Za-z_]\w{0,60}$/), field);
export type AskedField = z.infer<typeof field>;
export type AskedFields = Readonly<Record<string, AskedField>>;
export type AskedValue = string | number | boolean;
export type AskedValues = Readonly<Record<string, AskedValue>>;

/** What a field has as long as nothing is given. */
export const usualOf = (f: AskedField): AskedValue =>
  'number' in f ? f.number : 'text' in f ? f.text : 'choice' in f ? f.choice : 'glyphs' in f ? f.glyphs : f.yes;

/** What is written beside a field. */
export const labelOf = (name: string, f: AskedField): string => f.label ?? name;

/** The value of a field as it is given, or the usual one; a refusal where it is of another kind or out of bounds. */
export function givenValue(name: string, f: AskedField, given: AskedValue | undefined): AskedValue {
  const value = given ?? usualOf(f);
  const said = labelOf(name, f);
  if ('number' in f) {
    const n = Number(value);
    if (String(value).trim() === '' || !Number.isFinite(n)) refuse(`“${said}” is a number.`);
    if (n < (f.least ?? -Infinity)) refuse(`“${said}” is ${f.least} or more.`);
    if (n > (f.most ?? Infinity)) refuse(`“${said}” is ${f.most} or less.`);
    return n;
  }
  if ('yes' in f) {
    if (typeof value === 'boolean') return value;
    if (/^(yes|true|1)$/i.test(String(value))) return true;
    return /^(no|false|0)$/i.test(String(value)) ? false : refuse(`“${said}” is yes or no.`);
  }
  if ('choice' in f && !f.of.includes(String(value))) refuse(`“${said}” is one of ${f.of.join(', ')}.`);
  return String(value);
}

/** Values for all that is asked; names that nothing asks for are refused. */
export function valuesFor(asked: AskedFields, given: AskedValues): AskedValues {
  const unknown = Object.keys(given).filter((k) => !Object.hasOwn(asked, k));
  if (unknown.length > 0)
    refuse(`The script asks for ${Object.keys(asked).join(', ') || 'nothing'}, not for ${unknown.join(', ')}.`);
  return Object.fromEntries(Object.entries(asked).map(([k, f]) => [k, givenValue(k, f, given[k])]));
}
