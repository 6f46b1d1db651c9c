import { ChevronDown, TriangleAlert, X } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { useState } from 'react';
import type { StyleNames } from '../../core/fontfacts/names';
import type { Naming } from '../../core/fontnames/rename';
import type { NamedFile } from '../../workers/names';
import { Pick } from '../ui/controls';
import { NumberField, TextField } from '../ui/parts';

/** What the designer typed for one file; the rest follows by rule. */
export type Typed = Partial<
  Pick<
    Naming,
    | 'style'
    | 'postScriptName'
    | 'fullName'
    | 'linkedFamily'
    | 'linkedStyle'
    | 'weightClass'
    | 'widthClass'
    | 'version'
    | 'uniqueID'
  >
>;

/** One file: what it says now, what contradicts what, and what it will say. */
export function FontCard({
  file,
  typed,
  names,
  faults,
  onType,
  onRemove,
}: {
  file: NamedFile;
  typed: Typed;
  names: StyleNames | undefined;
  /** What would be wrong with the new names. */
  faults: readonly string[];
  onType: (change: Typed | undefined) => void;
  onRemove: () => void;
}) {
  const { facts } = file;
  const [open, setOpen] = useState(false);
  return (
    <Collapsible.Root asChild open={open} onOpenChange={setOpen}>
      <li className="rounded-xl border border-line bg-panel px-5 py-4" data-testid="font-card">
        <div className="mb-3 flex items-baseline gap-3">
          <h2 className="font-semibold">{file.name}</h2>
          {facts.axes.length > 0 && <p className="text-quiet">varies by {facts.axes.join(', ')}</p>}
          <button
            type="button"
            aria-label={`Take ${file.name} from the list`}
            className="ml-auto self-center rounded-md p-1 text-quiet hover:bg-kelp-tint"
            onClick={onRemove}
          >
            <X size={15} />
          </button>
        </div>
        {file.contradictions.length > 0 && (
          <ul aria-label="Contradictions" className="mb-3 space-y-1 text-marigold">
            {file.contradictions.map((c) => (
              <li key={c} className="flex items-start gap-1.5">
                <TriangleAlert size={14} className="mt-0.5 shrink-0" /> {c}
              </li>
            ))}
          </ul>
        )}
        {faults.length > 0 && (
          <ul aria-label="Faults" role="alert" className="mb-3 space-y-1 text-brick">
            {faults.map((f) => (
              <li key={f}>✕ {f}</li>
            ))}
          </ul>
        )}
        <div className="grid grid-cols-[170px_230px_180px_1fr_auto] items-end gap-4">
          <label>
            <span className="mb-1 block text-quiet">Style</span>
            <TextField value={typed.style ?? facts.style ?? ''} onChange={(e) => onType({ style: e.target.value })} />
          </label>
          <TextLine name="postScriptName" typed={typed} names={names} onType={onType} />
          <NumberField
            label="Weight class"
            value={names?.weightClass}
            onChange={(v) => onType({ weightClass: Math.max(1, Math.min(1000, Math.round(v))) })}
          />
          {names && (
            <p className="min-w-0 pb-1 leading-snug">
              <span className="font-semibold">{names.fullName}</span>
              <br />
              <span className="text-quiet">
                links as {names.linkedFamily} {names.linkedStyle}
              </span>
            </p>
          )}
          <Collapsible.Trigger className="flex items-center gap-1 rounded-md px-1.5 py-1 text-kelp hover:bg-kelp-tint">
            All names <ChevronDown size={15} className={open ? 'rotate-180' : ''} />
          </Collapsible.Trigger>
        </div>
        <Collapsible.Content>
          <AllNames typed={typed} names={names} onType={onType} />
        </Collapsible.Content>
      </li>
    </Collapsible.Root>
  );
}

const LINKED: readonly StyleNames['linkedStyle'][] = ['Regular', 'Italic', 'Bold', 'Bold Italic'];
const TITLES = {
  postScriptName: 'PostScript name',
  fullName: 'Full name',
  linkedFamily: 'Linked family',
  uniqueID: 'Unique name',
  version: 'Version',
} as const;

type NamesOfFile = { typed: Typed; names: StyleNames | undefined; onType: (change: Typed | undefined) => void };

/** The names that seldom need a word of one's own. */
function AllNames({ typed, names, onType }: NamesOfFile) {
  return (
    <div
      className="mt-3 grid grid-cols-[1fr_230px_180px] items-end gap-x-4 gap-y-3 border-t border-line pt-3"
      data-testid="all-names"
    >
      <TextLine name="fullName" typed={typed} names={names} onType={onType} />
      <TextLine name="linkedFamily" typed={typed} names={names} onType={onType} />
      <div>
        <span className="mb-1 block text-quiet">Linked style</span>
        <Pick
          label="Linked style"
          value={names?.linkedStyle ?? 'Regular'}
          options={LINKED.map((style) => ({ value: style, text: style }))}
          onChange={(linkedStyle) => onType({ linkedStyle })}
        />
      </div>
      <TextLine name="uniqueID" typed={typed} names={names} onType={onType} />
      <TextLine name="version" typed={typed} names={names} onType={onType} />
      <NumberField
        label="Width class"
        value={names?.widthClass}
        onChange={(v) => onType({ widthClass: Math.max(1, Math.min(9, Math.round(v))) })}
      />
      {Object.keys(typed).length > 0 && (
        <button
          type="button"
          className="col-span-3 justify-self-start text-kelp hover:underline"
          onClick={() => onType(undefined)}
        >
          Let all names of this file follow the rule again
        </button>
      )}
    </div>
  );
}

/** One name: what follows by rule until something else is typed; an emptied field follows again. */
function TextLine({ name, typed, names, onType }: NamesOfFile & { name: keyof typeof TITLES }) {
  return (
    <label className="min-w-0">
      <span className="mb-1 block text-quiet">{TITLES[name]}</span>
      <TextField
        value={typed[name] ?? names?.[name] ?? ''}
        onChange={(e) => onType({ [name]: e.target.value })}
        onBlur={(e) => e.target.value.trim() === '' && onType({ [name]: undefined })}
      />
    </label>
  );
}
