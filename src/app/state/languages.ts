import { useQuery } from '@tanstack/react-query';
import { restEvery } from '../../core/base/rest';
import { needsOf } from '../../core/coverage/coverage';
import { type Languages, loadLanguages } from '../../core/coverage/languages';

/** So long may working out what languages need hold up the page at a time, in milliseconds. */
const SLICE = 20;

/** The languages, and what each needs known: worked out in slices, since all at once would be felt. */
async function languagesAtHand(): Promise<Languages> {
  const languages = await loadLanguages();
  const pause = restEvery(SLICE);
  for (const language of languages.all) {
    needsOf(language);
    await pause();
  }
  return languages;
}

/** All languages, loaded when first asked for; `error` where they cannot be had. */
export const useLanguages = (): { data: Languages | undefined; error: unknown } =>
  useQuery({ queryKey: ['languages'], queryFn: languagesAtHand, staleTime: Infinity });
