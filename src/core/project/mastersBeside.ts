import { z } from 'zod';
import * as a from './arguments';
import { defineEdit, edited, type Outcome, plural, refused } from './edit';
import { MASTER_FACTS, masterFact, setItalicAngle, setMasterFact } from './masterFacts';
import { type Master, type MasterId, type Project, ZONE_KEYS, type ZoneKey } from './model';
import { masterThere } from './queries';
import { setOwnZone, setZone } from './zoneEdits';

/** Something that each master has of its own, side by side: a number that can be set, or one that is counted. */
export type BesideRow = {
  /** Names the row for {@link setInMasters}: `line:xHeight`, `overshoot:xHeight`, `own:small capitals`, `angle`, `fact:winAscent`. */
  key: string;
  title: string;
  group: 'lines' | 'overshoots' | 'facts' | 'counted';
  /** By master, in their order; undefined where it has none, or a rule holds. */
  values: readonly (number | undefined)[];
  /** Are they the same in all? */
  alike: boolean;
};

/** What masters have of their own, each row over all of them. */
export function mastersBeside(project: Project): BesideRow[] {
  const { masters } = project;
  const row = (
    key: string,
    title: string,
    group: BesideRow['group'],
    of: (m: Master) => number | undefined,
  ): BesideRow => {
    const values = masters.map(of);
    return { key, title, group, values, alike: values.every((v) => v === values[0]) };
  };
  const zones = [...ZONE_KEYS].reverse();
  const nameOf = (k: ZoneKey) => masters[0]!.zones[k].name;
  const own = [...new Set(masters.flatMap((m) => m.zones.own.map((o) => o.name)))];
  const ownOf = (m: Master, name: string) => m.zones.own.find((o) => o.name === name);
  const follows = (m: Master) =>
    Object.values(project.glyphs).reduce(
      (sum, g) => sum + [...g.follows.left, ...g.follows.right].filter((f) => f.master === m.id).length,
      0,
    );
  return [
    ...zones.map((k) => row(`line:${k}`, nameOf(k), 'lines', (m) => m.zones[k].position)),
    ...own.map((name) => row(`own:${name}`, name, 'lines', (m) => ownOf(m, name)?.position)),
    ...zones.map((k) => row(`overshoot:${k}`, nameOf(k), 'overshoots', (m) => m.zones[k].overshoot)),
    row('angle', 'italic angle', 'facts', (m) => m.italicAngle),
    ...MASTER_FACTS.map((f) => row(`fact:${f.key}`, f.title, 'facts', (m) => masterFact(m, f.key))),
    row('kerning', 'kerning values', 'counted', (m) => Object.keys(m.kerning).length),
    row('guides', 'guides', 'counted', (m) => m.guides.length),
    row('follows', 'follow rules of its own', 'counted', follows),
  ];
}

function setIn(project: Project, master: MasterId, key: string, value: number | undefined): Outcome {
  const [kind, name = ''] = key.split(/:(.*)/s);
  if (kind === 'fact') return setMasterFact(project, { master, fact: name, ...(value !== undefined && { value }) });
  if (value === undefined) return refused('This needs a number in every master.');
  if (kind === 'angle') return setItalicAngle(project, { master, angle: value });
  if (kind === 'own') {
    const index = masterThere(project, master).zones.own.findIndex((o) => o.name === name);
    return index < 0
      ? refused(`${masterThere(project, master).name} has no zone named ${name}.`)
      : setOwnZone(project, { master, index, change: { position: value } });
  }
  const zone = ZONE_KEYS.find((k) => k === name);
  if (!zone || (kind !== 'line' && kind !== 'overshoot')) return refused('That is counted, not set.');
  return setZone(project, { master, zone, change: kind === 'line' ? { position: value } : { overshoot: value } });
}

/** Sets one thing in several masters, in one step; what one of them refuses is done in none. */
export const setInMasters = defineEdit(
  {
    name: 'setInMasters',
    does: 'Sets a metric in several masters',
    reach: 'masters named',
    args: z.object({ masters: a.masters, key: a.text, value: a.number.optional() }),
  },
  (project, { masters, key, value }) => {
    if (masters.length === 0) return refused('No masters were named.');
    let now = project;
    let said = '';
    for (const id of masters) {
      const done = setIn(now, id, key, value);
      if (!done.ok) return done;
      now = done.project;
      said = done.sentence;
    }
    const { name } = masterThere(project, masters.at(-1)!);
    const all = masters.length === 1 ? name : plural(masters.length, 'master');
    return edited(now, said.endsWith(name) ? `${said.slice(0, -name.length)}${all}` : `${said} (${all})`);
  },
);
