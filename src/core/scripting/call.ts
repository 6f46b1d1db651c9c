import type { z } from 'zod';
import type { GlyphId, MasterId } from '../project/model';
import type { Session } from './session';

/** What a call belongs to: the whole font, a glyph, a master, a drawing of a glyph in a master, shapes, or nothing. */
export type Owner = 'font' | 'Glyph' | 'Master' | 'Drawing' | 'shapes' | 'global';
/** The thing that a call is made on, as it comes over the border. */
export type Self = {
  font: null;
  shapes: null;
  global: null;
  Glyph: GlyphId;
  Master: MasterId;
  Drawing: readonly [GlyphId, MasterId];
};

export type Taken = { readonly name: string; readonly type: string; readonly schema: z.ZodType };

/** One thing that a script can ask or say: declared once for the border, for completion and for the documentation. */
export type Call = {
  readonly of: Owner;
  readonly name: string;
  /** A value is read like a field; a method is called. */
  readonly as: 'value' | 'method';
  readonly takes: readonly Taken[];
  /** Its result, as a type of the declarations. */
  readonly gives: string;
  readonly does: string;
  readonly example?: string | undefined;
  readonly run: (session: Session, self: unknown, args: readonly unknown[]) => unknown;
};

/** References to glyphs and masters within a result; the border makes objects of them. */
export const glyphRef = (id: GlyphId) => ({ $g: id });
export const masterRef = (id: MasterId) => ({ $m: id });

type Facts = { does: string; gives: string; example?: string };

/** A value of an owner, read without arguments. */
export const value = <O extends Owner>(
  of: O,
  name: string,
  facts: Facts,
  read: (session: Session, self: Self[O]) => unknown,
): Call => ({ of, name, as: 'value', takes: [], ...facts, run: (s, self) => read(s, self as Self[O]) });

type Takes = Readonly<Record<string, readonly [type: string, schema: z.ZodType]>>;
type Given<T extends Takes> = { [K in keyof T]: z.output<T[K][1]> };

/** A method of an owner; its arguments are named in their order. */
export const method = <O extends Owner, const T extends Takes>(
  of: O,
  name: string,
  takes: T,
  facts: Facts,
  run: (session: Session, args: Given<T>, self: Self[O]) => unknown,
): Call => {
  const names = Object.keys(takes);
  return {
    of,
    name,
    as: 'method',
    takes: names.map((n) => ({ name: n, type: takes[n]![0], schema: takes[n]![1] })),
    ...facts,
    run: (s, self, args) => run(s, Object.fromEntries(names.map((n, i) => [n, args[i]])) as Given<T>, self as Self[O]),
  };
};
