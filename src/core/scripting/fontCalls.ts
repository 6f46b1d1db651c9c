import { z } from 'zod';
import { refuse } from '../base/result';
import { PAGE_SIZES, type PageSize, PROOF_SECTIONS } from '../casting/proofKinds';
import { kindOf } from '../preflight/kinds';
import { Preflight } from '../preflight/preflight';
import { glyphTyped } from '../project/findGlyphs';
import { nameForCodePoint } from '../project/glyphNames';
import { kerningOf, membersOf, sideName } from '../project/kerningLookup';
import type { MasterId, Project } from '../project/model';
import { pairSides } from '../project/pairs';
import { defaultMaster } from '../project/queries';
import { stemsOf } from '../reweighting/standard';
import { type Call, glyphRef, masterRef, method, value } from './call';
import { glyphLike, masterLike, textOf } from './given';
import type { ProofFont, Session } from './session';

const findings = new WeakMap<Project, ReturnType<Preflight['check']>>();
/** What the check finds; known again while the project is the same. */
function checked(project: Project) {
  const known = findings.get(project) ?? new Preflight([]).check(project);
  findings.set(project, known);
  return known;
}

const SECTIONS = PROOF_SECTIONS.map((s) => s.key);
const SIZES = Object.keys(PAGE_SIZES) as PageSize[];

function proofFont(s: Session, master: MasterId): ProofFont {
  const { bytes, names, glyphIds } = s.cast(master, 'otf', false).font;
  const glyphNames = glyphIds.map((id) => s.project.glyphs[id]?.name ?? '.notdef');
  return { bytes, title: names.postScriptName, glyphNames };
}

