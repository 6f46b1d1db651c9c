import { defaultZones } from '../../project/create';
import {
  type Family,
  type GlyphId,
  type Group,
  type Lib,
  type LibValue,
  type Master,
  partSchemas,
  type Zones,
} from '../../project/model';
import type { Ufo } from './ufo';
import { kerningOf } from './ufoKerning';

/** Lib keys of our own; everything Wendril stores beyond the open formats stands below these. */
export const KEY = {
  master: 'org.wendril.master',
  glyph: 'org.wendril.glyph',
  project: 'org.wendril.project',
} as const;

export type MasterSource = { ufo: Ufo; folder: string; id: string; name: string; place: Record<string, number> };

export const text = (v: LibValue | undefined): string | undefined =>
  typeof v === 'string' && v !== '' ? v : undefined;
export const number = (v: LibValue | undefined): number | undefined =>
  typeof v === 'number' && Number.isFinite(v) ? v : undefined;

/** Family facts of `fontinfo.plist` that are plain texts. */
export const FAMILY_TEXTS = {
  designer: 'openTypeNameDesigner',
  designerURL: 'openTypeNameDesignerURL',
  manufacturer: 'openTypeNameManufacturer',
  vendorURL: 'openTypeNameManufacturerURL',
  vendor: 'openTypeOS2VendorID',
  copyright: 'copyright',
  trademark: 'trademark',
  licence: 'openTypeNameLicense',
  licenceURL: 'openTypeNameLicenseURL',
  description: 'openTypeNameDescription',
  sampleText: 'openTypeNameSampleText',
} as const satisfies Partial<Record<keyof Family, string>>;

export function familyOf(info: Lib, label: string): Family {
  const texts = Object.entries(FAMILY_TEXTS).flatMap(([ours, theirs]) => {
    const value = text(info[theirs]);
    return value === undefined ? [] : [[ours, value]];
  });
  return {
    name: text(info.familyName) ?? label,
    versionMajor: Math.max(0, Math.round(number(info.versionMajor) ?? 1)),
    versionMinor: Math.min(999, Math.max(0, Math.round(number(info.versionMinor) ?? 0))),
    names: {},
    ...Object.fromEntries(texts),
  };
}

/** `openTypeHeadCreated` as seconds since 1970; a fixed date when it is not said. */
export function createdOf(info: Lib): number {
  const match = /^(\d{4})\/(\d\d)\/(\d\d) (\d\d):(\d\d):(\d\d)$/.exec(text(info.openTypeHeadCreated) ?? '');
  if (!match) return 946684800;
  const [y, mo, d, h, mi, s] = match.slice(1).map(Number) as [number, number, number, number, number, number];
  return Math.max(0, Math.floor(Date.UTC(y, mo - 1, d, h, mi, s) / 1000));
}

export function masterOf(
  source: MasterSource,
  unitsPerEm: number,
  ids: ReadonlyMap<string, GlyphId>,
  groups: readonly Group[],
): Master {
  const { info, lib } = source.ufo;
  const own = (typeof lib[KEY.master] === 'object' ? lib[KEY.master] : {}) as Lib;
  const schema = partSchemas.masters.unwrap().element.shape;
  const parsedZones = schema.zones.safeParse(own.zones);
  const parsedMetrics = schema.verticalMetrics.safeParse(own.verticalMetrics);
  const parsedStems = schema.stems.safeParse(own.stems);
  const rest = Object.fromEntries(
    Object.entries(lib).filter(([k]) => k !== KEY.master && k !== KEY.project && k !== 'public.glyphOrder'),
  );
  return {
    id: source.id,
    name: source.name || text(info.styleName) || 'Regular',
    place: source.place,
    zones: parsedZones.success ? parsedZones.data : zonesOf(info, unitsPerEm),
    verticalMetrics: parsedMetrics.success ? parsedMetrics.data : metricsOf(info),
    italicAngle: number(info.italicAngle) ?? 0,
    stems: parsedStems.success ? parsedStems.data : [],
    guides: [],
    kerning: kerningOf(source.ufo, ids, groups),
    info,
    lib: rest,
  };
}

export function zonesOf(info: Lib, unitsPerEm: number): Zones {
  const base = defaultZones(unitsPerEm);
  const blues = Array.isArray(info.postscriptBlueValues)
    ? info.postscriptBlueValues.filter((v): v is number => typeof v === 'number')
    : [];
  const overshootAt = (position: number): number | undefined => {
    for (let i = 0; i + 1 < blues.length; i += 2) {
      const [low, high] = [blues[i]!, blues[i + 1]!];
      if (i === 0 && high === position) return low - high;
      if (i > 0 && low === position) return high - low;
    }
    return undefined;
  };
  const line = (key: 'xHeight' | 'capHeight' | 'ascender' | 'descender', v: LibValue | undefined) => {
    const position = number(v) ?? base[key].position;
    return { ...base[key], position, overshoot: overshootAt(position) ?? base[key].overshoot };
  };
  return {
    baseline: { ...base.baseline, overshoot: overshootAt(0) ?? base.baseline.overshoot },
    xHeight: line('xHeight', info.xHeight),
    capHeight: line('capHeight', info.capHeight),
    ascender: line('ascender', info.ascender),
    descender: line('descender', info.descender),
    own: [],
  };
}

export const metricsOf = (info: Lib): Master['verticalMetrics'] => {
  const found: Record<string, number> = {};
  const pairs = {
    typoAscender: 'openTypeOS2TypoAscender',
    typoDescender: 'openTypeOS2TypoDescender',
    typoLineGap: 'openTypeOS2TypoLineGap',
    hheaAscender: 'openTypeHheaAscender',
    hheaDescender: 'openTypeHheaDescender',
    hheaLineGap: 'openTypeHheaLineGap',
    winAscent: 'openTypeOS2WinAscent',
    winDescent: 'openTypeOS2WinDescent',
  };
  for (const [ours, theirs] of Object.entries(pairs)) {
    const v = number(info[theirs]);
    if (v !== undefined) found[ours] = v;
  }
  return found;
};
