import { z } from 'zod';
import { attempt, type Refusal, refused } from '../base/result';
import { createProject, emptyDrawing } from '../project/create';
import { isCharacter } from '../project/limits';
import {
  type Drawing,
  drawingSchema,
  type Glyph,
  glyphSchema,
  type Master,
  masterSchema,
  PART_NAMES,
  type Parts,
  partSchemas,
} from '../project/model';
import { wordsOf } from '../project/withinLimits';

/** What could be read of a damaged record, and what could not, in sentences. */
export type Salvaged<T> = { value: T; faults: Refusal[] };

const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

/** A drawing as the model has it, or a refusal; how drawings lie in a record is the caller's. */
export type ReadDrawing = (value: unknown) => Drawing;

/** Every field of a damaged glyph that is sound; drawings that are not become empty ones. */
export function salvagedGlyph(
  id: string,
  value: unknown,
  masters: readonly Master[],
  readDrawing: ReadDrawing,
): Salvaged<Glyph> {
  const raw = isRecord(value) ? value : {};
  const field = <K extends keyof typeof glyphSchema.shape>(key: K): Glyph[K] | undefined => {
    const parsed = (glyphSchema.shape[key] as z.ZodType).safeParse(raw[key]);
    return parsed.success ? (parsed.data as Glyph[K]) : undefined;
  };
  const name = field('name') ?? `unread.${id}`;
  const faults: Refusal[] = [];
  const say = (what: string, master?: string) =>
    faults.push(refused(`${name}: ${what}.`, { glyph: name, ...(master && { master }) }, 'attention'));
  const drawings: Record<string, Drawing> = {};
  const stored = isRecord(raw.drawings) ? raw.drawings : {};
  for (const master of masters) {
    const read = attempt(() => readDrawing(stored[master.id]));
    const sound = read.ok ? drawingSchema.safeParse(read.value) : undefined;
    if (sound?.success) drawings[master.id] = sound.data;
    else if (stored[master.id] !== undefined || !isRecord(raw.drawings)) {
      drawings[master.id] = emptyDrawing(500);
      say(`its drawing in ${master.name} could not be read and is empty`, master.name);
    }
  }
  const lists = ['waypoints', 'handovers', 'takes', 'follows'] as const;
  for (const key of lists) if (raw[key] !== undefined && field(key) === undefined) say(`its ${key} could not be read`);
  const codes = Array.isArray(raw.unicodes) ? raw.unicodes.filter((c) => isCharacter(c as number)) : [];
  if (faults.length === 0) say('part of its record could not be read');
  const [status, note, category, productionName, lib] = [
    field('status'),
    field('note'),
    field('category'),
    field('productionName'),
    field('lib'),
  ];
  return {
    value: {
      id,
      name,
      unicodes: codes as number[],
      cast: field('cast') ?? true,
      drawings,
      waypoints: field('waypoints') ?? [],
      handovers: field('handovers') ?? [],
      takes: field('takes') ?? [],
      follows: field('follows') ?? { left: [], right: [] },
      ...(status && { status }),
      ...(note !== undefined && { note }),
      ...(category && { category }),
      ...(productionName !== undefined && { productionName }),
      ...(lib && { lib }),
    },
    faults,
  };
}

const PART_WORDS: Partial<Record<keyof Parts, string>> = {
  family: 'The names of the family',
  groups: 'The kerning groups',
  glyphOrder: 'The order of the glyphs',
  pictures: 'The pictures',
  kept: 'The files kept from the source',
  texts: 'The texts',
  settings: 'The settings',
};

/** Every part that is sound; for others what a new project has. Refused where no master can be read: nothing could be shown. */
export function salvagedParts(raw: Readonly<Record<string, unknown>>): Salvaged<Parts> | Refusal {
  const { glyphs: _, ...fresh } = createProject({ family: 'Unread', created: 0 });
  const faults: Refusal[] = [];
  const parts: Record<string, unknown> = {};
  for (const name of PART_NAMES) {
    const parsed = (partSchemas[name] as z.ZodType).safeParse(raw[name]);
    if (parsed.success && !(name === 'masters' && (parsed.data as unknown[]).length === 0)) {
      parts[name] = parsed.data;
      continue;
    }
    if (name === 'masters') {
      const masters = (Array.isArray(raw.masters) ? raw.masters : []).flatMap((m) => soundMaster(m, faults));
      if (masters.length === 0) return refused('None of this project’s masters can be read, so it cannot be shown.');
      parts.masters = masters;
      continue;
    }
    parts[name] = fresh[name];
    faults.push(
      refused(
        `${PART_WORDS[name] ?? `The ${name}`} of this project could not be read: ${wordsOf(parsed.error!, name)}.`,
        undefined,
        'attention',
      ),
    );
  }
  return { value: parts as Parts, faults };
}

/** A master without what is damaged in it: kerning values one by one, other facts as a new master has them. */
function soundMaster(value: unknown, faults: Refusal[]): Master[] {
  const whole = masterSchema.safeParse(value);
  if (whole.success) return [whole.data];
  const raw = isRecord(value) ? value : {};
  const id = z.string().min(1).safeParse(raw.id);
  if (!id.success) {
    faults.push(refused('A master could not be read and is gone.', undefined, 'attention'));
    return [];
  }
  const fresh = createProject({ family: 'x', created: 0 }).masters[0]!;
  const made: Record<string, unknown> = { ...fresh, id: id.data, name: 'Unread' };
  const unread: string[] = [];
  for (const key of Object.keys(masterSchema.shape) as (keyof typeof masterSchema.shape)[]) {
    const parsed = (masterSchema.shape[key] as z.ZodType).safeParse(raw[key]);
    if (parsed.success) {
      if (parsed.data !== undefined) made[key] = parsed.data;
    } else unread.push(key);
  }
  if (isRecord(raw.kerning) && unread.includes('kerning'))
    made.kerning = Object.fromEntries(
      Object.entries(raw.kerning).filter(([, v]) => masterSchema.shape.kerning.safeParse({ x: v }).success),
    );
  const name = String(made.name);
  faults.push(refused(`${name}: ${unread.join(', ')} could not be read whole.`, { master: name }, 'attention'));
  return [made as Master];
}
