import { refuse } from '../../base/result';
import { toDesign } from '../../project/axes';
import type { Lib } from '../../project/model';
import { isDict, plistElement, plistValue } from '../ufo/plist';
import { escapeXml, numberAttribute, numberText, parseXml, type XmlElement } from '../xml';

export type DesignspaceAxis = {
  tag: string;
  name: string;
  minimum: number;
  default: number;
  maximum: number;
  hidden: boolean;
  map: [number, number][];
  labels: Record<string, string>;
  /** The only values of an axis that does not run through between them. */
  discrete?: number[] | undefined;
  /** Named values along the axis, in user units. */
  stops?: AxisStop[] | undefined;
};
export type AxisStop = {
  name: string;
  value: number;
  minimum?: number | undefined;
  maximum?: number | undefined;
  linked?: number | undefined;
  elidable: boolean;
  older: boolean;
};
export type DesignspaceSource = {
  filename: string;
  name: string;
  styleName: string;
  layer: string | undefined;
  location: Record<string, number>;
};
export type DesignspaceInstance = {
  name: string;
  styleName: string;
  filename: string | undefined;
  location: Record<string, number>;
};
/** Glyphs that give way to others where all conditions of one of the sets hold; ends left out reach as far as the axis. */
export type DesignspaceRule = {
  name: string;
  sets: { axis: string; minimum?: number | undefined; maximum?: number | undefined }[][];
  subs: [from: string, to: string][];
};
/** Locations are by axis name, in design units, as the format has them. */
export type Designspace = {
  axes: DesignspaceAxis[];
  sources: DesignspaceSource[];
  instances: DesignspaceInstance[];
  rules: DesignspaceRule[];
  /** Rules work after all other substitutions, not before them. */
  rulesLast?: boolean | undefined;
  lib: Lib;
};

const child = (e: XmlElement, name: string): XmlElement | undefined => e.children.find((c) => c.name === name);

/** Reads a designspace document (versions 4 and 5; elements Wendril has no use for are passed over). */
export function readDesignspace(text: string, file: string): Designspace {
  const root = parseXml(text, file);
  if (root.name !== 'designspace') refuse(`${file} is not a designspace: it begins with <${root.name}>.`);
  const list = (name: string) => child(root, name)?.children ?? [];
  const axes = list('axes')
    .filter((e) => e.name === 'axis')
    .map((e): DesignspaceAxis => {
      const number = (key: string, fallback?: number) => numberAttribute(e, key, fallback, file);
      const values = (e.attributes.values ?? '').split(/\s+/).filter(Boolean).map(Number);
      const fallback = number('default', 0);
      return {
        tag: e.attributes.tag ?? refuse(`${file}, line ${e.line}: <axis> has no tag.`),
        name: e.attributes.name ?? refuse(`${file}, line ${e.line}: <axis> has no name.`),
        minimum: number('minimum', Math.min(fallback, ...values)),
        default: fallback,
        maximum: number('maximum', Math.max(fallback, ...values)),
        hidden: e.attributes.hidden === '1',
        map: e.children
          .filter((c) => c.name === 'map')
          .map((c) => [numberAttribute(c, 'input', undefined, file), numberAttribute(c, 'output', undefined, file)]),
        labels: Object.fromEntries(
          e.children.filter((c) => c.name === 'labelname').map((c) => [c.attributes['xml:lang'] ?? 'en', c.text]),
        ),
        ...(values.length > 0 && values.every(Number.isFinite) ? { discrete: values } : {}),
        ...(child(e, 'labels') ? { stops: stopsOf(child(e, 'labels')!, file) } : {}),
      };
    });
  const axisNamed = (name: string | undefined) => axes.find((a) => a.name === name);
  // Places that have names, which instances may refer to.
  const labels = new Map(list('labels').map((l) => [l.attributes.name ?? '', l]));
  const location = (e: XmlElement): Record<string, number> =>
    Object.fromEntries(
      (child(labels.get(e.attributes.location ?? '') ?? e, 'location')?.children ?? [])
        .filter((d) => d.name === 'dimension')
        .map((d) => [
          d.attributes.name ?? refuse(`${file}, line ${d.line}: <dimension> has no name.`),
          d.attributes.uservalue === undefined || d.attributes.xvalue !== undefined
            ? numberAttribute(d, 'xvalue', undefined, file)
            : toDesign(axisNamed(d.attributes.name) ?? { map: [] }, numberAttribute(d, 'uservalue', undefined, file)),
        ]),
    );
  const sources = list('sources')
    .filter((e) => e.name === 'source')
    .map(
      (e): DesignspaceSource => ({
        filename: e.attributes.filename ?? refuse(`${file}, line ${e.line}: <source> has no filename.`),
        name: e.attributes.name ?? '',
        styleName: e.attributes.stylename ?? '',
        layer: e.attributes.layer,
        location: location(e),
      }),
    );
  const instances = list('instances')
    .filter((e) => e.name === 'instance')
    .map(
      (e): DesignspaceInstance => ({
        name: e.attributes.name ?? '',
        styleName: e.attributes.stylename ?? '',
        filename: e.attributes.filename,
        location: location(e),
      }),
    );
  const dict = child(root, 'lib')?.children[0];
  const lib = dict ? plistValue(dict, file) : {};
  const rules = list('rules')
    .filter((e) => e.name === 'rule')
    .map((e) => ruleOf(e, file));
  const rulesLast = child(root, 'rules')?.attributes.processing === 'last';
  return { axes, sources, instances, rules, ...(rulesLast && { rulesLast }), lib: isDict(lib) ? lib : {} };
}

