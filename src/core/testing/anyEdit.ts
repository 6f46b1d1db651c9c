import fc from 'fast-check';
import type { z } from 'zod';
import * as a from '../project/arguments';
import type { Outcome } from '../project/edit';
import { registeredEdits } from '../project/edit';
import type { Project } from '../project/model';
import { pairKey } from '../project/pairs';
import '../allEdits';

/** Any edit that is registered, with any arguments that its schema takes: for properties that must hold for all of them. */

export type AnyStep = { name: string; args: unknown; run: (p: Project) => Outcome };

const number = fc.oneof(
  fc.integer({ min: -300, max: 900 }),
  fc.constantFrom(0, 0.5, 1, 90, -1e5, 2e6, Number.NaN, Number.POSITIVE_INFINITY),
);

/** Arbitraries for the words that arguments are made of, drawing on what the project has. */
function vocabulary(project: Project): Map<z.ZodType, fc.Arbitrary<unknown>> {
  const glyph = fc.constantFrom(...project.glyphOrder.slice(0, 70), 'gone');
  const master = fc.constantFrom(...project.masters.map((m) => m.id));
  const group = fc.constantFrom(...project.groups.map((g) => g.id).slice(0, 8), 'gone');
  const side = fc.oneof(
    glyph.map((id) => ({ kind: 'glyph' as const, id })),
    group.map((id) => ({ kind: 'group' as const, id })),
  );
  const keys = project.masters.flatMap((m) => Object.keys(m.kerning)).slice(0, 40);
  const point = fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 0, max: 14 })).map(([c, p]) => `${c}:${p}`);
  const list = (one: fc.Arbitrary<unknown>, max = 5) => fc.array(one, { maxLength: max });
  return new Map<z.ZodType, fc.Arbitrary<unknown>>([
    [a.glyph, glyph],
    [a.glyphs, list(glyph)],
    [a.master, master],
    [a.masters, list(master, 3)],
    [a.index, fc.integer({ min: 0, max: 4 })],
    [a.indices, list(fc.integer({ min: 0, max: 3 }), 3)],
    [a.point, point],
    [a.points, list(point, 6)],
    [a.text, fc.constantFrom('', 'alpha', 'n.alt', 'T1', 'a b', 'Ż')],
    [a.date, fc.constant('2026-01-01T00:00:00Z')],
    [a.number, number],
    [a.codePoints, list(fc.integer({ min: 0x100, max: 0x180 }), 2)],
    [a.group, group],
    [a.pairSide, side],
    [
      a.pairKeyText,
      fc.oneof(
        fc.constantFrom(...keys, 'none'),
        fc.tuple(side, side).map(([x, y]) => pairKey(x, y)),
      ),
    ],
  ]);
}

type Def = {
  type: string;
  shape?: Record<string, z.ZodType>;
  element?: z.ZodType;
  innerType?: z.ZodType;
  options?: z.ZodType[];
  entries?: Record<string, string>;
  values?: unknown[];
  items?: z.ZodType[];
  valueType?: z.ZodType;
  keyType?: z.ZodType;
  in?: z.ZodType;
};

function arbitraryOf(schema: z.ZodType, words: Map<z.ZodType, fc.Arbitrary<unknown>>): fc.Arbitrary<unknown> {
  const known = words.get(schema);
  if (known) return known;
  const def = schema.def as unknown as Def;
  const of = (s: z.ZodType) => arbitraryOf(s, words);
  switch (def.type) {
    case 'object': {
      const required: string[] = [];
      const fields = Object.entries(def.shape ?? {}).map(([key, field]) => {
        const inner = field.def as unknown as Def;
        if (inner.type !== 'optional') required.push(key);
        return [key, of(inner.type === 'optional' ? inner.innerType! : field)] as const;
      });
      return fc.record(Object.fromEntries(fields), { requiredKeys: required as never });
    }
    case 'array':
      return fc.array(of(def.element!), { maxLength: 4 });
    case 'readonly':
    case 'optional':
    case 'nonoptional':
      return of(def.innerType!);
    case 'tuple':
      return fc.tuple(...def.items!.map(of));
    case 'union':
      return fc.oneof(...def.options!.map(of));
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries!));
    case 'literal':
      return fc.constantFrom(...def.values!);
    case 'record':
      return fc.dictionary(of(def.keyType!) as fc.Arbitrary<string>, of(def.valueType!), { maxKeys: 2 });
    case 'nullable':
      return fc.option(of(def.innerType!), { nil: null });
    case 'unknown':
      return fc.constant({});
    case 'boolean':
      return fc.boolean();
    case 'number':
      return fc.integer({ min: 0, max: 700 });
    case 'string':
      return fc.constantFrom('alpha', 'b1', 'take1');
    case 'custom':
      return fc.constant(Uint8Array.of(1, 2, 3));
    case 'lazy':
      return fc.constant('kept');
    default:
      throw new Error(`No values are known for the schema kind ${def.type}.`);
  }
}

/** Names of edits that take too long, or bring too much, for a property of many runs. */
const SLOW = new Set(['tidyGlyphs', 'workStrokesOfGlyphs']);

export function anyEdit(project: Project, only: (name: string) => boolean = () => true): fc.Arbitrary<AnyStep> {
  const words = vocabulary(project);
  const edits = [...registeredEdits()].filter(([name]) => only(name) && !SLOW.has(name));
  return fc.oneof(
    ...edits.map(([name, edit]) =>
      arbitraryOf(edit.facts.args, words).map((args) => ({ name, args, run: (p: Project) => edit(p, args as never) })),
    ),
  );
}
