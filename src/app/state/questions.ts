import { readList } from '../../core/coverage/lists';
import type { Glyph, MasterId, Project } from '../../core/project/model';
import { drawingOf, isBlank, isEmptyDrawing } from '../../core/project/queries';
import { agreementOf } from '../../core/variation/agreement';
import type { Since } from './changed';

/** The plain questions the case can be asked. */
export type Question = 'all' | 'undrawn' | 'drawn' | 'unencoded';

export const QUESTIONS: readonly { value: Question; text: string }[] = [
  { value: 'all', text: 'All' },
  { value: 'drawn', text: 'Drawn' },
  { value: 'undrawn', text: 'Not drawn yet' },
  { value: 'unencoded', text: 'Without a code point' },
];

const SCRIPTS = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Arabic',
  'Hebrew',
  'Armenian',
  'Georgian',
  'Devanagari',
  'Thai',
] as const;

/** Scripts that a project has letters of, where there are several. */
function scriptsOf(project: Project): string[] {
  const found = SCRIPTS.filter((s) => {
    const of = new RegExp(`\\p{Script=${s}}`, 'u');
    return Object.values(project.glyphs).some((g) => g.unicodes.some((c) => of.test(String.fromCodePoint(c))));
  });
  return found.length > 1 ? found : [];
}

/** A second question, asked of what answers the first: a value, or `list:` and the name of a list of one's own. */
export type Further = { value: string; text: string };

const FURTHER: readonly (Further & {
  of: (glyph: Glyph, project: Project, master: MasterId) => boolean;
  many?: true;
})[] = [
  { value: 'any', text: 'of any kind', of: () => true },
  { value: 'open', text: 'still open', of: (g) => g.status === undefined },
  { value: 'sketched', text: 'sketched', of: (g) => g.status === 'sketched' },
  { value: 'done', text: 'done', of: (g) => g.status === 'done' },
  { value: 'noted', text: 'with a note', of: (g) => (g.note ?? '') !== '' },
  {
    value: 'anchorless',
    text: 'letters without an anchor',
    of: (g, _, m) =>
      g.unicodes.some((c) => /[\p{L}\p{M}]/u.test(String.fromCodePoint(c))) && drawingOf(g, m).anchors.length === 0,
  },
  { value: 'parts', text: 'built of parts', of: (g, _, m) => drawingOf(g, m).components.length > 0 },
  {
    value: 'apart',
    text: 'whose masters disagree',
    many: true,
    of: (g, p) => agreementOf(p, g).some((f) => f.kind !== 'anchors'),
  },
  { value: 'twice', text: 'with more than one code point', of: (g) => g.unicodes.length > 1 },
];

/** Questions of time, answered by the history. */
const CHANGED: readonly Further[] = [
  { value: 'changed:today', text: 'changed today' },
  { value: 'changed:yesterday', text: 'changed since yesterday' },
  { value: 'changed:cast', text: 'changed since the last cast' },
  { value: 'changed:day', text: 'changed since a day …' },
];

/** Since when a question asks for changes, if it does; `day` is a date as fields of dates write it. */
export function sinceOf(further: string, day: string): Since | undefined {
  if (!further.startsWith('changed:')) return undefined;
  const since = further.slice('changed:'.length);
  return since === 'day' ? `day:${day}` : (since as Since);
}

/** The further questions that make sense in a project, its own lists among them. */
export const furtherQuestions = (project: Project): Further[] => [
  ...FURTHER.filter((f) => !f.many || project.masters.length > 1).map(({ value, text }) => ({ value, text })),
  ...CHANGED.filter((c) => c.value !== 'changed:cast' || project.settings.castAt !== undefined),
  ...scriptsOf(project).map((s) => ({ value: `script:${s}`, text: `of ${s}` })),
  ...((project.settings.lists ?? []).length > 0 ? [{ value: 'listless', text: 'in no list' }] : []),
  ...(project.settings.lists ?? []).map((l) => ({ value: `list:${l.name}`, text: `in the list ${l.name}` })),
];

/** Does a glyph answer both questions? A list or question that is gone lets all through. */
export function answering(
  project: Project,
  master: MasterId,
  question: Question,
  further: string,
  changed?: ReadonlySet<string>,
): (glyph: Glyph) => boolean {
  const drawn = (g: Glyph) => isBlank(g) || !isEmptyDrawing(drawingOf(g, master));
  const first = {
    all: () => true,
    drawn,
    undrawn: (g: Glyph) => !drawn(g),
    unencoded: (g: Glyph) => g.unicodes.length === 0,
  }[question];
  const list = further.startsWith('list:')
    ? project.settings.lists?.find((l) => l.name === further.slice(5))
    : undefined;
  if (list) {
    const { codes, names } = readList(list.text);
    const [inCodes, inNames] = [new Set(codes), new Set(names)];
    return (g) => first(g) && (inNames.has(g.name) || g.unicodes.some((c) => inCodes.has(c)));
  }
  if (further.startsWith('changed:')) return (g) => first(g) && changed?.has(g.id) === true;
  if (further.startsWith('script:')) {
    const script = new RegExp(`\\p{Script=${further.slice(7)}}`, 'u');
    return (g) => first(g) && g.unicodes.some((c) => script.test(String.fromCodePoint(c)));
  }
  if (further === 'listless') {
    const listed = (project.settings.lists ?? []).map((l) => readList(l.text));
    const [codes, names] = [new Set(listed.flatMap((l) => l.codes)), new Set(listed.flatMap((l) => l.names))];
    return (g) => first(g) && !names.has(g.name) && !g.unicodes.some((c) => codes.has(c));
  }
  const second = FURTHER.find((f) => f.value === further);
  return second ? (g) => first(g) && second.of(g, project, master) : first;
}
