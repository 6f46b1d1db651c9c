/** Small choices of one who works in this browser; they are no part of a project, and without storage they last as long as the page. */

const here = new Map<string, string>();

/** What was remembered under a key; undefined where nothing was. */
export function recalled(key: string): string | undefined {
  try {
    return localStorage.getItem(key) ?? here.get(key);
  } catch {
    // A browser that keeps nothing throws at the mere question.
    return here.get(key);
  }
}

/** Remembers a choice; undefined forgets it. */
export function remember(key: string, value: string | undefined): void {
  if (value === undefined) here.delete(key);
  else here.set(key, value);
  try {
    if (value === undefined) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // It is remembered by the page.
  }
}
