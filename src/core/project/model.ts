import { z } from 'zod';
import type { Contour } from '../geometry/contour';
import { advance, angle, codePoint, coordinate, factor, glyphName, kern, overshoot, share } from './limits';
import { trialSchema } from './setting';

/** The document of MODEL.md as Zod schemas; the types are inferred. All values are immutable data in font units. */

/** A property list value; a date is a dictionary with the one key `$date`. */
export type LibValue =
  | string
  | number
  | boolean
  | Uint8Array
  | readonly LibValue[]
  | { readonly [key: string]: LibValue };

const bytes = z.custom<Uint8Array>((v) => v instanceof Uint8Array);

const libValue: z.ZodType<LibValue> = z.lazy(() =>
  z.union([z.string(), z.number(), z.boolean(), bytes, z.array(libValue), z.record(z.string(), libValue)]),
) as z.ZodType<LibValue>;
const lib = z.record(z.string(), libValue);
export type Lib = Readonly<Record<string, LibValue>>;

const affine = z.tuple([factor, factor, factor, factor, coordinate, coordinate]).readonly();
const place = z.record(z.string(), z.number()).readonly();
const languageText = z.record(z.string(), z.string()).readonly();

const point = z.object({
  x: coordinate,
  y: coordinate,
  type: z.enum(['line', 'curve', 'qcurve', 'off']),
  smooth: z.boolean().optional(),
  name: z.string().optional(),
  identifier: z.string().optional(),
});

/** A contour as it is taken in from elsewhere. */
export const contourSchema = z.object({
  closed: z.boolean(),
  points: z.array(point).readonly(),
  identifier: z.string().optional(),
});

const component = z.object({
  glyph: z.string(),
  transform: affine,
  /** The anchor of the base this component was placed by, where a choice was made. */
  anchor: z.string().optional(),
  identifier: z.string().optional(),
});
export type Component = Readonly<z.infer<typeof component>>;

const anchor = z.object({
  name: z.string(),
  x: coordinate,
  y: coordinate,
  role: z.enum(['takesMark', 'isMark', 'caret', 'entry', 'exit']).optional(),
  color: z.string().optional(),
  identifier: z.string().optional(),
});
export type Anchor = Readonly<z.infer<typeof anchor>>;

const guide = z.object({
  x: coordinate,
  y: coordinate,
  /** Degrees counter-clockwise from the x axis. */
  angle,
  name: z.string().optional(),
  color: z.string().optional(),
  identifier: z.string().optional(),
});
export type Guide = Readonly<z.infer<typeof guide>>;

const backdropOutline = z.discriminatedUnion('kind', [
  /** The same glyph in another master, as it is there now. */
  z.object({ kind: z.literal('master'), master: z.string() }),
  /** Another glyph in the same master, as it is now. */
  z.object({ kind: z.literal('glyph'), glyph: z.string() }),
  z.object({ kind: z.literal('take'), take: z.string() }),
  /** A copy of an outline, kept as it was. */
  z.object({ kind: z.literal('copy'), contours: z.array(contourSchema).readonly() }),
]);
export type BackdropOutline = Readonly<z.infer<typeof backdropOutline>>;

const backdrop = z.object({
  id: z.string(),
  /** Key into the project's pictures; empty where an outline is shown. */
  picture: z.string(),
  outline: backdropOutline.optional(),
  /** From picture pixels (y down, origin at the top left), or from the outline's own units, to font units. */
  transform: affine,
  /** 0 invisible to 1 full. */
  strength: share,
  locked: z.boolean(),
  visible: z.boolean(),
});
export type Backdrop = Readonly<z.infer<typeof backdrop>>;

const drawing = z.object({
  advance,
  verticalAdvance: coordinate.optional(),
  contours: z.array(contourSchema).readonly(),
  components: z.array(component).readonly(),
  anchors: z.array(anchor).readonly(),
  guides: z.array(guide).readonly(),
  backdrops: z.array(backdrop).readonly(),
  note: z.string().optional(),
  lib: lib.optional(),
});
export type Drawing = Readonly<z.infer<typeof drawing>>;

const follow = z.object({
  glyph: z.string(),
  side: z.enum(['left', 'right']),
  offset: coordinate,
  master: z.string().optional(),
});
const handover = z.object({ axis: z.string(), from: z.number(), to: z.number(), glyph: z.string() });
const take = z.object({ id: z.string(), date: z.string(), name: z.string(), master: z.string(), drawing });
const waypoint = z.object({ place, drawing });

