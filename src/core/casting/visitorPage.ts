import type { Format } from './outputs';
import { VISITOR_SCRIPT, VISITOR_STYLE } from './visitorParts';

/** A font as a visitor’s page loads it. */
export type VisitedFile = {
  /** What it is called in the list of fonts. */
  title: string;
  format: Format;
  /** Where it is loaded from: an address beside the page, or the bytes themselves (`data:`). */
  address: string;
  /** Size of the file in bytes. */
  size: number;
  codePoints: readonly number[];
  /** Axes in user units; none for a font of one style. */
  axes: readonly { tag: string; name: string; minimum: number; default: number; maximum: number }[];
  instances: readonly { name: string; place: Readonly<Record<string, number>> }[];
};

export type VisitorPage = {
  title: string;
  files: readonly VisitedFile[];
  features: readonly { tag: string; title: string }[];
  languages: readonly { code: string; name: string; text: string }[];
  text: string;
};

const FORMAT_NAMES: Readonly<Record<Format, string>> = {
  otf: 'opentype',
  ttf: 'truetype',
  woff: 'woff',
  woff2: 'woff2',
};

const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

/**
 * A page as anyone might have it who uses the fonts: it knows nothing of where they were made, loads them as its style sheet says, and shows
 * what a visitor sees before they are there, while they move, and of what they lack. One file, with all that it needs but the fonts.
 */
export function visitorPage(page: VisitorPage): string {
  const faces = page.files.map(
    (f, i) =>
      `@font-face { font-family: "visited-${i}"; font-display: swap;${ranges(f)} src: url("${f.address}") format("${FORMAT_NAMES[f.format]}"); }`,
  );
  const data = JSON.stringify({ ...page, files: page.files.map(({ address: _, ...f }) => f) }).replace(/</g, '\\u003c');
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(page.title)}</title>
<style>
${faces.join('\n')}
${VISITOR_STYLE}
</style>
</head>
<body>
<script type="application/json" id="data">${data}</script>
<script>
${VISITOR_SCRIPT}
</script>
</body>
</html>
`;
}

/** What a style sheet has to say of a font that varies, so that its weights and widths can be asked for. */
function ranges({ axes }: VisitedFile): string {
  const of = (tag: string) => axes.find((a) => a.tag === tag);
  const [wght, wdth] = [of('wght'), of('wdth')];
  return `${wght ? ` font-weight: ${wght.minimum} ${wght.maximum};` : ''}${wdth ? ` font-stretch: ${wdth.minimum}% ${wdth.maximum}%;` : ''}`;
}
