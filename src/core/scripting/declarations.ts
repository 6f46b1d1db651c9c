import { registeredEdits } from '../project/edit';
import type { Call, Owner } from './call';
import { callsOf } from './registry';
import { typeOf } from './typed';

/** A thing that a script can name: what completion shows and the documentation lists. */
export type Entry = {
  /** What it is a member of; `global` for what stands by itself. */
  readonly of: Owner | 'edits';
  readonly name: string;
  /** How it is written: with its arguments, for a method. */
  readonly form: string;
  readonly type: string;
  readonly does: string;
  readonly example?: string | undefined;
};

const optional = (t: string) => t.endsWith('?');
const argument = ({ name, type }: Call['takes'][number]): string =>
  `${name}${optional(type) ? '?' : ''}: ${type.replace(/\?$/, '')}`;

const entryOf = (c: Call): Entry => ({
  of: c.of,
  name: c.name,
  form: c.as === 'value' ? c.name : `${c.name}(${c.takes.map(argument).join(', ')})`,
  type: c.gives,
  does: c.does,
  example: c.example,
});

/** What stands by itself and comes from no call. */
const GLOBALS: readonly Entry[] = [
  { of: 'global', name: 'font', form: 'font', type: 'Font', does: 'The whole font.' },
  {
    of: 'global',
    name: 'chosen',
    form: 'chosen',
    type: 'Glyph[]',
    does: 'The glyphs that the script runs on: those that are chosen, those of the filter, or all.',
  },
  {
    of: 'global',
    name: 'masters',
    form: 'masters',
    type: 'Master[]',
    does: 'The masters that the script runs on: the one that is worked on, or all.',
  },
  {
    of: 'global',
    name: 'edits',
    form: 'edits',
    type: 'Edits',
    does: 'Everything that can be done to the project, as the interface does it. What is refused throws its sentence.',
  },
  {
    of: 'global',
    name: 'shapes',
    form: 'shapes',
    type: 'Shapes',
    does: 'What can be done with outlines, which are plain values.',
  },
  {
    of: 'global',
    name: 'ask',
    form: 'ask(fields)',
    type: 'values by their names',
    does: 'Asks for values at the head of a script; they are shown as a form and kept. A field is { number, least, most }, { text }, { choice, of }, { glyphs } or { yes }, with a label.',
    example: "const { step } = ask({ step: { label: 'Round to', number: 2, least: 1, most: 50 } })",
  },
];

const DRAWING_MORE: readonly Entry[] = [
  { of: 'Drawing', name: 'glyph', form: 'glyph', type: 'Glyph', does: 'The glyph that it is of.' },
  { of: 'Drawing', name: 'master', form: 'master', type: 'Master', does: 'The master that it is in.' },
];
const GLYPH_MORE: readonly Entry[] = [
  {
    of: 'Glyph',
    name: 'drawing',
    form: 'drawing(master?: Master)',
    type: 'Drawing',
    does: 'Its drawing in a master; in the first of those the script runs on without one.',
    example: 'for (const m of masters) glyph.drawing(m).left = 60',
  },
];

/** Every edit as a script calls it. */
export function editEntries(): Entry[] {
  return [...registeredEdits().values()]
    .map(
      ({ facts }): Entry => ({
        of: 'edits',
        name: facts.name,
        form: `${facts.name}(${typeOf(facts.args)})`,
        type: 'string',
        does: `${facts.does}: ${facts.reach}.`,
      }),
    )
    .sort((a, b) => (a.name < b.name ? -1 : 1));
}

let listed: { edits: number; all: readonly Entry[] } | undefined;

/** All that a script can name, in the order of the documentation; worked out once for the edits that are loaded. */
export function entries(): readonly Entry[] {
  const edits = registeredEdits().size;
  if (listed?.edits !== edits) listed = { edits, all: everyEntry() };
  return listed.all;
}

const everyEntry = (): Entry[] => [
  ...GLOBALS,
  ...callsOf('global').map(entryOf),
  ...callsOf('font').map(entryOf),
  ...GLYPH_MORE,
  ...callsOf('Glyph').map(entryOf),
  ...DRAWING_MORE,
  ...callsOf('Drawing').map(entryOf),
  ...callsOf('Master').map(entryOf),
  ...callsOf('shapes').map(entryOf),
  ...editEntries(),
];

/** What can be set, not only read. */
export const SETTABLE: ReadonlySet<string> = new Set([
  'Drawing.advance',
  'Drawing.left',
  'Drawing.right',
  'Drawing.contours',
]);