const glyph = z.object({
  id: z.string(),
  name: glyphName,
  unicodes: z.array(codePoint).readonly(),
  category: z.enum(['base', 'mark', 'ligature', 'component']).optional(),
  cast: z.boolean(),
  status: z.enum(['sketched', 'done']).optional(),
  note: z.string().optional(),
  productionName: z.string().optional(),
  drawings: z.record(z.string(), drawing).readonly(),
  waypoints: z.array(waypoint).readonly(),
  handovers: z.array(handover).readonly(),
  takes: z.array(take).readonly(),
  follows: z.object({ left: z.array(follow).readonly(), right: z.array(follow).readonly() }),
  lib: lib.optional(),
});
export type Glyph = Readonly<z.infer<typeof glyph>>;
export type GlyphId = string;
export type MasterId = string;

const zone = z.object({
  name: z.string(),
  position: coordinate,
  /** Signed: how far round shapes pass the line, below (negative) or above (positive). */
  overshoot,
  governs: z.string().optional(),
});
export type Zone = Readonly<z.infer<typeof zone>>;

const zones = z.object({
  baseline: zone,
  xHeight: zone,
  capHeight: zone,
  ascender: zone,
  descender: zone,
  own: z.array(zone).readonly(),
});
export type Zones = Readonly<z.infer<typeof zones>>;
export type ZoneKey = Exclude<keyof Zones, 'own'>;

const verticalMetrics = z.object({
  typoAscender: coordinate.optional(),
  typoDescender: coordinate.optional(),
  typoLineGap: coordinate.optional(),
  hheaAscender: coordinate.optional(),
  hheaDescender: coordinate.optional(),
  hheaLineGap: coordinate.optional(),
  winAscent: coordinate.optional(),
  winDescent: coordinate.optional(),
});

const master = z.object({
  id: z.string(),
  name: z.string(),
  place,
  zones,
  /** Overrides of the rule; see casting/metrics. */
  verticalMetrics,
  italicAngle: angle,
  stems: z.array(z.object({ name: z.string(), value: coordinate, vertical: z.boolean() })).readonly(),
  guides: z.array(guide).readonly(),
  /** Pair key (see kerning/pairs) to value. */
  kerning: z.record(z.string(), kern).readonly(),
  /** Source facts of this master that Wendril does not model, kept and written back. */
  info: lib.optional(),
  lib: lib.optional(),
});
export type Master = Readonly<z.infer<typeof master>>;

const axis = z.object({
  tag: z.string(),
  name: z.string(),
  minimum: z.number(),
  default: z.number(),
  maximum: z.number(),
  map: z.array(z.tuple([z.number(), z.number()]).readonly()).readonly(),
  hidden: z.boolean(),
  labels: languageText,
  /** The only values, in user units, of an axis that does not run through between them. */
  discrete: z.array(z.number()).readonly().optional(),
  /** Named values along the axis, in user units; `linked` is the value that a bold of this one has. */
  stops: z
    .array(
      z.object({
        name: z.string(),
        value: z.number(),
        minimum: z.number().optional(),
        maximum: z.number().optional(),
        linked: z.number().optional(),
        elidable: z.boolean(),
        older: z.boolean(),
      }),
    )
    .readonly()
    .optional(),
});

const instance = z.object({
  name: z.string(),
  place,
  styleLink: z.string().optional(),
  weightClass: z.number().optional(),
  widthClass: z.number().optional(),
  fileName: z.string().optional(),
  /** Names that are set outright instead of following from family and style, by the facts of sources that hold them. */
  names: z.record(z.string(), z.string()).optional(),
});

const family = z.object({
  name: z.string(),
  designer: z.string().optional(),
  designerURL: z.string().optional(),
  manufacturer: z.string().optional(),
  vendorURL: z.string().optional(),
  /** Four-character vendor tag of OS/2. */
  vendor: z.string().optional(),
  copyright: z.string().optional(),
  trademark: z.string().optional(),
  licence: z.string().optional(),
  licenceURL: z.string().optional(),
  description: z.string().optional(),
  sampleText: z.string().optional(),
  versionMajor: z.number().int().min(0).max(32767),
  versionMinor: z.number().int().min(0).max(999),
  /** Other languages: language tag to family name. */
  names: languageText,
});
export type Family = Readonly<z.infer<typeof family>>;

const group = z.object({
  id: z.string(),
  side: z.enum(['first', 'second']),
  name: z.string(),
  members: z.array(z.string()).readonly(),
});
export type Group = Readonly<z.infer<typeof group>>;

const section = z.object({
  id: z.string(),
  title: z.string(),
  automatic: z.string().optional(),
  options: z.record(z.string(), libValue).readonly(),
  text: z.string(),
});
const features = z.object({
  sections: z.array(section).readonly(),
  classes: z.record(z.string(), z.array(z.string()).readonly()).readonly(),
  languageSystems: z.array(z.tuple([z.string(), z.string()]).readonly()).readonly(),
  included: z.record(z.string(), z.string()).readonly(),
});