/** A rule; conditions without a set, as older files have them, are one set. */
function ruleOf(rule: XmlElement, file: string): DesignspaceRule {
  const conditions = (e: XmlElement) =>
    e.children
      .filter((c) => c.name === 'condition')
      .map((c) => {
        const own = (key: string) =>
          c.attributes[key] === undefined ? {} : { [key]: numberAttribute(c, key, undefined, file) };
        const axis = c.attributes.name ?? refuse(`${file}, line ${c.line}: <condition> has no name.`);
        return { axis, ...own('minimum'), ...own('maximum') };
      });
  const sets = rule.children.filter((c) => c.name === 'conditionset').map(conditions);
  const loose = conditions(rule);
  return {
    name: rule.attributes.name ?? '',
    sets: loose.length > 0 ? [...sets, loose] : sets,
    subs: rule.children.filter((c) => c.name === 'sub').map((c) => [c.attributes.name ?? '', c.attributes.with ?? '']),
  };
}

/** Named values of an axis (designspace 5, `labels`). */
function stopsOf(labels: XmlElement, file: string): AxisStop[] {
  return labels.children
    .filter((l) => l.name === 'label')
    .map((l) => {
      const own = (key: string) =>
        l.attributes[key] === undefined ? undefined : numberAttribute(l, key, undefined, file);
      const [minimum, maximum, linked] = [own('userminimum'), own('usermaximum'), own('linkeduservalue')];
      return {
        name: l.attributes.name ?? refuse(`${file}, line ${l.line}: <label> has no name.`),
        value: numberAttribute(l, 'uservalue', undefined, file),
        ...(minimum === undefined ? {} : { minimum }),
        ...(maximum === undefined ? {} : { maximum }),
        ...(linked === undefined ? {} : { linked }),
        elidable: l.attributes.elidable === 'true',
        older: l.attributes.oldersibling === 'true',
      };
    });
}

function stopLine(s: AxisStop): string {
  const number = (key: string, v: number | undefined) => (v === undefined ? '' : ` ${key}="${numberText(v)}"`);
  const flag = (key: string, v: boolean) => (v ? ` ${key}="true"` : '');
  return `        <label uservalue="${numberText(s.value)}"${number('userminimum', s.minimum)}${number('usermaximum', s.maximum)} name="${escapeXml(s.name)}"${flag('elidable', s.elidable)}${flag('oldersibling', s.older)}${number('linkeduservalue', s.linked)}/>`;
}

