import { z } from 'zod';
import * as a from './arguments';
import { defineEdit, edited, refused, withMaster } from './edit';
import type { Lib, Master } from './model';
import { masterThere } from './queries';

/**
 * Facts of a master's font that follow by rule from names, zones and outlines, and can be set outright instead. Each is kept
 * where sources keep it, so that it goes in and out with them.
 */
type FactOf = {
  readonly key: string;
  /** What it is called. */
  readonly title: string;
  readonly least: number;
  readonly most: number;
  /** Where it is kept: among the vertical metrics, else among the facts of the source by this name. */
  readonly where: { metric: keyof Master['verticalMetrics'] } | { info: string };
};

const unit = (key: keyof Master['verticalMetrics'], title: string, least = -32768): FactOf => ({
  key,
  title,
  least,
  most: 32767,
  where: { metric: key },
});
const fact = (key: string, title: string, info: string, [least, most]: readonly [number, number]): FactOf => ({
  key,
  title,
  least,
  most,
  where: { info },
});
const ANY = [-32768, 32767] as const;

export const MASTER_FACTS: readonly FactOf[] = [
  fact('weightClass', 'Weight class', 'openTypeOS2WeightClass', [1, 1000]),
  fact('widthClass', 'Width class', 'openTypeOS2WidthClass', [1, 9]),
  unit('typoAscender', 'Ascender (typo)'),
  unit('typoDescender', 'Descender (typo)'),
  unit('typoLineGap', 'Line gap (typo)', 0),
  unit('hheaAscender', 'Ascender (hhea)'),
  unit('hheaDescender', 'Descender (hhea)'),
  unit('hheaLineGap', 'Line gap (hhea)', 0),
  unit('winAscent', 'Ascent (win)', 0),
  unit('winDescent', 'Descent (win)', 0),
  fact('underlinePosition', 'Underline position', 'postscriptUnderlinePosition', ANY),
  fact('underlineThickness', 'Underline thickness', 'postscriptUnderlineThickness', [0, 32767]),
  fact('strikeoutPosition', 'Strikeout position', 'openTypeOS2StrikeoutPosition', ANY),
  fact('strikeoutSize', 'Strikeout thickness', 'openTypeOS2StrikeoutSize', [0, 32767]),
];

/** What is set outright of a master; undefined where the rule holds. */
export function masterFact(master: Master, key: string): number | undefined {
  const found = MASTER_FACTS.find((f) => f.key === key);
  if (!found) return undefined;
  const value = 'metric' in found.where ? master.verticalMetrics[found.where.metric] : master.info?.[found.where.info];
  return typeof value === 'number' ? value : undefined;
}

const withInfo = (m: Master, key: string, value: Lib[string] | undefined): Master => {
  const { [key]: _, ...rest } = m.info ?? {};
  return { ...m, info: value === undefined ? rest : { ...rest, [key]: value } };
};

/** Sets a fact of a master, or lets the rule hold again where no value is given. */
export const setMasterFact = defineEdit(
  {
    name: 'setMasterFact',
    does: 'Sets a metric or class of a master’s font, or leaves it to the rule',
    reach: 'one master',
    args: z.object({
      master: a.master,
      fact: z.enum(MASTER_FACTS.map((f) => f.key) as [string, ...string[]]),
      value: a.number.optional(),
    }),
  },
  (project, { master: id, fact: key, value }) => {
    const master = masterThere(project, id);
    const { title, least, most, where } = MASTER_FACTS.find((f) => f.key === key)!;
    if (value !== undefined && !(Number.isInteger(value) && value >= least && value <= most))
      return refused(`${title} is a whole number from ${least} to ${most}.`);
    const change = (m: Master): Master => {
      if ('info' in where) return withInfo(m, where.info, value);
      const { [where.metric]: _, ...rest } = m.verticalMetrics;
      return { ...m, verticalMetrics: value === undefined ? rest : { ...rest, [where.metric]: value } };
    };
    return edited(
      withMaster(project, id, change),
      value === undefined
        ? `Left ${title.toLowerCase()} of ${master.name} to the rule`
        : `Set ${title.toLowerCase()} ${value}, ${master.name}`,
    );
  },
);

/** The slope of letters, degrees counter-clockwise: negative for those that lean to the right. */
export const setItalicAngle = defineEdit(
  {
    name: 'setItalicAngle',
    does: 'Sets the angle of an italic',
    reach: 'one master',
    args: z.object({ master: a.master, angle: a.number }),
  },
  (project, { master, angle }) => {
    if (!(Math.abs(angle) <= 45)) return refused('An italic leans by 45 degrees at most.');
    return edited(
      withMaster(project, master, (m) => ({ ...m, italicAngle: angle })),
      `Set the angle ${angle}°, ${masterThere(project, master).name}`,
    );
  },
);

export const STYLE_LINKS = ['regular', 'italic', 'bold', 'bold italic'] as const;

/** Which of the four styles of its family a master's font is for programs that know four only; the name decides where none is given. */
export const setStyleLink = defineEdit(
  {
    name: 'setStyleLink',
    does: 'Sets which of four linked styles a master is',
    reach: 'one master',
    args: z.object({ master: a.master, link: z.enum(STYLE_LINKS).optional() }),
  },
  (project, { master, link }) =>
    edited(
      withMaster(project, masterThere(project, master).id, (m) => withInfo(m, 'styleMapStyleName', link)),
      link
        ? `Linked ${masterThere(project, master).name} as ${link}`
        : `Left the link of ${masterThere(project, master).name} to its name`,
    ),
);

/** What the font allows of embedding, by the bit of OS/2 fsType; `free` sets none. */
export const EMBEDDING = [
  {
    value: 'free',
    title: 'Installable',
    bits: [],
    what: 'Documents may carry the font, and it may be installed from them.',
  },
  {
    value: 'edit',
    title: 'Editable documents',
    bits: [3],
    what: 'Documents that carry the font may be changed with it.',
  },
  {
    value: 'view',
    title: 'Print and preview',
    bits: [2],
    what: 'Documents that carry the font may be read and printed.',
  },
  {
    value: 'none',
    title: 'Not without consent',
    bits: [1],
    what: 'Documents may not carry the font; many programs obey and leave it out of PDF.',
  },
] as const satisfies readonly { value: string; title: string; bits: readonly number[]; what: string }[];
export type Embedding = (typeof EMBEDDING)[number]['value'];

/** What a master's font says of embedding; other bits that a source may have set are left out of sight. */
export function embeddingOf(master: Master): Embedding {
  const bits = master.info?.openTypeOS2Type;
  const has = (bit: number) => Array.isArray(bits) && bits.includes(bit);
  return EMBEDDING.find((e) => e.bits.some(has))?.value ?? 'free';
}

/** Sets what the fonts of all masters allow of embedding. */
export const setEmbedding = defineEdit(
  {
    name: 'setEmbedding',
    does: 'Sets what the fonts allow of embedding',
    reach: 'all masters',
    args: z.object({ embedding: z.enum(['none', 'view', 'edit', 'free']) }),
  },
  (project, { embedding }) => {
    const { title, bits } = EMBEDDING.find((e) => e.value === embedding)!;
    const masters = project.masters.map((m) => {
      const before = m.info?.openTypeOS2Type;
      // Bits that say something else are kept.
      const others = Array.isArray(before) ? before.filter((b) => typeof b === 'number' && b > 3) : [];
      return withInfo(m, 'openTypeOS2Type', [...bits, ...others]);
    });
    return edited({ ...project, masters }, `Set embedding: ${title.toLowerCase()}`);
  },
);