const picture = z.object({
  name: z.string(),
  type: z.enum(['image/png', 'image/jpeg']),
  width: z.number(),
  height: z.number(),
  bytes: bytes,
});
export type Picture = Readonly<z.infer<typeof picture>>;

/** How fonts are made, apart from what they are made of. What is absent is as the project has it. */
const castTerms = z.object({
  keepOverlaps: z.boolean(),
  /** Characters that are not drawn stand as blanks. */
  blanks: z.boolean(),
  /** Only the characters of a list of the project, of languages (BCP 47 codes), and what rules make of them. */
  glyphs: z
    .object({
      list: z.string().max(200).optional(),
      languages: z.array(z.string().max(40)).max(400).readonly().optional(),
    })
    .optional(),
  /** Features that are left out, by their tags. */
  without: z.array(z.string().max(4)).max(200).readonly().optional(),
  /** Without alignment zones and stems. */
  unhinted: z.boolean().optional(),
  /** Characters stand where symbol fonts have them. */
  symbol: z.boolean().optional(),
  /** What documents may do with the font (OpenType, “fsType”). */
  embedding: z.enum(['none', 'view', 'edit', 'free']).optional(),
  /** Line metrics instead of those of the masters, in font units. */
  lines: z
    .object({
      ascender: z.number().min(-32768).max(32767),
      descender: z.number().min(-32768).max(32767),
      gap: z.number().min(0).max(32767),
    })
    .optional(),
  /** Nothing is made while glyphs of different masters do not agree. */
  mustAgree: z.boolean().optional(),
  /** Web fonts are cut into files for ranges of characters. */
  parts: z.boolean().optional(),
});
export const castTermsSchema = castTerms;
export type CastTerms = z.infer<typeof castTerms>;

/** Numbers of a set of glyphs made from others, in percent. */
const setTerms = z.object({
  height: z.number().min(10).max(300),
  width: z.number().min(20).max(300),
  weight: z.number().min(20).max(300),
  foot: z.number().min(-200).max(300),
});

const settings = z.object({
  nudge: z.tuple([z.number(), z.number(), z.number()]).readonly(),
  grid: z.number(),
  patterns: z.array(z.object({ name: z.string(), text: z.string() })).readonly(),
  /** Share of a counter that fitting starts with on each side; half when absent. */
  startShare: z.number().min(0.05).max(2).optional(),
  /** What kerning is stepped by and rounded to, in font units; 5 when absent. */
  kerningStep: z.number().int().min(1).max(50).optional(),
  /** Languages that the project is made for, as BCP 47 codes. */
  languages: z.array(z.string()).readonly().optional(),
  /** Lists of characters and glyph names of its own, each as it was written. */
  lists: z
    .array(z.object({ name: z.string(), text: z.string() }))
    .readonly()
    .optional(),
  /** The project that this one is a pair with, a roman and its italic: its address in this browser, and its name. */
  partner: z.object({ id: z.string().max(80), name: z.string().max(400) }).optional(),
  /** When fonts were cast last, in milliseconds since 1970. */
  castAt: z.number().optional(),
  /** Fonts that were cast, the newest last: what was made, and how large. */
  castings: z
    .array(
      z.object({
        at: z.number(),
        version: z.string(),
        files: z
          .array(
            z.object({
              name: z.string(),
              bytes: z.number(),
              glyphs: z.number(),
              pairs: z.number(),
              tables: z.record(z.string(), z.number()),
            }),
          )
          .readonly(),
        more: z.number(),
      }),
    )
    .readonly()
    .optional(),
  /** What glyphs, kerning and rules were like when fonts were cast last, a number for each. */
  castPrint: z
    .object({
      glyphs: z.record(z.string(), z.number()),
      kerning: z.record(z.string(), z.tuple([z.number(), z.number()]).readonly()),
      rules: z.record(z.string(), z.number()),
    })
    .optional(),
  /** Glyphs that hand over along the axes do so after all other rules, not before them. */
  handoversLast: z.boolean().optional(),
  /** What is cast, by name: formats, masters by id, instances by name, the family as one font. */
  castingLists: z
    .array(
      castTerms.extend({
        name: z.string().max(120),
        formats: z.array(z.string().max(8)).max(8).readonly(),
        masters: z.array(z.string()).max(64).readonly(),
        instances: z.array(z.string()).max(500).readonly(),
        variable: z.boolean(),
      }),
    )
    .max(40)
    .readonly()
    .optional(),
  /** A mark that stands between two letters parts them: pairs do not hold across it. */
  kerningStopsAtMarks: z.boolean().optional(),
  /** OpenType (CFF) fonts of one place keep fractions of coordinates; all others have whole units. */
  fractions: z.boolean().optional(),
  /** How faults are judged: kinds that are looked for or not, with amounts of its own, and those that are meant, with the reason. */
  preflight: z
    .object({
      kinds: z
        .record(
          z.string().max(80),
          z.object({ on: z.boolean().optional(), amount: z.number().min(0).max(1e6).optional() }),
        )
        .readonly()
        .optional(),
      /** So many findings of a kind in a glyph, by its name, or without one in the project. */
      accepted: z
        .array(
          z.object({
            kind: z.string().max(80),
            glyph: z.string().optional(),
            count: z.number().int().min(1),
            reason: z.string().max(400),
          }),
        )
        .max(50_000)
        .readonly()
        .optional(),
    })
    .optional(),
  /** Sets of glyphs that are made from others: numbers of a set in percent, and glyphs with what their set made of them. */
  deriving: z
    .object({
      terms: z.record(z.string().max(40), setTerms).readonly().optional(),
      /** Numbers of single glyphs, by their names, in place of those of their set; what they come from and how, where that is chosen. */
      own: z
        .record(
          z.string().max(200),
          setTerms
            .partial()
            .extend({ of: z.string().max(200).optional(), as: z.enum(['scaled', 'part', 'hand']).optional() }),
        )
        .readonly()
        .optional(),
      made: z
        .array(z.object({ glyph: z.string(), set: z.string().max(40), print: z.number() }))
        .max(20_000)
        .readonly()
        .optional(),
    })
    .optional(),
  /** What glyphs are put together from where it is not what Unicode says: glyphs by name; a part without an anchor stands beside. */
  recipes: z
    .array(
      z.object({
        glyph: z.string(),
        base: z.string(),
        parts: z.array(z.object({ glyph: z.string(), anchor: z.string() })).readonly(),
      }),
    )
    .readonly()
    .optional(),
});