function rulesWritten({ rules, rulesLast }: Designspace): string[] {
  if (rules.length === 0) return [];
  const end = (key: string, v: number | undefined) => (v === undefined ? '' : ` ${key}="${numberText(v)}"`);
  const lines = rules.flatMap((r) => [
    `    <rule name="${escapeXml(r.name)}">`,
    ...r.sets.flatMap((set) => [
      '      <conditionset>',
      ...set.map(
        (c) =>
          `        <condition name="${escapeXml(c.axis)}"${end('minimum', c.minimum)}${end('maximum', c.maximum)}/>`,
      ),
      '      </conditionset>',
    ]),
    ...r.subs.map(([from, to]) => `      <sub name="${escapeXml(from)}" with="${escapeXml(to)}"/>`),
    '    </rule>',
  ]);
  return [`  <rules${rulesLast ? ' processing="last"' : ''}>`, ...lines, '  </rules>'];
}

/** A designspace 5 document. */
export function writeDesignspace(space: Designspace): string {
  const out = ['<?xml version="1.0" encoding="UTF-8"?>', '<designspace format="5.0">'];
  if (space.axes.length > 0) {
    out.push('  <axes>');
    for (const a of space.axes) {
      const range = a.discrete
        ? `values="${a.discrete.map(numberText).join(' ')}"`
        : `minimum="${numberText(a.minimum)}" maximum="${numberText(a.maximum)}"`;
      const head = `    <axis tag="${escapeXml(a.tag)}" name="${escapeXml(a.name)}" ${range} default="${numberText(a.default)}"${a.hidden ? ' hidden="1"' : ''}`;
      const inner = [
        ...Object.entries(a.labels).map(
          ([lang, text]) => `      <labelname xml:lang="${escapeXml(lang)}">${escapeXml(text)}</labelname>`,
        ),
        ...a.map.map(([i, o]) => `      <map input="${numberText(i)}" output="${numberText(o)}"/>`),
        ...(a.stops && a.stops.length > 0 ? ['      <labels>', ...a.stops.map(stopLine), '      </labels>'] : []),
      ];
      out.push(inner.length > 0 ? `${head}>` : `${head}/>`, ...inner);
      if (inner.length > 0) out.push('    </axis>');
    }
    out.push('  </axes>');
  }
  out.push(...rulesWritten(space));
  const location = (place: Record<string, number>, indent: string) => {
    const dims = Object.entries(place).map(
      ([name, v]) => `${indent}  <dimension name="${escapeXml(name)}" xvalue="${numberText(v)}"/>`,
    );
    return dims.length > 0 ? [`${indent}<location>`, ...dims, `${indent}</location>`] : [];
  };
  const attribute = (key: string, v: string | undefined) => (v ? ` ${key}="${escapeXml(v)}"` : '');
  out.push('  <sources>');
  for (const s of space.sources) {
    out.push(
      `    <source filename="${escapeXml(s.filename)}"${attribute('name', s.name)}${attribute('stylename', s.styleName)}${attribute('layer', s.layer)}>`,
      ...location(s.location, '      '),
      '    </source>',
    );
  }
  out.push('  </sources>');
  if (space.instances.length > 0) {
    out.push('  <instances>');
    for (const i of space.instances) {
      out.push(
        `    <instance${attribute('name', i.name)}${attribute('stylename', i.styleName)}${attribute('filename', i.filename)}>`,
        ...location(i.location, '      '),
        '    </instance>',
      );
    }
    out.push('  </instances>');
  }
  if (Object.keys(space.lib).length > 0) out.push('  <lib>', plistElement(space.lib, '    '), '  </lib>');
  out.push('</designspace>', '');
  return out.join('\n');
}