const TITLES: readonly (readonly [Entry['of'], string, string])[] = [
  ['global', 'What stands by itself', ''],
  ['font', 'font', 'The whole font.'],
  ['Glyph', 'A glyph', 'What `font.glyph(…)`, `font.glyphs` and `chosen` give.'],
  ['Drawing', 'A drawing', 'A glyph in a master. Where edits ask for a place (`at`), a drawing is one.'],
  ['Master', 'A master', 'What `font.masters` and `masters` give.'],
  [
    'shapes',
    'shapes',
    'Outlines are lists of contours: `{ closed, points: [{ x, y, type, smooth }] }`, with `type` line, curve, qcurve or off, in font units.',
  ],
  [
    'edits',
    'edits',
    'Each takes one object, changes the project and gives its sentence. What is refused throws, and changes nothing.',
  ],
];

/** The documentation of everything, in Markdown. */
export function referenceText(): string {
  const all = entries();
  return TITLES.map(([of, title, about]) => {
    const own = all.filter((e) => e.of === of);
    const lines = own.map(
      (e) =>
        `- \`${e.form}\`${of === 'edits' ? '' : ` → \`${e.type}\``}${SETTABLE.has(`${e.of}.${e.name}`) ? ', which can be set' : ''}  \n  ${e.does}${e.example ? ` \`${e.example}\`` : ''}`,
    );
    return `## ${title}\n\n${about ? `${about}\n\n` : ''}${lines.join('\n')}\n`;
  }).join('\n');
}

const INTERFACES: readonly (readonly [Entry['of'], string])[] = [
  ['font', 'Font'],
  ['Glyph', 'Glyph'],
  ['Drawing', 'Drawing'],
  ['Master', 'Master'],
  ['shapes', 'Shapes'],
  ['edits', 'Edits'],
];

const told = (e: Entry, indent: string): string =>
  `${indent}/** ${[e.does, ...(e.example ? [`Example: ${e.example}`] : [])].join(' ').replaceAll('*/', '* /')} */\n`;

const memberOf = (e: Entry): string => {
  const settable = SETTABLE.has(`${e.of}.${e.name}`);
  const form = e.form.startsWith(`${e.name}(`)
    ? e.of === 'edits'
      ? `${e.name}(args${e.form === `${e.name}(object)` ? '?' : ''}: ${e.form.slice(e.name.length + 1, -1)})`
      : e.form
    : `${settable ? '' : 'readonly '}${e.name}`;
  return `${told(e, '  ')}  ${form}: ${e.type};`;
};

/** Types that members are told in, and what `ask` gives for what it is asked. */
const TYPES = `type Place = Record<string, number>;
type Box = { xMin: number; yMin: number; xMax: number; yMax: number };
type Point = { x: number; y: number; type: 'line' | 'curve' | 'qcurve' | 'off'; smooth?: boolean; name?: string; identifier?: string };
type Contour = { closed: boolean; points: Point[]; identifier?: string };
type Contours = Contour[];
type AskedField =
  | { label?: string; number: number; least?: number; most?: number }
  | { label?: string; text: string }
  | { label?: string; choice: string; of: string[] }
  | { label?: string; glyphs: string }
  | { label?: string; yes: boolean };
type Answer<F> = F extends { number: number } ? number : F extends { yes: boolean } ? boolean : F extends { glyphs: string } ? Glyph[] : string;`;

/** Everything that a script can name, as TypeScript: for completion and checks in an editor of one's own. */
export function declarationText(): string {
  const all = entries();
  const interfaces = INTERFACES.map(
    ([of, name]) =>
      `interface ${name} {\n${all
        .filter((e) => e.of === of)
        .map(memberOf)
        .join('\n')}\n}`,
  );
  const globals = all.flatMap((e) => {
    if (e.of !== 'global') return [];
    if (e.name === 'ask')
      return `${told(e, '')}declare function ask<F extends Record<string, AskedField>>(fields: F): { [K in keyof F]: Answer<F[K]> };`;
    if (e.name === 'say') return `${told(e, '')}declare function say(...parts: unknown[]): void;`;
    return `${told(e, '')}${e.form.includes('(') ? `declare function ${e.form}: ${e.type};` : `declare const ${e.name}: ${e.type};`}`;
  });
  return `${[TYPES, ...interfaces, ...globals].join('\n\n')}\n`;
}
