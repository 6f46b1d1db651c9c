import { z } from 'zod';
import { type Call, method } from './call';
import { textOf } from './given';

const cell = z.union([z.string().max(20_000), z.number(), z.boolean(), z.null()]);
const glyph = z.object({ $g: z.string() });
const master = z.object({ $m: z.string() });

/** What a script reports, and what it is told. */
export const GLOBAL_CALLS: readonly Call[] = [
  method(
    'global',
    'say',
    { text: ['unknown', z.string().max(200_000)] },
    { gives: 'void', does: 'Reports a line of text.', example: "say('12 glyphs have no anchors')" },
    (s, { text }) => s.report({ kind: 'text', text }),
  ),
  method(
    'global',
    'table',
    {
      head: ['string[]', z.array(z.string().max(400)).max(100)],
      rows: ['(string | number | boolean | null)[][]', z.array(z.array(cell).max(100)).max(50_000)],
    },
    {
      gives: 'void',
      does: 'Reports a table.',
      example: "table(['glyph', 'left'], chosen.map((g) => [g.name, g.drawing().left ?? null]))",
    },
    (s, { head, rows }) => s.report({ kind: 'table', head, rows }),
  ),
  method(
    'global',
    'chart',
    {
      title: textOf(200),
      labels: ['string[]', z.array(z.string().max(200)).max(2000)],
      series: [
        '{ name: string; values: number[] }[]',
        z.array(z.object({ name: z.string().max(200), values: z.array(z.number()).max(2000) })).max(20),
      ],
    },
    { gives: 'void', does: 'Reports a chart: a row of bars to each label, one to a series.' },
    (s, { title, labels, series }) => s.report({ kind: 'chart', title, labels, series }),
  ),
  method(
    'global',
    'show',
    {
      glyphs: ['Glyph[]', z.array(glyph).max(2000)],
      caption: ['string?', z.string().max(400).optional()],
      master: ['Master?', master.optional()],
    },
    { gives: 'void', does: 'Shows glyphs as they are drawn, under a caption.' },
    (s, { glyphs, caption = '', master: m }) => {
      const id = m?.$m ?? s.terms.masters[0]!;
      s.master(id);
      s.report({ kind: 'glyphs', caption, glyphs: glyphs.map((g) => s.glyph(g.$g).id), master: id });
    },
  ),
  method(
    'global',
    'finding',
    { sentence: textOf(2000), glyph: ['Glyph?', glyph.optional()], master: ['Master?', master.optional()] },
    {
      gives: 'void',
      does: 'Reports something to look at; a click on it opens the glyph. The command ends with an error where there is one.',
    },
    (s, { sentence, glyph: g, master: m }) =>
      s.report({ kind: 'finding', sentence, glyph: g && s.glyph(g.$g).id, master: m && s.master(m.$m).id }),
  ),
  method(
    'global',
    'progress',
    { done: ['number', z.number()], of: ['number', z.number().positive()] },
    { gives: 'void', does: 'Tells how far the script is.' },
    (s, { done, of }) => s.progress(done, of),
  ),
  method(
    'global',
    'random',
    {},
    { gives: 'number', does: 'A number from 0 up to 1: the same row of numbers in every run.' },
    (s) => s.random(),
  ),
];
