import type { StyleNames } from '../fontfacts/names';

/** What would be wrong with the names that files are to get: per file the sentences; none for a file that is right. */
export function plannedFaults(planned: Readonly<Record<string, StyleNames>>): Record<string, string[]> {
  const files = Object.entries(planned);
  return Object.fromEntries(
    files.map(([file, names]) => {
      const others = files.filter(([other]) => other !== file);
      const same = (of: (n: StyleNames) => string) => others.find(([, n]) => of(n) === of(names))?.[0];
      const out: string[] = [];
      const twin = same((n) => n.postScriptName.toLowerCase());
      if (twin)
        out.push(
          `Programs would take it and ${twin} for one font: both have the PostScript name “${names.postScriptName}”.`,
        );
      const style = same((n) => `${n.family}\n${n.style}`);
      if (style && style !== twin) out.push(`It and ${style} would both be ${names.family} ${names.style}.`);
      const linked = same((n) => `${n.linkedFamily}\n${n.linkedStyle}`);
      if (linked && linked !== style && linked !== twin)
        out.push(`It and ${linked} would both be the ${names.linkedStyle} of “${names.linkedFamily}”.`);
      const fault = postScriptFault(names.postScriptName);
      if (fault) out.push(fault);
      return [file, out];
    }),
  );
}

/** Why a PostScript name is none, or undefined: printable ASCII without blanks and the ten delimiters, at most 63 characters. */
export function postScriptFault(name: string): string | undefined {
  if (name === '') return 'A font needs a PostScript name.';
  if (name.length > 63) return `The PostScript name is ${name.length} characters long; 63 are allowed.`;
  const bad = [...new Set([...name].filter((c) => !/[\x21-\x7e]/.test(c) || '[](){}<>/%'.includes(c)))];
  return bad.length === 0
    ? undefined
    : `A PostScript name cannot have ${bad.map((c) => (c === ' ' ? 'a blank' : `“${c}”`)).join(', ')}.`;
}
