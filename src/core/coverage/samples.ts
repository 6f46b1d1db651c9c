import type { Language } from './languages';

/** A day, whichever; a Monday. */
const DAY = Date.UTC(2026, 4, 4);
const HOURS_24 = 86_400_000;

/**
 * A sentence in a language: a date and the days of the week as it writes and joins them (CLDR, by the platform’s own `Intl`), in its
 * quotation marks. Its letters, in the order of its alphabet, where the platform does not know it or writes it otherwise.
 */
export function sampleOf({ code, letters, quotes }: Language): string {
  const alphabet = letters.join(' ');
  try {
    if (Intl.DateTimeFormat.supportedLocalesOf(code).length === 0) return alphabet;
    const options = { timeZone: 'UTC', calendar: 'gregory', numberingSystem: 'latn' } as const;
    const weekday = new Intl.DateTimeFormat(code, { ...options, weekday: 'long' });
    const days = Array.from({ length: 7 }, (_, i) => weekday.format(DAY + i * HOURS_24));
    const date = new Intl.DateTimeFormat(code, { ...options, dateStyle: 'full' }).format(DAY);
    const [open = '', close = open] = [...quotes];
    return `${open}${date}${close}: ${new Intl.ListFormat(code, { type: 'conjunction' }).format(days)}.`;
  } catch {
    return alphabet;
  }
}

/** The sentence of a language as far as some characters write it: else its alphabet, else nothing. */
export function writtenSample(language: Language, has: (code: number) => boolean): string | undefined {
  const fits = (text: string) => [...text].every((c) => c.trim() === '' || has(c.codePointAt(0)!));
  return [sampleOf(language).normalize('NFC'), language.letters.join(' ')].find(fits);
}
