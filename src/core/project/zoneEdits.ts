import { z } from 'zod';
import * as a from './arguments';
import { defineEdit, edited, refused, withMaster } from './edit';
import type { Zone, ZoneKey } from './model';
import { masterThere } from './queries';

/** Edits of the metrics lines of a master: the five that every font has, and zones of the designer's own. */

/** Which way round shapes pass a zone's line: below the baseline and descender, above the others. */
export const overshootSign = (key: ZoneKey): -1 | 1 => (key === 'baseline' || key === 'descender' ? -1 : 1);

/** What is wrong with an overshoot's sign, in words, or undefined. */
export function overshootFault(key: ZoneKey, overshoot: number): string | undefined {
  if (overshoot === 0 || Math.sign(overshoot) === overshootSign(key)) return undefined;
  return overshootSign(key) < 0
    ? `Round shapes dip below this line, so its overshoot is negative; ${-Math.abs(overshoot)} was set instead.`
    : `Round shapes rise above this line, so its overshoot is positive; ${Math.abs(overshoot)} was set instead.`;
}

/** Moves a zone or its overshoot. An overshoot on the wrong side of its line is turned round (see {@link overshootFault}). */
export const setZone = defineEdit(
  {
    name: 'setZone',
    does: 'Moves a metrics line or its overshoot',
    reach: 'one master',
    args: z.object({
      master: a.master,
      zone: a.zoneKey,
      change: z.object({ position: a.number, overshoot: a.number }).partial(),
    }),
  },
  (project, { master, zone, change }) => {
    const current = masterThere(project, master);
    const limit = 3 * project.unitsPerEm;
    const next = { ...current.zones[zone], ...change };
    if (!Number.isFinite(next.position) || Math.abs(next.position) > limit)
      return refused(`A line can lie at most ${limit} units from the baseline.`);
    if (!Number.isFinite(next.overshoot) || Math.abs(next.overshoot) > 500)
      return refused('An overshoot can be at most 500 units.');
    next.overshoot = Math.abs(next.overshoot) * overshootSign(zone);
    const order = ['descender', 'baseline', 'xHeight', 'capHeight'] as const;
    const zones = { ...current.zones, [zone]: next };
    const wrong = order.find((key, i) => i > 0 && zones[order[i - 1]!].position >= zones[key].position);
    if (wrong)
      return refused(`The ${zones[wrong].name} must lie above the ${zones[order[order.indexOf(wrong) - 1]!].name}.`);
    if (zones.ascender.position <= zones.xHeight.position) return refused('The ascender must lie above the x-height.');
    const what =
      change.overshoot === undefined ? `${next.name} at ${next.position}` : `${next.name} overshoot ${next.overshoot}`;
    return edited(
      withMaster(project, master, (m) => ({ ...m, zones })),
      `Set ${what}, ${current.name}`,
    );
  },
);

/** Adds a zone of the designer's own, halfway up the x-height to begin with. */
export const addZone = defineEdit(
  {
    name: 'addZone',
    does: 'Adds a metrics line of one’s own',
    reach: 'one master',
    args: z.object({ master: a.master, name: a.text }),
  },
  (project, { master, name }) => {
    const current = masterThere(project, master);
    if (name.trim() === '') return refused('A zone needs a name.');
    if (current.zones.own.some((z) => z.name === name.trim()))
      return refused(`There is already a zone named ${name.trim()}.`);
    const zone: Zone = {
      name: name.trim(),
      position: Math.round(current.zones.xHeight.position / 2),
      overshoot: current.zones.xHeight.overshoot,
    };
    return edited(
      withMaster(project, master, (m) => ({ ...m, zones: { ...m.zones, own: [...m.zones.own, zone] } })),
      `Added the zone ${zone.name}, ${current.name}`,
    );
  },
);

/** Changes a zone of one's own, or takes it away with `remove`. */
export const setOwnZone = defineEdit(
  {
    name: 'setOwnZone',
    does: 'Changes or removes a metrics line of one’s own',
    reach: 'one master',
    args: z.object({
      master: a.master,
      index: a.index,
      change: z.object({ name: a.text, position: a.number, overshoot: a.number, governs: a.text }).partial(),
      remove: z.boolean().optional(),
    }),
  },
  (project, { master, index, change, remove }) => {
    const current = project.masters.find((m) => m.id === master);
    const zone = current?.zones.own[index];
    if (!current || !zone) return refused('That zone is no longer there.');
    const next = { ...zone, ...change };
    const limit = 3 * project.unitsPerEm;
    if (!Number.isFinite(next.position) || Math.abs(next.position) > limit)
      return refused(`A line can lie at most ${limit} units from the baseline.`);
    if (!Number.isFinite(next.overshoot) || Math.abs(next.overshoot) > 500)
      return refused('An overshoot can be at most 500 units.');
    const own = remove
      ? current.zones.own.filter((_, i) => i !== index)
      : current.zones.own.map((z, i) => (i === index ? next : z));
    return edited(
      withMaster(project, master, (m) => ({ ...m, zones: { ...m.zones, own } })),
      remove
        ? `Removed the zone ${zone.name}, ${current.name}`
        : `Set ${next.name} at ${next.position}, ${current.name}`,
    );
  },
);
