import type { Lib, LibValue, Project } from './model';

/** Names of a font that are stated outright, each made of family, style or version. */
const TEXTS: readonly string[] = [
  'openTypeNamePreferredFamilyName',
  'openTypeNamePreferredSubfamilyName',
  'openTypeNameCompatibleFullName',
  'openTypeNameWWSFamilyName',
  'openTypeNameWWSSubfamilyName',
  'openTypeNameUniqueID',
  'openTypeNameVersion',
  'postscriptFontName',
  'postscriptFullName',
  'styleMapFamilyName',
];
/** Records of the name table that are made of these (OpenType, “name”: name IDs). */
const RECORDS: readonly number[] = [1, 2, 3, 4, 5, 6, 16, 17, 18, 20, 21, 22, 25];

/** One part of names as it was and as it is now. */
export type NewPart = { readonly of: 'family' | 'style' | 'version'; readonly was: string; readonly is: string };

const tight = (text: string): string => text.replace(/\s+/g, '');

/** What a name begins or ends with, replaced; “Go” is no part of “Gorilla”, nor “Bold” of “SemiBold”. */
function replaced(text: string, { of, was, is }: NewPart): string {
  if (of === 'family')
    return text.startsWith(was) && !/\p{Ll}/u.test(text.charAt(was.length)) ? is + text.slice(was.length) : text;
  const before = text.length - was.length;
  return text.endsWith(was) && !/\p{L}/u.test(text.charAt(before - 1)) ? text.slice(0, before) + is : text;
}

/**
 * A name with its part in place of the old one: families begin names, styles end them, also written without blanks; unique names have
 * several between marks.
 */
function renamed(text: string, part: NewPart): string {
  const { of, was, is } = part;
  if (was === '' || was === is) return text;
  if (of === 'version') return withVersion(text, was, is);
  for (const way of [part, { of, was: tight(was), is: tight(is) }]) {
    const between = text.split(/([;:/]\s*|\s[-:]\s)/);
    const own = [replaced(text, way), between.map((one) => replaced(one, way)).join('')].find((t) => t !== text);
    if (own !== undefined) return own;
  }
  return text;
}

/** Numbers in a text that are the version, however many digits they are written with. */
const withVersion = (text: string, was: string, is: string): string =>
  text.replace(/\d+\.\d+/g, (number) => (Number(number) === Number(was) ? is : number));

function renamedFacts<T extends LibValue>(facts: Readonly<Record<string, T>>, part: NewPart): Record<string, T> {
  return Object.fromEntries(
    Object.entries(facts).map(([key, value]): [string, T] => {
      if (TEXTS.includes(key) && typeof value === 'string') return [key, renamed(value, part) as T];
      if (key !== 'openTypeNameRecords' || !Array.isArray(value)) return [key, value];
      const records = value.map((record: LibValue): LibValue => {
        if (typeof record !== 'object' || Array.isArray(record) || record instanceof Uint8Array) return record;
        const { nameID, string } = record as Lib;
        return typeof nameID === 'number' && RECORDS.includes(nameID) && typeof string === 'string'
          ? { ...record, string: renamed(string, part) }
          : record;
      });
      return [key, records as unknown as T];
    }),
  );
}

/** Names that masters and instances state outright, of which a part is now another: the others follow by rule. */
export function withNewPart(project: Project, part: NewPart, master?: string): Project {
  return {
    ...project,
    masters: project.masters.map((m) =>
      m.info && (master === undefined || m.id === master) ? { ...m, info: renamedFacts(m.info, part) } : m,
    ),
    instances: project.instances.map((i) =>
      i.names && master === undefined ? { ...i, names: renamedFacts(i.names, part) } : i,
    ),
  };
}

/** A version as names have it. */
export const versionText = ({ versionMajor, versionMinor }: Project['family']): string =>
  `${versionMajor}.${String(versionMinor).padStart(3, '0')}`;
