import { type Result, refused, success } from '../base/result';
import { listed } from '../base/text';
import { needsOf } from '../coverage/coverage';
import { loadLanguages } from '../coverage/languages';
import { readList } from '../coverage/lists';
import { EMBEDDING } from '../project/masterFacts';
import type { CastTerms, Glyph, Lib, Master, Project } from '../project/model';
import { subsetOf, type Wanted } from './subset';

/** Figures and the signs of plain text go with any language. */
const WITH_LANGUAGES = '0123456789.,:;!?-–()/\'"’“”&@%+=';

/** A project as fonts are made of it on some terms, and what is to be said of that; refused where the terms name what is not there. */
export async function onTerms(
  project: Project,
  terms: CastTerms,
): Promise<Result<{ project: Project; said: string[] }>> {
  const said: string[] = [];
  let own = project;
  if (terms.embedding !== undefined || terms.lines)
    own = { ...own, masters: own.masters.map((m) => masterOn(m, terms)) };
  if (terms.glyphs) {
    const wanted = await wantedBy(project, terms.glyphs);
    if (!wanted.ok) return wanted;
    own = subsetOf(own, wanted.value);
  }
  if (terms.symbol) {
    const moved = asSymbols(own);
    own = moved.project;
    if (moved.lost.length > 0)
      said.push(`A symbol font has room for 224 characters; not reached in it: ${listed(moved.lost, 24, ' ')}.`);
  }
  return success({ project: own, said });
}

/** A master that says what the terms say of documents and lines. */
function masterOn(master: Master, { embedding, lines }: CastTerms): Master {
  const bits = EMBEDDING.find((e) => e.value === embedding)?.bits ?? [];
  const info: Lib | undefined =
    embedding === undefined ? master.info : { ...(master.info ?? {}), openTypeOS2Type: [...bits] };
  const metrics = lines && {
    typoAscender: lines.ascender,
    typoDescender: lines.descender,
    typoLineGap: lines.gap,
    hheaAscender: lines.ascender,
    hheaDescender: lines.descender,
    hheaLineGap: lines.gap,
  };
  return {
    ...master,
    ...(info && { info }),
    verticalMetrics: { ...master.verticalMetrics, ...metrics },
  };
}

async function wantedBy(project: Project, glyphs: NonNullable<CastTerms['glyphs']>): Promise<Result<Wanted>> {
  const codes = new Set<number>();
  const names = new Set<string>();
  if (glyphs.list !== undefined) {
    const list = project.settings.lists?.find((l) => l.name === glyphs.list);
    if (!list) return refused(`The project has no list “${glyphs.list}” any more.`);
    const read = readList(list.text);
    for (const c of read.codes) codes.add(c);
    for (const n of read.names) names.add(n);
  }
  if (glyphs.languages && glyphs.languages.length > 0) {
    const { all } = await loadLanguages();
    for (const code of glyphs.languages) {
      const language = all.find((l) => l.code === code);
      if (!language) return refused(`No language is known as “${code}”.`);
      const { letters, punctuation } = needsOf(language);
      for (const c of [...letters, ...punctuation]) codes.add(c);
    }
    for (const c of WITH_LANGUAGES) codes.add(c.codePointAt(0)!);
  }
  return success({ codes, names });
}

/** Characters of one byte stand from U+F000 on, where programs look for them in symbol fonts; others are not reached. */
function asSymbols(project: Project): { project: Project; lost: string[] } {
  const lost: string[] = [];
  const moved = ([id, glyph]: [string, Glyph]): [string, Glyph] => {
    if (!glyph.cast || glyph.unicodes.length === 0) return [id, glyph];
    const unicodes = glyph.unicodes.flatMap((c) => {
      if (c >= 0xf000 && c <= 0xf0ff) return [c];
      if (c >= 0x20 && c <= 0xff) return [0xf000 + c];
      lost.push(String.fromCodePoint(c));
      return [];
    });
    return [id, { ...glyph, unicodes: [...new Set(unicodes)] }];
  };
  return { project: { ...project, glyphs: Object.fromEntries(Object.entries(project.glyphs).map(moved)) }, lost };
}
