import type { DragEvent } from 'react';
import type { GlyphId } from '../../core/project/model';

/** The kind of data that a dragged glyph carries: its id. */
const GLYPH_DRAG = 'application/x-wendril-glyph';

/** What makes an element one that a glyph is dragged by. */
export const draggedAs = (glyph: GlyphId): { draggable: true; onDragStart: (e: DragEvent) => void } => ({
  draggable: true,
  onDragStart: (e) => e.dataTransfer.setData(GLYPH_DRAG, glyph),
});

/** What makes an element take a dragged glyph. */
export const takesGlyph = <E extends Element>(
  take: (glyph: GlyphId, e: DragEvent<E>) => void,
): { onDragOver: (e: DragEvent<E>) => void; onDrop: (e: DragEvent<E>) => void } => ({
  onDragOver: (e) => {
    if (e.dataTransfer.types.includes(GLYPH_DRAG)) e.preventDefault();
  },
  onDrop: (e) => {
    const glyph = e.dataTransfer.getData(GLYPH_DRAG);
    if (!glyph) return;
    e.preventDefault();
    take(glyph, e);
  },
});
