import type { WayTo } from '../opentype/gsubRead';
import { codePointsForName, glyphNameFault, nameForCodePoint } from '../project/glyphNames';

/** A name that only counts glyphs. */
const COUNTED = /^(?:glyph|cid|gid|g)_?\d+$/i;
/** A part of a name that only spells code points. */
const SPELT = /^(?:uni(?:[0-9A-F]{4})+|u[0-9A-F]{5,6})$/;
/** Features whose ligatures are named by their parts alone. */
const PLAIN = new Set(['liga', 'rlig', 'clig', 'dlig', 'ccmp']);

/**
 * Names that people can read for glyphs whose own name only spells a code point or counts: `n` for `uni006E`, `a.smcp` for a
 * glyph that small capitals lead to, `f_i` for a ligature. A name is taken only where nothing else has it, and spells the
 * same characters as before. Glyphs with names of their own keep them. In the order of the glyphs.
 */
export function proposedNames(names: readonly string[], ways: readonly WayTo[]): string[] {
  const out = [...names];
  const taken = new Set(names);
  const rename = (glyph: number, wanted: string): boolean => {
    const free = (name: string) => !taken.has(name) && glyphNameFault(name) === undefined;
    let name = wanted;
    for (let k = 2; !free(name) && k < 100 && wanted.includes('.'); k++) name = `${wanted}.${k}`;
    if (!free(name)) return false;
    taken.add(name);
    out[glyph] = name;
    return true;
  };
  names.forEach((name, glyph) => {
    const said = spoken(name);
    if (said !== name) rename(glyph, said);
  });
  const unnamed = new Set(names.flatMap((name, glyph) => (COUNTED.test(name) && out[glyph] === name ? [glyph] : [])));
  // What leads to a glyph may itself be led to.
  for (let grew = unnamed.size > 0; grew; ) {
    grew = false;
    for (const way of ways) {
      if (!unnamed.has(way.to) || way.from.some((g) => unnamed.has(g) || out[g] === undefined)) continue;
      if (rename(way.to, nameOfWay(way, out))) {
        unnamed.delete(way.to);
        grew = true;
      }
    }
  }
  return out;
}

function nameOfWay({ from, feature, nth }: WayTo, names: readonly string[]): string {
  const bases = from.map((g) => names[g]!);
  if (bases.length === 1) return `${bases[0]}.${(feature ?? 'alt').trim()}${nth !== undefined && nth > 1 ? nth : ''}`;
  // Suffixes of the parts stand together at the end.
  const parts = bases.map((b) => b.split('.')[0]!);
  const suffixes = [...new Set(bases.flatMap((b) => b.split('.').slice(1)))];
  if (feature !== undefined && !PLAIN.has(feature)) suffixes.push(feature.trim());
  return [parts.join('_'), ...suffixes].join('.');
}

/** A name with the parts that spell code points said by the standard names, where those can be read. */
function spoken(name: string): string {
  const [base = '', ...suffixes] = name.split('.');
  const parts = base.split('_').flatMap((part) => {
    if (!SPELT.test(part)) return [part];
    const codes = codePointsForName(part);
    const known = codes.map(nameForCodePoint);
    // The lists have some names that only number characters of a script.
    return known.length > 0 && known.every((n) => !/\d/.test(n)) ? known : [part];
  });
  const said = [parts.join('_'), ...suffixes].join('.');
  const same = codePointsForName(said).join() === codePointsForName(name).join();
  return same ? said : name;
}
