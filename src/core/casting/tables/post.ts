import { statedFields } from '../../fontfacts/stated';
import { type Post, post } from '../../opentype/post';
import type { CastPlan } from '../plan';

/** `post`: slope, underline, fixed pitch, and the names of glyphs (CFF has its own, CFF2 has none). */
export function postTable({ project, master, entries, glyphNames, flavour, varies }: CastPlan): Uint8Array {
  const advances = new Set(entries.filter((e) => e.advance > 0 && e.glyph.unicodes.length > 0).map((e) => e.advance));
  return post.write({
    version: flavour === 'ttf' || varies ? 0x00020000 : 0x00030000,
    italicAngle: master.italicAngle,
    underlinePosition: Math.round(-project.unitsPerEm * 0.1),
    underlineThickness: Math.round(project.unitsPerEm * 0.05),
    isFixedPitch: advances.size === 1 && entries.length > 2 ? 1 : 0,
    ...statedFields<Post>(master.info, 'post'),
    minMemType42: 0,
    maxMemType42: 0,
    minMemType1: 0,
    maxMemType1: 0,
    glyphNames,
  });
}