/** What a script can ask of the whole font. */
export const FONT_CALLS: readonly Call[] = [
  value('font', 'name', { gives: 'string', does: 'The name of the family.' }, (s) => s.project.family.name),
  value('font', 'unitsPerEm', { gives: 'number', does: 'Font units to the em.' }, (s) => s.project.unitsPerEm),
  value('font', 'glyphs', { gives: 'Glyph[]', does: 'All glyphs, in their order.' }, (s) =>
    s.project.glyphOrder.map(glyphRef),
  ),
  value('font', 'masters', { gives: 'Master[]', does: 'All masters, in their order.' }, (s) =>
    s.project.masters.map((m) => masterRef(m.id)),
  ),
  value(
    'font',
    'axes',
    {
      gives: '{ tag: string; name: string; minimum: number; default: number; maximum: number }[]',
      does: 'The axes that the family varies along.',
    },
    (s) =>
      s.project.axes.map(({ tag, name, minimum, default: usual, maximum }) => ({
        tag,
        name,
        minimum,
        default: usual,
        maximum,
      })),
  ),
  value(
    'font',
    'instances',
    { gives: '{ name: string; place: Place }[]', does: 'The instances, with their places on the axes.' },
    (s) => s.project.instances.map(({ name, place }) => ({ name, place })),
  ),
  value(
    'font',
    'groups',
    {
      gives: "{ name: string; side: 'first' | 'second'; members: Glyph[] }[]",
      does: 'Kerning groups: glyphs that are kerned alike as first or as second of a pair.',
    },
    (s) => s.project.groups.map(({ name, side, members }) => ({ name, side, members: members.map(glyphRef) })),
  ),
  value(
    'font',
    'sections',
    {
      gives: '{ id: string; title: string; text: string }[]',
      does: 'The rules of layout, section by section, as feature text.',
    },
    (s) => s.project.features.sections.map(({ id, title, text }) => ({ id, title, text })),
  ),
  value('font', 'galley', { gives: 'string', does: 'The text of the galley.' }, (s) => s.project.texts.galley),
  method(
    'font',
    'glyph',
    { which: ['string', z.string().max(200)] },
    {
      gives: 'Glyph',
      does: 'A glyph by its name or its character; it is an error where there is none.',
      example: "font.glyph('ß')",
    },
    (s, { which }) => glyphRef(s.glyphBy(which).id),
  ),
  method(
    'font',
    'has',
    { which: ['string', z.string().max(200)] },
    {
      gives: 'boolean',
      does: 'Is there a glyph of this name or character?',
      example: "if (!font.has('ſ')) say('no long s')",
    },
    (s, { which }) => glyphTyped(s.project, which) !== undefined,
  ),
  method(
    'font',
    'find',
    { typed: textOf(200) },
    {
      gives: 'Glyph[]',
      does: 'All glyphs whose names hold a text.',
      example: "font.find('.sc')",
    },
    (s, { typed }) => s.project.glyphOrder.filter((id) => s.project.glyphs[id]!.name.includes(typed)).map(glyphRef),
  ),
  method(
    'font',
    'nameFor',
    { code: ['number', z.number().int().min(0).max(0x10ffff)] },
    { gives: 'string', does: 'The name that is usual for a code point.', example: 'font.nameFor(0xdf)' },
    (_, { code }) => nameForCodePoint(code),
  ),
  method(
    'font',
    'kern',
    { first: glyphLike, second: glyphLike, master: masterLike },
    {
      gives: 'number',
      does: 'The kerning between two glyphs in a master, in font units; that of their groups where they have none of their own.',
      example: "font.kern('A', 'V', masters[0])",
    },
    (s, { first, second, master }) =>
      kerningOf(s.project, s.master(master.$m), s.glyphBy(first).id, s.glyphBy(second).id)?.value ?? 0,
  ),
  method(
    'font',
    'pairs',
    { master: masterLike },
    {
      gives: '{ first: string; second: string; value: number; of: Glyph[]; by: Glyph[] }[]',
      does: 'All pairs that are kerned in a master, by the names of glyphs or groups, with the glyphs of each side.',
    },
    (s, { master }) =>
      Object.entries(s.master(master.$m).kerning).flatMap(([key, v]) => {
        const sides = pairSides(key);
        if (!sides) return [];
        const [first, second] = sides;
        return {
          first: sideName(s.project, first),
          second: sideName(s.project, second),
          value: v,
          of: membersOf(s.project, first).map(glyphRef),
          by: membersOf(s.project, second).map(glyphRef),
        };
      }),
  ),
  method(
    'font',
    'shape',
    {
      text: textOf(4000),
      master: masterLike,
      features: ['string[]?', z.array(z.string().max(40)).max(100).optional()],
    },
    {
      gives: '{ glyph: Glyph; x: number; y: number; advance: number }[]',
      does: 'A text as the font of a master sets it, with its rules and kerning: glyphs in their order, with places from the start of the line. Features as smcp, kern=0 or aalt=2.',
      example: "font.shape('ffi', masters[0], ['liga=0']).length",
    },
    (s, { text, master, features = [] }) => {
      const { font, sets } = s.cast(master.$m, 'otf', true);
      if (!sets) return refuse('There is nothing here that sets text.');
      return sets
        .shape(text, features)
        .glyphs.map(({ gid, x, y, advance }) => ({ glyph: glyphRef(font.glyphIds[gid]!), x, y, advance }));
    },
  ),
  method(
    'font',
    'cast',
    { master: masterLike, format: ["'otf' | 'ttf'", z.enum(['otf', 'ttf'])] },
    {
      gives: 'number',
      does: 'Casts the font of a master and reports it as a file: to be saved in the app, written by --out on the command line. Gives how many bytes it has.',
      example: "font.cast(masters[0], 'ttf')",
    },
    (s, { master, format }) => {
      const { bytes, names } = s.cast(master.$m, format, false).font;
      s.report({ kind: 'file', name: `${names.postScriptName}.${format}`, bytes });
      return bytes.length;
    },
  ),
  method(
    'font',
    'proof',
    {
      master: masterLike,
      sections: [
        `(${SECTIONS.map((k) => `'${k}'`).join(' | ')})[]?`,
        z.array(z.enum(SECTIONS)).min(1).max(20).optional(),
      ],
      text: ['string?', z.string().max(20_000).optional()],
      page: [`${SIZES.map((k) => `'${k}'`).join(' | ')}?`, z.enum(SIZES).optional()],
    },
    {
      gives: 'void',
      does: 'A printed proof of the font of a master, as PDF: all sections without a choice, the family through all masters, the text of the galley without one of its own. It is reported as a file once the script has ended.',
      example: "font.proof(masters[0], ['kerning', 'spacing'], 'Hamborn', 'A4')",
    },
    (s, { master, sections = SECTIONS, text, page = 'A4' }) => {
      const font = proofFont(s, master.$m);
      const others = s.project.masters.length > 1 && sections.includes('family');
      s.report({
        kind: 'proof',
        name: `${font.title}-proof.pdf`,
        font,
        family: others ? s.project.masters.map((m) => proofFont(s, m.id)) : [],
        sections: sections.filter((k) => k !== 'family' || others),
        text: text ?? s.project.texts.galley,
        size: page,
      });
    },
  ),
  method(
    'font',
    'preflight',
    {},
    {
      gives:
        "{ kind: string; title: string; sentence: string; severity: 'note' | 'attention' | 'error'; glyph?: Glyph; master?: Master; mends: { title: string; edit: string; args: object }[] }[]",
      does: 'What the check of the project finds, the worst first, with edits that mend it. Judged by the project as the script has made it.',
    },
    (s) =>
      checked(s.project).map(({ kind, reason, glyph, masters: [master], mends }) => {
        const { title, severity } = kindOf(kind)!;
        return {
          kind,
          title,
          sentence: reason,
          severity,
          mends: mends.map(({ title: mend, edit, args }) => ({ title: mend, edit, args })),
          ...(glyph !== undefined && { glyph: glyphRef(glyph) }),
          ...(s.project.masters.some((m) => m.id === master) && { master: masterRef(master!) }),
        };
      }),
  ),
];

/** What a script can ask of a master. */
export const MASTER_CALLS: readonly Call[] = [
  value('Master', 'name', { gives: 'string', does: 'Its name.' }, (s, id) => s.master(id).name),
  value(
    'Master',
    'place',
    { gives: 'Place', does: 'Where it stands on the axes, by their tags.' },
    (s, id) => s.master(id).place,
  ),
  value(
    'Master',
    'heights',
    {
      gives: '{ descender: number; baseline: number; xHeight: number; capHeight: number; ascender: number }',
      does: 'Its lines, in font units.',
    },
    (s, id) => {
      const { descender, baseline, xHeight, capHeight, ascender } = s.master(id).zones;
      return Object.fromEntries(
        Object.entries({ descender, baseline, xHeight, capHeight, ascender }).map(([k, z]) => [k, z.position]),
      );
    },
  ),
  value(
    'Master',
    'angle',
    { gives: 'number', does: 'How far its letters lean, in degrees; 0 for upright ones.' },
    (s, id) => s.master(id).italicAngle,
  ),
  value(
    'Master',
    'stems',
    {
      gives: '{ vertical: number; horizontal: number } | undefined',
      does: 'How thick its strokes are, as kept with it or as measured in its letters; in font units.',
    },
    (s, id) => stemsOf(s.project, s.master(id)),
  ),
  value(
    'Master',
    'isDefault',
    { gives: 'boolean', does: 'Is it the one that variable fonts begin from?' },
    (s, id) => defaultMaster(s.project).id === s.master(id).id,
  ),
];
