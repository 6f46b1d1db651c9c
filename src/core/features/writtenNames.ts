import type { FeatureParams } from '../opentype/layout/featureParams';
import type { NameRecord } from '../opentype/name';
import { ENGLISH } from '../opentype/nameLanguages';

/** The records of a name, in all languages, by its number. */
export type NamesById = (id: number) => readonly NameRecord[];

/** Quotation marks, backslashes and breaks are spelled by their numbers. */
const quoted = (text: string): string =>
  `"${text.replace(/["\\\p{Cc}]/gu, (c) => `\\${c.charCodeAt(0).toString(16).padStart(4, '0')}`)}"`;

const named = ({ languageID, value }: NameRecord): string =>
  languageID === ENGLISH ? quoted(value) : `3 1 0x${languageID.toString(16)} ${quoted(value)}`;

const block = (title: string, records: readonly NameRecord[], indent = ''): string[] =>
  records.length === 0
    ? []
    : [`${indent}${title} {`, ...records.map((r) => `${indent}  name ${named(r)};`), `${indent}};`];

/** What a feature says beside its lookups, as lines of feature text; none where its names are not known. */
export function parameterLines(params: FeatureParams, namesOf: NamesById): string[] {
  if (params.of === 'set') return block('featureNames', namesOf(params.name));
  if (params.of === 'size') {
    const { design, subfamily, start, end, menu } = params;
    const range = subfamily === 0 && start === 0 && end === 0 ? [] : [start, end];
    return [
      `parameters ${[design, subfamily, ...range].join(' ')};`,
      ...(menu < 256 ? [] : namesOf(menu)).map((r) => `sizemenuname ${named(r)};`),
    ];
  }
  const inner = [
    ...block('FeatUILabelNameID', namesOf(params.label), '  '),
    ...block('FeatUITooltipTextNameID', namesOf(params.tooltip), '  '),
    ...block('SampleTextNameID', namesOf(params.sample), '  '),
    ...Array.from({ length: params.parameters }, (_, i) => params.firstParameter + i).flatMap((id) =>
      block('ParamUILabelNameID', namesOf(id), '  '),
    ),
    ...params.characters.map((c) => `  Character 0x${c.toString(16)};`),
  ];
  return inner.length > 0 ? ['cvParameters {', ...inner, '};'] : [];
}
