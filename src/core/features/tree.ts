/** The tree of a feature file: what each construct of the language is, with its place in the text (offsets, the end excluded). */
export type Span = { from: number; to: number };

/**
 * A number, or values by places on the axes (`wght=400:10 wght=900:20`): user values, or where `d` or `n` stands behind one a design
 * or a normalised value.
 */
export type Scalar =
  | number
  | readonly { at: Readonly<Record<string, number>>; units?: Readonly<Record<string, string>>; value: number }[];

/** Glyphs as they are written; a name with a hyphen may turn out to be a range. */
export type GlyphSet = Span &
  (
    | { kind: 'glyph'; name: string; escaped?: true }
    | { kind: 'cid'; cid: number }
    | { kind: 'range'; first: GlyphSet; last: GlyphSet }
    | { kind: 'class'; name: string }
    | { kind: 'list'; items: readonly GlyphSet[] }
  );

export type DeviceText = readonly (readonly [ppem: number, delta: number])[];
/** A value record: four numbers, an advance alone, a name, or none. */
export type ValueText = Span &
  (
    | {
        kind: 'values';
        xPlacement: Scalar;
        yPlacement: Scalar;
        xAdvance: Scalar;
        yAdvance: Scalar;
        devices?: readonly (DeviceText | undefined)[];
        /** Written as one number: the advance along the line. */
        single?: true;
      }
    | { kind: 'named'; name: string }
    | { kind: 'null' }
  );
export type AnchorText = Span &
  (
    | {
        kind: 'place';
        x: Scalar;
        y: Scalar;
        contourPoint?: number;
        devices?: readonly [DeviceText | undefined, DeviceText | undefined];
      }
    | { kind: 'named'; name: string }
    | { kind: 'null' }
  );

/** One place of a rule's pattern. */
export type Item = { set: GlyphSet; lookups: readonly (Span & { name: string })[]; value?: ValueText };
export type Pattern = {
  back: readonly GlyphSet[];
  input: readonly Item[];
  ahead: readonly GlyphSet[];
  /** Were places marked with an apostrophe, or something written that only a context has? */
  isContext: boolean;
};

export type Attachment = { anchor: AnchorText; markClass: (Span & { name: string }) | undefined };

export type NameText = Span & { platform: number; encoding: number; language: number; text: string };

export type Statement = Span &
  (
    | { kind: 'languagesystem'; script: string; language: string }
    | { kind: 'glyphClass'; name: string; set: GlyphSet }
    | { kind: 'markClass'; name: string; set: GlyphSet; anchor: AnchorText }
    | { kind: 'anchorDef'; name: string; anchor: AnchorText }
    | { kind: 'valueRecordDef'; name: string; value: ValueText }
    | { kind: 'include'; path: string }
    | { kind: 'feature'; tag: string; tagAt: Span; extension: boolean; body: readonly Statement[] }
    | { kind: 'variation'; tag: string; condition: string; body: readonly Statement[] }
    | { kind: 'conditionset'; name: string; ranges: readonly { axis: string; least: number; most: number }[] }
    | { kind: 'lookup'; name: string; nameAt: Span; extension: boolean; body: readonly Statement[] }
    | { kind: 'lookupRef'; name: string }
    | { kind: 'featureRef'; tag: string }
    | { kind: 'script'; tag: string }
    | { kind: 'language'; tag: string; withDefault: boolean; required: boolean }
    | { kind: 'lookupflag'; flags: number; attachment?: GlyphSet; filter?: GlyphSet }
    | { kind: 'subtable' }
    | {
        kind: 'sub';
        pattern: Pattern;
        by: readonly GlyphSet[] | undefined;
        choice: GlyphSet | undefined;
        reverse: boolean;
      }
    | { kind: 'ignore'; table: 'GSUB' | 'GPOS'; patterns: readonly Pattern[] }
    | { kind: 'pos'; pattern: Pattern; each: boolean }
    | { kind: 'cursive'; set: GlyphSet; entry: AnchorText; exit: AnchorText }
    | { kind: 'attach'; onto: 'base' | 'mark'; set: GlyphSet; attachments: readonly Attachment[] }
    | { kind: 'attachParts'; set: GlyphSet; parts: readonly (readonly Attachment[])[] }
    | { kind: 'parameters'; values: readonly number[] }
    | { kind: 'names'; of: string; names: readonly NameText[] }
    | { kind: 'characters'; codes: readonly number[] }
    | { kind: 'cvParameters'; body: readonly Statement[] }
    | { kind: 'table'; tag: string; body: readonly TableStatement[] }
    | { kind: 'anon'; tag: string; text: string }
    | { kind: 'empty' }
  );

/** A line within a table block: its keyword, and what follows it, read by what the table is. */
export type TableStatement = Span & {
  keyword: string;
  sets: readonly GlyphSet[];
  numbers: readonly number[];
  words: readonly string[];
  names: readonly NameText[];
  /** Words and numbers between commas. */
  parts?: readonly { words: readonly string[]; numbers: readonly number[] }[];
  /** Places on axes: one number, with another that it is linked to, or with the ends of a range. */
  places?: readonly { axis: string; numbers: readonly number[] }[];
};

/** Something wrong in the text: a sentence, and where. */
export type Fault = Span & { reason: string; severity: 'error' | 'attention' };
export type Tree = { statements: readonly Statement[]; faults: readonly Fault[]; comments: readonly Span[] };
