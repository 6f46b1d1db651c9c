import { counted } from '../../base/notation';
import { refuse } from '../../base/result';
import { writeCff } from '../../opentype/cff';
import { maxp } from '../../opentype/maxp';
import { type Shared, shareSubroutines } from '../../opentype/subroutines';
import { alignmentZones } from '../metrics';
import { type CastPlan, madeFor } from '../plan';
import { roundedBox } from '../shape';
import { standardWidth } from '../stems';
import { widthValues } from '../widths';
import { boxOfAll, type Outlines } from './outlines';

/** CFF outlines: charstrings with hints, what they share in subroutines, widths told the short way. */
export function cffOutlines(plan: CastPlan): Outlines {
  const { project, master, entries, names, keepOverlaps, compact, hinted, fractions, cache, source } = plan;
  const how = { keepOverlaps, unitsPerEm: project.unitsPerEm, hinted, fractions };
  const shapes = entries.map((e) => madeFor(e, () => cache.cffShape(e.drawing, source, how)));
  const { defaultWidthX, nominalWidthX } = widthValues(entries.map((e) => e.advance));
  const boxes = shapes.map((s) => s.box);
  const fontBox = roundedBox(boxOfAll(boxes));
  // Widths come before what is shared, so that glyphs alike but for their width share all.
  const bodies = shapes.map((s) => s.body);
  const shared: Shared = compact ? shareSubroutines(bodies) : { charstrings: bodies, global: [], local: [] };
  const charstrings = shared.charstrings.map((body, i) => {
    const { advance } = entries[i]!;
    const width = advance - nominalWidthX;
    if (Math.abs(width) > 32767)
      return madeFor(entries[i]!, () =>
        refuse(`it is ${counted(advance)} units wide, too far from all others for this kind of file.`),
      );
    return advance === defaultWidthX ? body : withWidth(body, width);
  });
  // A stem the designer named is the standard one; else the commonest.
  const standard = (vertical: boolean) =>
    master.stems.find((s) => s.vertical === vertical)?.value ??
    standardWidth(shapes.map((s) => (vertical ? s.stems.vertical : s.stems.horizontal)));
  const cff = writeCff(
    {
      postScriptName: names.postScriptName,
      fullName: names.fullName,
      familyName: names.family,
      weight: names.style,
      version: `${project.family.versionMajor}.${project.family.versionMinor}`,
      notice: project.family.copyright ?? '',
      unitsPerEm: project.unitsPerEm,
      fontBBox: [fontBox.xMin, fontBox.yMin, fontBox.xMax, fontBox.yMax],
      ...(hinted ? alignmentZones(master) : { blueValues: [], otherBlues: [] }),
      stdHW: hinted ? standard(false) : undefined,
      stdVW: hinted ? standard(true) : undefined,
      defaultWidthX,
      nominalWidthX,
    },
    plan.glyphNames,
    charstrings,
    shared,
  );
  return {
    tables: [
      ['CFF ', cff],
      ['maxp', maxp.write({ version: maxp.VERSION_CFF, numGlyphs: entries.length })],
    ],
    boxes,
    indexToLocFormat: 0,
    error: 0,
    overlapsKept: entries.filter((_, i) => shapes[i]!.overlapFailed).map((e) => e.glyph.name),
  };
}

/** A charstring's width stands before the arguments of its first operator. */
function withWidth(body: Uint8Array, width: number): Uint8Array {
  const number =
    width >= -107 && width <= 107
      ? [width + 139]
      : width >= 108 && width <= 1131
        ? [247 + ((width - 108) >> 8), (width - 108) & 255]
        : width <= -108 && width >= -1131
          ? [251 + ((-width - 108) >> 8), (-width - 108) & 255]
          : [28, (width >> 8) & 255, width & 255];
  const out = new Uint8Array(number.length + body.length);
  out.set(number);
  out.set(body, number.length);
  return out;
}
