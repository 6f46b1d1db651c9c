import { buildStarter } from '../../../demo/starter';
import { styleNames } from '../fontfacts/names';
import { setFamily, setMasterName } from './edits';
import type { Lib, Project } from './model';

const demo = buildStarter();
const stated = (info: Lib, names: Record<string, string> = {}): Project => ({
  ...demo,
  family: { ...demo.family, name: 'Orde Sans', versionMajor: 1, versionMinor: 100 },
  masters: [{ ...demo.masters[0]!, name: 'Bold', info }],
  instances: [{ name: 'Bold', place: {}, names }],
});
const info = (outcome: ReturnType<typeof setFamily>): Lib => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project.masters[0]!.info!;
};

const NAMES: Lib = {
  styleMapFamilyName: 'Orde Sans',
  postscriptFontName: 'OrdeSans-Bold',
  postscriptFullName: 'Orde Sans Bold',
  openTypeNameUniqueID: 'The office: Orde Sans Bold : 3',
  openTypeNameVersion: 'Version 1.10; made by hand',
  openTypeNameRecords: [
    { nameID: 4, platformID: 3, encodingID: 1, languageID: 0x407, string: 'Orde Sans Fett' },
    { nameID: 256, platformID: 3, encodingID: 1, languageID: 0x409, string: 'Orde Sans' },
  ],
};

test('a family that is renamed is renamed in the names that are stated outright, in all languages, and nowhere else', () => {
  const renamed = info(setFamily(stated(NAMES), { name: 'Velm' }));
  expect(renamed).toEqual({
    styleMapFamilyName: 'Velm',
    postscriptFontName: 'Velm-Bold',
    postscriptFullName: 'Velm Bold',
    openTypeNameUniqueID: 'The office: Velm Bold : 3',
    openTypeNameVersion: 'Version 1.10; made by hand',
    openTypeNameRecords: [
      { nameID: 4, platformID: 3, encodingID: 1, languageID: 0x407, string: 'Velm Fett' },
      // What a feature is called is no name of the family.
      { nameID: 256, platformID: 3, encodingID: 1, languageID: 0x409, string: 'Orde Sans' },
    ],
  });
});

test('names that an instance states follow too', () => {
  const outcome = setFamily(stated({}, { postscriptFontName: 'OrdeSans-Fat' }), { name: 'Velm' });
  expect(outcome.ok && outcome.project.instances[0]!.names).toEqual({ postscriptFontName: 'Velm-Fat' });
});

test('a name that only begins like the family is another', () => {
  const names: Lib = { styleMapFamilyName: 'Orde Sansation', postscriptFullName: 'Ordering' };
  expect(info(setFamily(stated(names), { name: 'Velm' }))).toEqual(names);
});

test('a version that is set is so in the text that states it', () => {
  const renamed = info(setFamily(stated(NAMES), { versionMinor: 205 }));
  expect(renamed.openTypeNameVersion).toBe('Version 1.205; made by hand');
  expect(renamed.postscriptFontName).toBe('OrdeSans-Bold');
});

test('a master that is renamed is so at the end of its names; SemiBold is no Bold', () => {
  const outcome = setMasterName(stated({ ...NAMES, openTypeNameCompatibleFullName: 'Orde SemiBold' }), {
    master: demo.masters[0]!.id,
    name: 'Fat',
  });
  expect(info(outcome)).toMatchObject({
    postscriptFontName: 'OrdeSans-Fat',
    postscriptFullName: 'Orde Sans Fat',
    openTypeNameCompatibleFullName: 'Orde SemiBold',
    styleMapFamilyName: 'Orde Sans',
  });
  if (!outcome.ok) return;
  expect(styleNames(outcome.project, outcome.project.masters[0]!).fullName).toBe('Orde Sans Fat');
});
