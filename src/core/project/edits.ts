import { z } from 'zod';
import * as a from './arguments';
import { defineEdit, edited, refused, withMaster } from './edit';
import { familySchema, projectSchema, settingsSchema } from './model';
import { scaledProject } from './scaling';
import { type NewPart, versionText, withNewPart } from './statedNames';

/** Edits of the project as a whole: names, metrics, glyph set, texts. */

export const setFamily = defineEdit(
  { name: 'setFamily', does: 'Changes names of the family', reach: 'all masters', args: familySchema.partial() },
  (project, changes) => {
    if (changes.name !== undefined && changes.name.trim() === '') return refused('A family needs a name.');
    const family = { ...project.family, ...changes };
    const parts: NewPart[] = [
      { of: 'family', was: project.family.name, is: family.name },
      { of: 'version', was: versionText(project.family), is: versionText(family) },
    ];
    const named = parts.filter((p) => p.was !== p.is).reduce((p, part) => withNewPart(p, part), project);
    return edited({ ...named, family }, `Changed ${Object.keys(changes).join(', ')} of the family`);
  },
);

export const setUnitsPerEm = defineEdit(
  {
    name: 'setUnitsPerEm',
    does: 'Sets the units per em; with `scale` everything in the project grows or shrinks along',
    reach: 'all masters',
    args: z.object({ unitsPerEm: a.number, scale: z.boolean().optional() }),
  },
  (project, { unitsPerEm, scale = false }) => {
    if (!Number.isInteger(unitsPerEm) || unitsPerEm < 16 || unitsPerEm > 16384)
      return refused('Units per em must be a whole number from 16 to 16,384.');
    if (!scale) return edited({ ...project, unitsPerEm }, `Set ${unitsPerEm} units per em`);
    const scaled = scaledProject(project, unitsPerEm / project.unitsPerEm, project.settings.grid);
    return edited({ ...scaled, unitsPerEm }, `Scaled everything to ${unitsPerEm} units per em`);
  },
);

export const setMasterName = defineEdit(
  {
    name: 'setMasterName',
    does: 'Renames a master',
    reach: 'one master',
    args: z.object({ master: a.master, name: a.text }),
  },
  (project, { master, name }) => {
    if (name.trim() === '') return refused('A master needs a name.');
    const was = project.masters.find((m) => m.id === master)?.name ?? '';
    const named = withNewPart(project, { of: 'style', was, is: name.trim() }, master);
    return edited(
      withMaster(named, master, (m) => ({ ...m, name: name.trim() })),
      `Renamed a master to ${name.trim()}`,
    );
  },
);

export const setGalleyText = defineEdit(
  {
    name: 'setGalleyText',
    does: 'Changes the galley’s text',
    reach: 'no master',
    args: z.object({ text: a.text }),
  },
  (project, { text }) =>
    edited({ ...project, texts: { ...project.texts, galley: text.slice(0, 4000) } }, 'Changed the galley’s text'),
);

export const setFitLines = defineEdit(
  { name: 'setFitLines', does: 'Changes the lines of Fit', reach: 'no master', args: z.object({ lines: a.texts }) },
  (project, { lines }) =>
    edited(
      { ...project, texts: { ...project.texts, words: lines.slice(0, 50).map((l) => l.slice(0, 400)) } },
      'Changed the fitting lines',
    ),
);

/** Changes how the project is worked on: the steps, what fitting starts with. */
export const changeSettings = defineEdit(
  {
    name: 'changeSettings',
    does: 'Changes how the project is worked on',
    reach: 'no master',
    args: settingsSchema.partial(),
  },
  (project, changes) => {
    const settings = projectSchema.shape.settings.safeParse({ ...project.settings, ...changes });
    return settings.success
      ? edited({ ...project, settings: settings.data }, 'Changed a setting')
      : refused('That is out of bounds.');
  },
);
