import { create } from 'zustand';
import type { GlyphId } from '../../core/project/model';

/** Glyphs chosen in the Case, for what is done to many; empty where only the glyph at hand is meant. */
export const useCaseBench = create<{ chosen: ReadonlySet<GlyphId> }>(() => ({ chosen: new Set() }));
export const setChosen = (chosen: ReadonlySet<GlyphId>): void => useCaseBench.setState({ chosen });
