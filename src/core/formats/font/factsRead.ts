import { nameOf } from '../../fontfacts/fontNames';
import type { FvarAxis } from '../../opentype/fvar';
import { NAME_ID } from '../../opentype/name';
import { post } from '../../opentype/post';
import { type Mvar, readMvar } from '../../opentype/variations';
import type { Master, Project } from '../../project/model';
import { designPlace, type Place } from './places';
import type { FontReading } from './reading';
import { factsAt } from './statedRead';

/** Of a font whose metrics do not vary. */
const STILL: Mvar = { tags: new Set(), of: () => 0 };

export function masterRead(
  r: FontReading,
  { index, name: masterName, place, axes }: { index: number; name: string; place: Place; axes: readonly FvarAxis[] },
  kerning: Master['kerning'],
): Master {
  const em = r.header.unitsPerEm;
  const { style, lines } = r;
  const mvar = r.font.tables.has('MVAR') && axes.length > 0 ? readMvar(r.font.tables.get('MVAR')!) : STILL;
  const varied = (tag: string, value: number) => value + Math.round(mvar.of(tag, place.at));
  const ascender = varied('hasc', style.sTypoAscender ?? lines.ascender);
  const descender = varied('hdsc', style.sTypoDescender ?? lines.descender);
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
      xHeight: zone('x-height', (style.sxHeight || em * 0.5) + mvar.of('xhgt', place.at), overshoot),
      capHeight: zone('cap height', (style.sCapHeight || em * 0.7) + mvar.of('cpht', place.at), overshoot),
      ascender: zone('ascender', ascender, overshoot),
      descender: zone('descender', descender, -overshoot),
      own: [],
    },
    verticalMetrics: {
      typoAscender: ascender,
      typoDescender: descender,
      typoLineGap: varied('hlgp', style.sTypoLineGap ?? lines.lineGap),
      hheaAscender: lines.ascender,
      hheaDescender: lines.descender,
      hheaLineGap: lines.lineGap,
      ...(style.usWinAscent === undefined
        ? {}
        : { winAscent: varied('hcla', style.usWinAscent), winDescent: varied('hcld', style.usWinDescent!) }),
    },
    italicAngle: r.font.tables.has('post') ? post.read(r.font.tables.get('post')!).italicAngle : 0,
    stems: [],
    guides: [],
    kerning,
    info: factsAt(r, place, mvar),
  };
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
/** A time before this, from 1904 on, is that of a program that counted from 1970. */
const FIRST_FONTS = 315532800;

/** When a font was made, in seconds since 1970; a fixed time where it does not say. */
export const createdOf = (stated: number): number =>
  stated > EPOCHS && stated < EPOCHS + 4e9
    ? Math.floor(stated - EPOCHS)
    : stated > FIRST_FONTS && stated < EPOCHS
      ? Math.floor(stated)
      : 946684800;
