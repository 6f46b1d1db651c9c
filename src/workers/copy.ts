import { writeProjectFile } from '../core/formats/project/projectFile';
import { documentHolder } from './document';

const held = documentHolder();

/** The document as a project file, made away from the page. */
export const copyService = {
  ...held.service,
  file(): { bytes: Uint8Array; glyphs: number } {
    const project = held.now();
    if (!project) throw new Error('The document has not come yet.');
    return { bytes: writeProjectFile(project), glyphs: project.glyphOrder.length };
  },
};

export type CopyService = typeof copyService;
