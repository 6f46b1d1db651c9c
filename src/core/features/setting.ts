import type { Setting } from '../project/setting';

/** As a text would have it by itself. */
export const AS_TEXT: Setting = { features: {} };

/** How many things a setting says otherwise than a text would have them. */
export const saidIn = ({ features, script, language, direction }: Setting): number =>
  Object.keys(features).length + [script, language, direction].filter(Boolean).length;

/** Scripts whose OpenType tag is not simply that of ISO 15924 in small letters. */
const ISO: Readonly<Record<string, string>> = {
  DFLT: 'Zyyy',
  'lao ': 'Laoo',
  'nko ': 'Nkoo',
  'vai ': 'Vaii',
  'yi  ': 'Yiii',
  bng2: 'Beng',
  dev2: 'Deva',
  gjr2: 'Gujr',
  gur2: 'Guru',
  knd2: 'Knda',
  mlm2: 'Mlym',
  mym2: 'Mymr',
  ory2: 'Orya',
  tel2: 'Telu',
  tml2: 'Taml',
};

/** The ISO 15924 code of a script by its OpenType tag. */
export function isoScript(tag: string): string {
  const four = tag.padEnd(4);
  return ISO[four] ?? four.charAt(0).toUpperCase() + four.slice(1).toLowerCase();
}

/** Is a language said by the tag that font tables have for it, and not by its code? */
export const isFontTag = (language: string): boolean => /^[A-Z0-9]{3,4}$/.test(language);

/** A setting as a shaper takes it. */
export function asked({ features, script, language, direction }: Setting): {
  features: string[];
  settings: { language?: string; script?: string; direction?: 'ltr' | 'rtl' };
} {
  return {
    features: Object.entries(features).map(([tag, value]) => `${tag}=${value}`),
    settings: {
      // A tag of the font's own tables is handed on as it is.
      ...(language && { language: isFontTag(language) ? `x-hbot${language}` : language }),
      ...(script && { script: isoScript(script) }),
      ...(direction && { direction }),
    },
  };
}
