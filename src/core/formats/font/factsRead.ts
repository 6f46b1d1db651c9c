import { nameOf } from '../../fontfacts/fontNames';
import type { FvarAxis } from '../../opentype/fvar';
import { NAME_ID } from '../../opentype/name';
import { post } from '../../opentype/post';
import { readMvar } from '../../opentype/variations';
import type { Lib, Master, Project } from '../../project/model';
import { designPlace, type Place } from './places';
import type { FontReading } from './reading';

export function masterRead(
  r: FontReading,
  { index, name: masterName, place, axes }: { index: number; name: string; place: Place; axes: readonly FvarAxis[] },
  kerning: Master['kerning'],
): Master {
  const em = r.header.unitsPerEm;
  const { style, lines } = r;
  const mvar = r.font.tables.has('MVAR') && axes.length > 0 ? readMvar(r.font.tables.get('MVAR')!) : () => 0;
  const ascender = style.sTypoAscender ?? lines.ascender;
  const descender = style.sTypoDescender ?? lines.descender;
  const overshoot = Math.round(em * 0.012);
  const zone = (zoneName: string, position: number, over: number) => ({
    name: zoneName,
    position: Math.round(position),
    overshoot: over,
  });
  return {
    id: `m${index + 1}`,
    name: masterName,
    place: designPlace(axes, place.at),
    zones: {
      baseline: zone('baseline', 0, -overshoot),
      xHeight: zone('x-height', (style.sxHeight || em * 0.5) + mvar('xhgt', place.at), overshoot),
      capHeight: zone('cap height', (style.sCapHeight || em * 0.7) + mvar('cpht', place.at), overshoot),
      ascender: zone('ascender', ascender, overshoot),
      descender: zone('descender', descender, -overshoot),
      own: [],
    },
    verticalMetrics: {
      typoAscender: ascender,
      typoDescender: descender,
      typoLineGap: style.sTypoLineGap ?? lines.lineGap,
      hheaAscender: lines.ascender,
      hheaDescender: lines.descender,
      hheaLineGap: lines.lineGap,
      ...(style.usWinAscent === undefined ? {} : { winAscent: style.usWinAscent, winDescent: style.usWinDescent! }),
    },
    italicAngle: r.font.tables.has('post') ? post.read(r.font.tables.get('post')!).italicAngle : 0,
    stems: [],
    guides: [],
    kerning,
    info: masterFacts(r, place),
  };
}

/** Facts of one style that are kept as the font has them; at other places of a variable font they follow by rule. */
function masterFacts(r: FontReading, place: Place): Lib {
  if (place.at.some((v) => v !== 0)) return {};
  const out: Record<string, Lib[string] | undefined> = {
    openTypeOS2WeightClass: r.style.usWeightClass,
    openTypeOS2WidthClass: r.style.usWidthClass,
    openTypeOS2Panose: r.style.panose ? [...r.style.panose] : undefined,
    openTypeOS2Type:
      r.style.fsType === undefined
        ? undefined
        : Array.from({ length: 16 }, (_, i) => i).filter((i) => r.style.fsType! & (1 << i)),
    postscriptFontName: nameOf(r.names, NAME_ID.postScript),
    styleMapFamilyName: nameOf(r.names, NAME_ID.family),
  };
  return Object.fromEntries(Object.entries(out).filter((e): e is [string, Lib[string]] => e[1] !== undefined));
}

export function familyFacts(r: FontReading): Partial<Project['family']> {
  const facts = {
    designer: NAME_ID.designer,
    designerURL: NAME_ID.designerURL,
    manufacturer: NAME_ID.manufacturer,
    vendorURL: NAME_ID.vendorURL,
    copyright: NAME_ID.copyright,
    trademark: NAME_ID.trademark,
    licence: NAME_ID.licence,
    licenceURL: NAME_ID.licenceURL,
    description: NAME_ID.description,
    sampleText: NAME_ID.sampleText,
  };
  const texts = Object.entries(facts).flatMap(([key, id]) => {
    const value = nameOf(r.names, id);
    return value === undefined ? [] : [[key, value]];
  });
  const revision = r.header.fontRevision;
  const vendor = r.style.achVendID?.replace(/[^\x20-\x7e]/g, '').trim();
  const minor = Math.min(999, Math.round((revision % 1) * 1000));
  return {
    ...Object.fromEntries(texts),
    ...(vendor ? { vendor } : {}),
    versionMajor: Math.max(0, Math.min(32767, Math.floor(revision))),
    versionMinor: Math.max(0, minor),
  };
}

/** Seconds between 1904 and 1970, the two beginnings of time. */
export const EPOCHS = 2082844800;
export const createdOf = (since1904: number): number =>
  since1904 > EPOCHS && since1904 < EPOCHS + 4e9 ? Math.floor(since1904 - EPOCHS) : 946684800;
