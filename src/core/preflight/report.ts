import type { Severity } from '../base/result';
import type { Project } from '../project/model';
import { masterOf } from '../project/queries';
import type { Finding } from './finding';
import { KINDS, kindOf } from './kinds';

/** How bad, in the words of build systems. */
export const LEVELS = { error: 'error', attention: 'warning', note: 'note' } as const satisfies Record<
  Severity,
  string
>;
export type Level = (typeof LEVELS)[Severity];

/** A finding as it is told outside: names instead of ids, counted from 1 on. */
export type Told = {
  readonly kind: string;
  readonly level: Level;
  readonly title: string;
  readonly reason: string;
  readonly glyph?: string;
  readonly masters?: readonly string[];
  readonly contour?: number;
  readonly point?: number;
  readonly x?: number;
  readonly y?: number;
  readonly others?: readonly string[];
  readonly section?: string;
  readonly line?: number;
  /** The ways in which a machine could mend it. */
  readonly mends?: readonly string[];
};

export const levelOf = (f: Finding): Level => LEVELS[kindOf(f.kind)?.severity ?? 'note'];

/** A finding with the names of a project. */
export function told(project: Project, f: Finding): Told {
  const glyph = f.glyph === undefined ? undefined : project.glyphs[f.glyph]?.name;
  const masters = f.masters.map((m) => masterOf(project, m)?.name ?? m);
  const [spot] = f.spots;
  const others = (f.others ?? []).flatMap((id) => project.glyphs[id]?.name ?? []);
  const section = project.features.sections.find((s) => s.id === f.section)?.title;
  return {
    kind: f.kind,
    level: levelOf(f),
    title: kindOf(f.kind)?.title ?? f.kind,
    reason: f.reason,
    ...(glyph !== undefined && { glyph }),
    ...(masters.length > 0 && { masters }),
    ...(f.contour !== undefined && { contour: f.contour + 1 }),
    ...(f.point !== undefined && f.point >= 0 && { point: f.point + 1 }),
    ...(spot && { x: spot.x, y: spot.y }),
    ...(others.length > 0 && { others }),
    ...(section !== undefined && { section }),
    ...(f.line !== undefined && { line: f.line }),
    ...(f.mends.length > 0 && { mends: f.mends.map((m) => m.title) }),
  };
}

/** Where a finding is, in words. */
export function placeInText({ glyph, masters, contour, point, section, line }: Told, all: number): string {
  const few = masters && masters.length < all ? `in ${masters.join(', ')}` : '';
  return [
    [glyph, few].filter(Boolean).join(' '),
    contour === undefined ? '' : `contour ${contour}${point === undefined ? '' : `, point ${point}`}`,
    section ? `“${section}”${line === undefined ? '' : `, line ${line}`}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/**
 * Findings as a log that build systems and reviews read (OASIS, “Static Analysis Results Interchange Format” 2.1.0): kinds as rules, glyphs as
 * logical locations.
 */
export function sarifOf(
  files: readonly { readonly file: string; readonly findings: readonly Told[] }[],
  version: string,
): object {
  const used = new Set(files.flatMap((f) => f.findings.map((t) => t.kind)));
  const rules = KINDS.filter((k) => used.has(k.kind));
  return {
    $schema: 'https://json.schemastore.org/sarif-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'Wendril',
            version,
            rules: rules.map((k) => ({
              id: k.kind,
              name: k.title,
              shortDescription: { text: k.title },
              fullDescription: { text: k.why },
              defaultConfiguration: { level: LEVELS[k.severity] },
            })),
          },
        },
        results: files.flatMap(({ file, findings }) =>
          findings.map((t) => ({
            ruleId: t.kind,
            ruleIndex: rules.findIndex((k) => k.kind === t.kind),
            level: t.level,
            message: { text: t.glyph === undefined ? t.reason : `${t.glyph}: ${t.reason}` },
            locations: [
              {
                physicalLocation: {
                  artifactLocation: { uri: encodeURI(file.replace(/\\/g, '/')) },
                  ...(t.line !== undefined && { region: { startLine: t.line } }),
                },
                ...(t.glyph !== undefined && {
                  logicalLocations: [
                    {
                      name: t.glyph,
                      kind: 'glyph',
                      fullyQualifiedName: [t.masters?.[0], t.glyph, t.contour, t.point]
                        .filter((v) => v !== undefined)
                        .join('/'),
                    },
                  ],
                }),
              },
            ],
          })),
        ),
      },
    ],
  };
}
