import { addTo } from '../base/grouping';
import { WEIGHTS, WIDTHS } from '../fontfacts/names';
import type { FontFacts } from './facts';

/** What in a font's names contradicts something else in it, a sentence each. */
export function contradictionsIn(f: FontFacts): string[] {
  const out: string[] = [];
  const style = f.style ?? '';
  const say = (wrong: boolean, sentence: string) => {
    if (wrong) out.push(sentence);
  };
  const meant =
    WEIGHTS.find(([word]) => word.test(style))?.[1] ??
    (/^\s*((regular|roman|book|normal|italic|oblique)\s*)*$/i.test(style) ? 400 : undefined);
  const variable = f.axes.length > 0;
  say(
    meant !== undefined && !variable && Math.abs(meant - f.weightClass) >= 100,
    `The style is “${style}”, but the weight class is ${f.weightClass}; ${meant} is usual.`,
  );
  const width = WIDTHS.find(([word]) => word.test(style))?.[1];
  say(
    width !== undefined && !variable && width !== f.widthClass,
    `The style is “${style}”, but the width class is ${f.widthClass}; ${width} is usual.`,
  );
  const leans = /\b(italic|oblique)\b/i.test(style);
  say(leans && !f.isItalic, `The style is “${style}”, but the font is not marked as italic.`);
  say(!leans && f.isItalic, `The font is marked as italic, but the style is “${style}”.`);
  say(f.slope !== 0 && !f.isItalic, `The letters lean by ${Math.abs(f.slope)}°, but the font is not marked as italic.`);
  say(
    f.isBold !== f.macBold || f.isItalic !== f.macItalic,
    'The head and OS/2 tables do not agree on bold and italic.',
  );
  say(f.isRegular && (f.isBold || f.isItalic), 'The font is marked as regular and as bold or italic at once.');
  const linked = f.linkedStyle ?? '';
  say(
    !/^(regular|italic|bold|bold italic)$/i.test(linked),
    `The style of the four-style family is “${linked}”; only Regular, Italic, Bold and Bold Italic can be linked.`,
  );
  say(
    /bold/i.test(linked) !== f.isBold && /^(regular|italic|bold|bold italic)$/i.test(linked),
    `The style links as “${linked}”, but the font is ${f.isBold ? '' : 'not '}marked as bold.`,
  );
  say(
    /italic/i.test(linked) !== f.isItalic && /^(regular|italic|bold|bold italic)$/i.test(linked),
    `The style links as “${linked}”, but the font is ${f.isItalic ? '' : 'not '}marked as italic.`,
  );
  const ps = f.postScriptName;
  if (ps === undefined) out.push('The font has no PostScript name.');
  else {
    say(
      /[^\x21-\x7e]/.test(ps) || /[[\](){}<>/%]/.test(ps),
      `The PostScript name “${ps}” has characters that are not allowed.`,
    );
    say(ps.length > 63, `The PostScript name is ${ps.length} characters long; 63 are allowed.`);
  }
  say(f.family === undefined, 'The font has no family name.');
  say(
    (f.typographicFamily === undefined) !== (f.typographicStyle === undefined),
    'Only one of typographic family and style is there; they belong together.',
  );
  const number = /(\d+\.\d+)/.exec(f.version ?? '')?.[1];
  say(
    number !== undefined && Math.abs(Number(number) - f.revision) > 0.0015,
    `The version is “${f.version}”, but the font's revision is ${f.revision.toFixed(3)}.`,
  );
  return out;
}

/** What files of one family contradict in each other: per file the sentences, in the files' order. */
export function contradictionsBetween(files: readonly FontFacts[]): string[][] {
  const out: string[][] = files.map(() => []);
  const clash = (key: (f: FontFacts) => string | undefined, sentence: (f: FontFacts) => string) => {
    const seen = new Map<string, number[]>();
    files.forEach((f, i) => {
      const k = key(f);
      if (k !== undefined) addTo(seen, k, i);
    });
    for (const same of seen.values()) if (same.length > 1) for (const i of same) out[i]!.push(sentence(files[i]!));
  };
  clash(
    (f) => (f.family === undefined ? undefined : `${f.family}\n${f.style}\n${f.axes.join()}`),
    (f) => `Another file is “${f.family} ${f.style ?? ''}” too.`,
  );
  clash(
    (f) => f.postScriptName,
    (f) => `Another file has the PostScript name “${f.postScriptName}” too.`,
  );
  clash(
    (f) => (f.linkedFamily === undefined ? undefined : `${f.linkedFamily}\n${f.linkedStyle}\n${f.axes.join()}`),
    (f) => `Another file links as “${f.linkedFamily} ${f.linkedStyle ?? ''}” too.`,
  );
  return out;
}
