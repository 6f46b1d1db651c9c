import type { z } from 'zod';
import { type Refusal, refused } from '../base/result';
import type { Contour } from '../geometry/contour';
import { isCoordinate } from './limits';
import { touchedBetween } from './lineage';
import {
  type Drawing,
  drawingSchema,
  type Glyph,
  glyphSchema,
  masterSchema,
  PART_NAMES,
  type Project,
  partSchemas,
} from './model';

/**
 * Why the project after an edit holds a number or name outside the limits, or undefined. Looks only at what differs
 * from the project before, so that it costs nothing while the hand moves.
 */
export function limitFault(before: Project, after: Project): Refusal | undefined {
  if (before.glyphs !== after.glyphs) {
    const ids = touchedBetween(before.glyphs, after.glyphs) ?? Object.keys(after.glyphs);
    for (const id of ids) {
      const glyph = after.glyphs[id];
      if (!glyph || glyph === before.glyphs[id]) continue;
      const fault = glyphFault(before.glyphs[id], glyph, after);
      if (fault) return fault;
    }
  }
  for (const name of PART_NAMES) {
    if (before[name] === after[name]) continue;
    const fault = name === 'masters' ? masterFault(before, after) : partFault(name, after);
    if (fault) return fault;
  }
  return undefined;
}

function glyphFault(before: Glyph | undefined, glyph: Glyph, project: Project): Refusal | undefined {
  for (const key of Object.keys(glyph) as (keyof Glyph)[]) {
    if (before?.[key] === glyph[key] || key === 'drawings' || key === 'waypoints' || key === 'takes') continue;
    const parsed = (glyphSchema.shape[key] as z.ZodType | undefined)?.safeParse(glyph[key]);
    if (parsed && !parsed.success)
      return refused(`${glyph.name}: ${wordsOf(parsed.error, key)}.`, { glyph: glyph.name });
  }
  for (const master in glyph.drawings) {
    const drawing = glyph.drawings[master]!;
    const old = before?.drawings[master];
    if (drawing === old) continue;
    const fault = drawingFault(old, drawing);
    if (!fault) continue;
    const name = project.masters.find((m) => m.id === master)?.name ?? master;
    return refused(`${glyph.name}, ${name}: ${fault}.`, { glyph: glyph.name, master: name });
  }
  const others: (keyof Glyph)[] = ['waypoints', 'takes'];
  for (const key of others) {
    if (before?.[key] === glyph[key]) continue;
    for (const { drawing } of glyph[key] as Glyph['waypoints']) {
      const fault = drawingFault(undefined, drawing);
      if (fault) return refused(`${glyph.name}: ${fault}.`, { glyph: glyph.name });
    }
  }
  return undefined;
}

/** What is outside the limits in a drawing, as the end of a sentence. */
export function drawingFault(before: Drawing | undefined, drawing: Drawing): string | undefined {
  for (const key of Object.keys(drawing) as (keyof Drawing)[]) {
    if (before?.[key] === drawing[key]) continue;
    if (key === 'contours') {
      const fault = contoursFault(before?.contours, drawing.contours);
      if (fault) return fault;
      continue;
    }
    const parsed = (drawingSchema.shape[key] as z.ZodType | undefined)?.safeParse(drawing[key]);
    if (parsed && !parsed.success) return wordsOf(parsed.error, WORDS[key] ?? key);
  }
  return undefined;
}

const WORDS: Partial<Record<keyof Drawing, string>> = {
  advance: 'the advance width',
  components: 'part',
  anchors: 'anchor',
  guides: 'guide',
  backdrops: 'backdrop',
};

function contoursFault(before: readonly Contour[] | undefined, contours: readonly Contour[]): string | undefined {
  for (let c = 0; c < contours.length; c++) {
    if (before?.[c] === contours[c]) continue;
    const { points } = contours[c]!;
    for (let i = 0; i < points.length; i++) {
      const { x, y } = points[i]!;
      if (!isCoordinate(x) || !isCoordinate(y))
        return `point ${i + 1} of contour ${c + 1} would lie more than 1,000,000 units from the origin`;
    }
  }
  return undefined;
}

function masterFault(before: Project, after: Project): Refusal | undefined {
  for (const master of after.masters) {
    const old = before.masters.find((m) => m.id === master.id);
    if (old === master) continue;
    for (const key of Object.keys(master) as (keyof typeof master)[]) {
      if (old?.[key] === master[key]) continue;
      const parsed = (masterSchema.shape[key] as z.ZodType | undefined)?.safeParse(master[key]);
      if (parsed && !parsed.success)
        return refused(`${master.name}: ${wordsOf(parsed.error, key)}.`, { master: master.name });
    }
  }
  return undefined;
}

function partFault(name: keyof typeof partSchemas, project: Project): Refusal | undefined {
  const parsed = (partSchemas[name] as z.ZodType).safeParse(project[name]);
  return parsed.success ? undefined : refused(`The project’s ${wordsOf(parsed.error, name)}.`);
}

/** The first fault of a schema as words: where, counted from one, and what is wrong. */
export function wordsOf(error: z.ZodError, field: string): string {
  const issue = error.issues[0]!;
  const way = issue.path.map((key) => (typeof key === 'number' ? key + 1 : String(key)));
  return `${[field, ...way].join(' ')} ${issue.message.replace(/\.$/, '')}`;
}
