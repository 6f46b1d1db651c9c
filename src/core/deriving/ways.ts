import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import type { Item, Kind, SetFacts, Way } from './sets';

/** How a glyph of a set may come otherwise than its set would have it. */
export const OTHER_WAYS = [
  { as: 'scaled', text: 'Scaled, at the weight of the set' },
  { as: 'part', text: 'As a part' },
  { as: 'hand', text: 'Drawn by hand' },
] as const;
export type OtherWay = (typeof OTHER_WAYS)[number]['as'];

/** Which letters a glyph is measured among, by its character; small letters where it has none. */
function kindOf(project: Project, name: string): Kind {
  const code = glyphNamed(project, name)?.unicodes[0];
  const letter = code === undefined ? name.replace(/\..*$/, '') : String.fromCodePoint(code);
  if (/^\p{Nd}/u.test(letter)) return 'figures';
  return /^\p{Lu}/u.test(letter) ? 'capitals' : 'small';
}

/** Sets that stand at a height of their own, where a part goes to their foot. */
const RAISED = new Set(['superiors', 'inferiors', 'numerators', 'denominators', 'ordinals']);

/** Can one choose what a glyph comes from? Rows, rings and letters with marks are what they hold. */
export const canChoose = (way: Way): boolean =>
  way.how === 'scaled' || way.how === 'moved' || way.how === 'centred' || way.how === 'sided';

/** How a glyph is said to come by a way. */
export const otherOf = (way: Way): OtherWay => (way.how === 'scaled' ? 'scaled' : 'part');

/** The glyphs of a set as the project has them: those with a way of their own by that. */
export function itemsOf(project: Project, set: SetFacts): (Item & { byHand?: boolean })[] {
  const own = project.settings.deriving?.own ?? {};
  return set.items(project).map((item) => {
    const { of, as } = own[item.name] ?? {};
    if ((of === undefined && as === undefined) || !canChoose(item.way)) return item;
    if (as === 'hand') return { ...item, byHand: true };
    const from = of ?? (item.way as { of: string }).of;
    const how = as ?? otherOf(item.way);
    const way: Way =
      how === 'scaled'
        ? { how: 'scaled', of: from, among: kindOf(project, from) }
        : as === undefined && item.way.how !== 'scaled'
          ? ({ ...item.way, of: from } as Way)
          : { how: 'moved', of: from, to: RAISED.has(set.key) ? 'foot' : 'asIs' };
    return { ...item, way };
  });
}
