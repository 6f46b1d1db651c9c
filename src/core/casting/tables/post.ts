import { post } from '../../opentype/post';
import { infoNumber } from '../info';
import { type CastPlan, finalName } from '../plan';

/** `post`: slope, underline, fixed pitch, and the names of glyphs (CFF has its own, CFF2 has none). */
export function postTable({ project, master, entries, flavour, varies }: CastPlan): Uint8Array {
  const advances = new Set(entries.filter((e) => e.advance > 0 && e.glyph.unicodes.length > 0).map((e) => e.advance));
  return post.write({
    version: flavour === 'ttf' || varies ? 0x00020000 : 0x00030000,
    italicAngle: master.italicAngle,
    underlinePosition: infoNumber(master.info, 'postscriptUnderlinePosition') ?? Math.round(-project.unitsPerEm * 0.1),
    underlineThickness:
      infoNumber(master.info, 'postscriptUnderlineThickness') ?? Math.round(project.unitsPerEm * 0.05),
    isFixedPitch: advances.size === 1 && entries.length > 2 ? 1 : 0,
    minMemType42: 0,
    maxMemType42: 0,
    minMemType1: 0,
    maxMemType1: 0,
    glyphNames: uniqueNames(entries.map((e) => finalName(e.glyph))),
  });
}

/** Final names must differ; a repeated one gets a number. */
function uniqueNames(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((n) => {
    const times = seen.get(n) ?? 0;
    seen.set(n, times + 1);
    return times === 0 ? n : `${n}.dup${times}`;
  });
}
