import { proxy } from 'comlink';
import { type LetterPicture, placeLettering } from '../../core/drawing/lettering';
import { addGlyphs } from '../../core/project/glyphEdits';
import { nameForCodePoint } from '../../core/project/glyphNames';
import type { MasterId, Project } from '../../core/project/model';
import { glyphForCodePoint } from '../../core/project/queries';
import type { tracingWorker } from '../../workers/clients';
import type { SheetFound } from '../../workers/tracing';
import { chooseGlyph, run, useBench } from '../state/bench';

export type OpenedSheet = SheetFound & { name: string; url: string };
type Service = ReturnType<typeof tracingWorker>;
type CutLetters = Service['service']['cutLetters'];

export const codeOf = (character: string): number => character.codePointAt(0)!;

export type Lettering = {
  sheet: OpenedSheet;
  worker: Service;
  lines: Parameters<CutLetters>[0];
  /** Each character once. */
  order: readonly (Parameters<CutLetters>[1][number] & { character: string })[];
  trace: boolean;
  master: MasterId;
  unitsPerPixel: number;
};

/** Cuts letters out of a sheet and puts each behind its glyph, which is added where it is missing; one step of undo. */
export async function putBehind(
  { sheet, worker, lines, order, trace, master, unitsPerPixel }: Lettering,
  progress: (share: number) => void,
): Promise<boolean> {
  const cut = await worker.service.cutLetters(
    lines,
    order,
    trace,
    proxy((done: number, total: number) => progress(done / total)),
  );
  const done = run((p) => {
    const added = addGlyphs(p, {
      requests: order.map((w) => ({ name: nameForCodePoint(codeOf(w.character)), unicodes: [codeOf(w.character)] })),
    });
    const whole: Project = added.ok ? added.project : p;
    const letters = order.map((w, i): LetterPicture => {
      const { png, contours, ...place } = cut[i]!;
      const { width, height } = place;
      return {
        ...place,
        glyph: glyphForCodePoint(whole, codeOf(w.character))!.id,
        picture: { name: `${sheet.name}, ${w.character}`, type: 'image/png', width, height, bytes: png },
        outlines: contours,
      };
    });
    return placeLettering(whole, { master, letters, unitsPerPixel, sheet: sheet.name });
  });
  if (!done) return false;
  const { project: now, glyph } = useBench.getState();
  const placed = now ? order.flatMap((w) => glyphForCodePoint(now, codeOf(w.character)) ?? []) : [];
  if (placed[0] && !placed.some((g) => g.id === glyph)) chooseGlyph(placed[0].id);
  return true;
}
