import { z } from 'zod';
import { attempt } from '../base/result';
import { CARRIED, carriedPath } from '../fontfacts/carried';
import { statedName, statedNames } from '../fontfacts/stated';
import { GLYPH_CLASS, readGdef } from '../opentype/gdef';
import { GSUB_EXTENSION } from '../opentype/gsub';
import { featureParams } from '../opentype/layout/featureParams';
import { readLayout } from '../opentype/layout/lists';
import { defineEdit, edited, plural, refused } from '../project/edit';
import type { Glyph, Project } from '../project/model';
import { defaultMaster, glyphNamed } from '../project/queries';
import { decompileSubstitutions, type WrittenSection } from './decompile';

const [GSUB, GDEF, GPOS] = [carriedPath('GSUB'), carriedPath('GDEF'), carriedPath('GPOS')];

/** Does a project carry substitutions of the font that it was opened from, which are no rules yet? */
export const carriesSubstitutions = (project: Project): boolean => project.kept[GSUB] !== undefined;

const CATEGORIES: ReadonlyMap<number, Glyph['category']> = new Map([
  [GLYPH_CLASS.ligature, 'ligature'],
  [GLYPH_CLASS.mark, 'mark'],
  [GLYPH_CLASS.component, 'component'],
]);

/**
 * Makes rules of the substitutions that an opened font came with: sections before those that there are. Classes of glyphs go to the
 * glyphs, carets of ligatures into the text; the tables are carried no longer, so that glyphs may come and go.
 */
export const rulesFromFont = defineEdit(
  {
    name: 'rulesFromFont',
    does: 'Makes rules of the substitutions that an opened font came with',
    reach: 'no master',
    args: z.object({}),
  },
  (project) => {
    const gsub = project.kept[GSUB];
    const order = project.lib[CARRIED];
    if (!gsub || !Array.isArray(order)) return refused('This project carries no substitutions of a font.');
    const names = order.map(String);
    const gone = names.find((n) => !glyphNamed(project, n));
    if (gone !== undefined)
      return refused(`The glyph ${gone} was removed or renamed since, and the font’s rules name it.`);
    const gdef = project.kept[GDEF];
    const stated = statedNames(defaultMaster(project).info);
    const written = decompileSubstitutions(gsub, gdef, names, (id) => stated.filter((n) => n.nameID === id));
    if (!written.ok) return refused(`These substitutions cannot be written as rules: ${written.reason}`);
    const facts = gdef ? attempt(() => readGdef(gdef)) : undefined;
    const carets = facts?.ok ? caretSection(facts.value.carets, names) : [];
    const glyphs = facts?.ok ? withCategories(project, facts.value.classes, names) : project.glyphs;
    const sections = [...written.value, ...carets].map(({ title, text }, i) => ({
      id: `from${i + 1}`,
      title,
      options: {},
      text,
    }));
    // Positions of the font speak of classes and sets of glyphs that its definitions hold.
    const { [GSUB]: _, [GDEF]: __, [GPOS]: ___, ...kept } = project.kept;
    return edited(
      {
        ...withoutNamesOf(project, gsub),
        kept,
        glyphs,
        features: { ...project.features, sections: [...sections, ...project.features.sections] },
      },
      `Made ${plural(sections.length, 'section')} of rules of the font’s substitutions`,
    );
  },
);

/** Names that the rules bring from now on are stated by themselves no longer. */
function withoutNamesOf(project: Project, gsub: Uint8Array): Project {
  const layout = attempt(() => readLayout(gsub, 'GSUB', GSUB_EXTENSION));
  const gone = new Set(
    layout.ok ? layout.value.features.flatMap((f) => (f.says ? featureParams.names(f.says) : [])) : [],
  );
  if (gone.size === 0) return project;
  const masters = project.masters.map((m) => {
    if (m.info?.openTypeNameRecords === undefined) return m;
    const { openTypeNameRecords: _, ...info } = m.info;
    const left = statedNames(m.info).filter((n) => !gone.has(n.nameID));
    return { ...m, info: left.length > 0 ? { ...info, openTypeNameRecords: left.map(statedName) } : info };
  });
  return { ...project, masters };
}

function caretSection(carets: ReadonlyMap<number, readonly number[]>, names: readonly string[]): WrittenSection[] {
  const lines = [...carets].flatMap(([g, places]) =>
    names[g] === undefined ? [] : [`  LigatureCaretByPos ${names[g]} ${places.join(' ')};`],
  );
  return lines.length > 0
    ? [{ title: 'Carets of ligatures', text: ['table GDEF {', ...lines, '} GDEF;'].join('\n') }]
    : [];
}

function withCategories(project: Project, classes: ReadonlyMap<number, number>, names: readonly string[]) {
  const glyphs = { ...project.glyphs };
  for (const [index, kind] of classes) {
    const category = CATEGORIES.get(kind);
    const glyph = glyphNamed(project, names[index] ?? '');
    if (glyph && category && glyph.category === undefined) glyphs[glyph.id] = { ...glyph, category };
  }
  return glyphs;
}
