import { useMemo, useState } from 'react';
import { isUsual } from '../../../core/features/known';
import type { ShownRule } from '../../../core/features/shown';
import type { Project } from '../../../core/project/model';
import { glyphNamed } from '../../../core/project/queries';
import type { Setting } from '../../../core/project/setting';
import { useDrawn } from '../../state/drawn';
import { useSettingChoices } from '../../state/settingChoices';
import { Pick } from '../../ui/controls';
import { Explain, TwoLines } from './TrialLines';

/** Rules that a trial’s text is made from. */
const FIRST = 10;
/** A trial in no language in particular. */
const ANY = 'any';

/** A text in which rules occur: the letters that they replace, with what stands around them. */
function proposedText(project: Project, rules: readonly ShownRule[]): string {
  const words = rules.slice(0, FIRST).map((r) =>
    [...r.back, ...r.before, ...r.ahead]
      .map((n) => {
        const code = glyphNamed(project, n)?.unicodes[0];
        return code === undefined ? '' : String.fromCodePoint(code);
      })
      .join(''),
  );
  const single = rules.every((r) => r.before.length === 1 && r.back.length + r.ahead.length === 0);
  return words.filter(Boolean).join(single ? '' : ' ');
}

/** A section tried out: a text with its features off, and on, one above the other; what changed is marked. */
export function Trial({ id, tags, rules }: { id: string; tags: readonly string[]; rules: readonly ShownRule[] }) {
  const project = useDrawn();
  const choices = useSettingChoices();
  const languages = useMemo(() => [...new Set(rules.flatMap((r) => r.language ?? []))], [rules]);
  const [chosen, setChosen] = useState<string>();
  // Rules of single languages only are tried in the first of them.
  const first = rules.length > 0 && rules.every((r) => r.language) ? languages[0]! : ANY;
  const tag = chosen !== undefined && (chosen === ANY || languages.includes(chosen)) ? chosen : first;
  const proposed = useMemo(() => {
    const own = rules.filter((r) => !r.language || r.language === tag);
    return proposedText(project, own.length > 0 ? own : rules);
  }, [project, rules, tag]);
  const [typed, setTyped] = useState<string>();
  const [form, setForm] = useState('1');
  const text = typed ?? proposed;
  const most = Math.max(1, ...choices.features.flatMap((f) => (tags.includes(f.tag) ? f.most : [])));
  if (tags.length === 0) return null;
  const setting = (value: number): Setting => ({
    features: Object.fromEntries(tags.map((t) => [t, value])),
    ...(tag !== ANY && { language: tag }),
  });
  const on = setting(Math.min(Number(form), most));
  return (
    <div className="mt-2 rounded-lg border border-line bg-paper p-2">
      <input
        aria-label="Text of the trial"
        className="mb-1 h-7 w-full rounded-md border border-line bg-panel px-2"
        value={text}
        spellCheck={false}
        onChange={(e) => setTyped(e.target.value)}
      />
      <div className="flex items-center gap-2">
        <p className="flex-1 text-[12px] text-quiet">
          Above without {tags.join(', ')}, below with
          {tags.every(isUsual) ? '; text uses it without being asked' : '; text uses it when asked'}
        </p>
        {most > 1 && (
          <Pick
            label="Form in the trial"
            className="w-36"
            value={form}
            options={Array.from({ length: most }, (_, i) => ({
              value: String(i + 1),
              text: `Form ${i + 1} of ${most}`,
            }))}
            onChange={setForm}
          />
        )}
        {languages.length > 0 && (
          <Pick
            label="Language of the trial"
            className="w-52"
            value={tag}
            options={[
              { value: ANY, text: 'No language in particular' },
              ...languages.map((l) => ({ value: l, text: `Language ${l}` })),
            ]}
            onChange={setChosen}
          />
        )}
      </div>
      <TwoLines
        id={`trial ${id}`}
        text={text}
        ways={[
          { name: 'Without', setting: setting(0) },
          { name: 'With', setting: on },
        ]}
      />
      <Explain text={text} setting={on} expected={[{ section: id, rules }]} />
    </div>
  );
}
