import { namesOfThing } from '../../../core/casting/things';
import type { StyleNames } from '../../../core/fontfacts/names';
import { ownNames, STYLE_NAME_FACTS, type StyleNameFact, setStyleName } from '../../../core/project/styleNameEdits';
import { run, useBench } from '../../state/bench';
import { EntryField } from '../../ui/parts';

const BY_RULE: Readonly<Record<StyleNameFact, keyof StyleNames>> = {
  openTypeNamePreferredFamilyName: 'family',
  openTypeNamePreferredSubfamilyName: 'style',
  styleMapFamilyName: 'linkedFamily',
  postscriptFullName: 'fullName',
  postscriptFontName: 'postScriptName',
  openTypeNameVersion: 'version',
  openTypeNameUniqueID: 'uniqueID',
};

/** Every name of a font that is to be made: by rule, or set outright; given empty it follows the rule again. */
export function PlannedNames({ thing }: { thing: { master: string } | { instance: number } }) {
  const project = useBench((s) => s.settled)!;
  const told = namesOfThing(project, thing);
  if (!told) return null;
  const own = ownNames(project, thing);
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)_auto_minmax(0,1fr)] items-center gap-x-3 gap-y-1.5 max-md:grid-cols-[auto_minmax(0,1fr)]">
      {STYLE_NAME_FACTS.map(({ key, title }) => (
        <label key={key} className="contents">
          <span className="text-quiet">
            {title}
            {own[key] !== undefined && <span className="block text-[11.5px] text-kelp">set by hand</span>}
          </span>
          <EntryField
            aria-label={`${title} of ${told.names.family} ${told.names.style}`}
            value={String(told.names[BY_RULE[key]])}
            onApply={(value) => run((p) => setStyleName(p, { ...thing, fact: key, value }))}
          />
        </label>
      ))}
      <p className="col-span-full text-[12.5px] text-quiet">
        Names follow from family and style until they are set here; a name that is emptied follows again.
      </p>
    </div>
  );
}