/** Every part of a project but its glyphs; each is stored and compared as one piece. */
export const partSchemas = {
  version: z.literal(1),
  family,
  unitsPerEm: z.number().int().min(16).max(16384),
  /** Seconds since 1970 (UTC); data, never the clock at cast time. */
  created: z.number().int().min(0),
  axes: z.array(axis).readonly(),
  masters: z.array(master).readonly(),
  instances: z.array(instance).readonly(),
  glyphOrder: z.array(z.string()).readonly(),
  groups: z.array(group).readonly(),
  features,
  texts: z.object({
    galley: z.string(),
    words: z.array(z.string()).readonly(),
    pairs: z.array(z.string()).readonly(),
    /** The trial of all rules. */
    trial: trialSchema.optional(),
  }),
  scripts: z
    .array(
      z.object({
        id: z.string(),
        name: z.string(),
        text: z.string(),
        /** The digit that runs it, with Alt and Shift. */
        key: z.number().int().min(1).max(9).optional(),
      }),
    )
    .readonly(),
  settings,
  pictures: z.record(z.string(), picture).readonly(),
  /** Files of the source that Wendril does not read, by path, kept and written back. */
  kept: z.record(z.string(), bytes).readonly(),
  /** The next number for a new id. */
  nextId: z.number().int().min(1),
  lib,
} as const;

export const glyphSchema = glyph;
export const guideSchema = guide;
export const backdropSchema = backdrop;
export const backdropOutlineSchema = backdropOutline;
export const pictureSchema = picture;
export const familySchema = family;
export const settingsSchema = settings;
export const drawingSchema = drawing;
export const masterSchema = master;
/** A glyph and its drawings without what the contours hold, which is checked point by point where they are unpacked. */
const drawingShell = drawing.extend({ contours: z.array(z.custom<Contour>()).readonly() });
export const glyphShellSchema = glyph.extend({
  drawings: z.record(z.string(), drawingShell).readonly(),
  waypoints: z.array(waypoint.extend({ drawing: drawingShell })).readonly(),
  takes: z.array(take.extend({ drawing: drawingShell })).readonly(),
});
export const projectSchema = z.object({ ...partSchemas, glyphs: z.record(z.string(), glyph) });

type PartsOf = { readonly [K in keyof typeof partSchemas]: z.infer<(typeof partSchemas)[K]> };
export type Parts = PartsOf;
export type PartName = keyof Parts;
export type Project = Parts & { readonly glyphs: Readonly<Record<GlyphId, Glyph>> };
export const PART_NAMES = Object.keys(partSchemas) as PartName[];

/** The five standard zones from bottom to top. */
export const ZONE_KEYS = [
  'descender',
  'baseline',
  'xHeight',
  'capHeight',
  'ascender',
] as const satisfies readonly ZoneKey[];
