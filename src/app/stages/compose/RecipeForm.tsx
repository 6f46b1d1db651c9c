import { Plus, Trash2 } from 'lucide-react';
import { type FormEvent, useState } from 'react';
import { ANCHOR_NAMES } from '../../../core/composing/marks';
import { dropRecipe, ownRecipeOf, setRecipe } from '../../../core/composing/ownRecipes';
import { recipeOf } from '../../../core/composing/recipes';
import { nameOf } from '../../../core/composing/workbench';
import { glyphTyped } from '../../../core/project/findGlyphs';
import type { Project } from '../../../core/project/model';
import { glyphForCodePoint } from '../../../core/project/queries';
import { run, say, useBench } from '../../state/bench';
import { Pick } from '../../ui/controls';
import { Button, IconButton, TextField } from '../../ui/parts';

type Part = { key: number; glyph: string; anchor: string };
type Draft = { glyph: string; base: string; parts: Part[] };

const BESIDE = 'beside';
let keys = 0;
const part = (glyph = '', anchor = ''): Part => ({ key: ++keys, glyph, anchor: anchor === '' ? BESIDE : anchor });

/** The recipe that holds for a glyph just now, as names. */
function drafted(project: Project, name: string, code: number | undefined): Draft {
  const own = ownRecipeOf(project, name);
  if (own) return { glyph: name, base: own.base, parts: own.parts.map((p) => part(p.glyph, p.anchor)) };
  const recipe = code === undefined ? undefined : recipeOf(code);
  const called = (c: number) => glyphForCodePoint(project, c)?.name ?? nameOf(c);
  if (!recipe) return { glyph: name, base: '', parts: [part('', 'top')] };
  return {
    glyph: name,
    base: called(recipe.base),
    parts: [
      ...recipe.marks.map((m) => part(called(m.mark), m.anchor)),
      ...(recipe.beside ?? []).map((c) => part(called(c))),
    ],
  };
}

/** What a glyph is put together from, to be written otherwise: for the glyph at hand, or for one that is named. */
export function RecipeForm({ name, code }: { name?: string; code?: number }) {
  const project = useBench((s) => s.settled)!;
  const [draft, setDraft] = useState(() => drafted(project, name ?? '', code));
  const own = ownRecipeOf(project, draft.glyph);
  const before = code === undefined ? undefined : recipeOf(code)?.before;
  const anchors = [...new Set([BESIDE, ...ANCHOR_NAMES, ...draft.parts.map((p) => p.anchor)])].map((a) => ({
    value: a,
    text: a === BESIDE ? 'beside it' : `at ${a}`,
  }));
  const change = (key: number, to: Partial<Part>) =>
    setDraft({ ...draft, parts: draft.parts.map((p) => (p.key === key ? { ...p, ...to } : p)) });
  const named = (typed: string) => glyphTyped(project, typed)?.name ?? typed.trim();
  const keep = (e: FormEvent) => {
    e.preventDefault();
    const recipe = {
      glyph: named(draft.glyph),
      base: named(draft.base),
      parts: draft.parts.map((p) => ({ glyph: named(p.glyph), anchor: p.anchor === BESIDE ? '' : p.anchor })),
    };
    if (run((p) => setRecipe(p, recipe))) say(useBench.getState().history.done.at(-1)?.sentence ?? '');
  };
  const empty = draft.glyph.trim() === '' || draft.base.trim() === '' || draft.parts.some((p) => p.glyph.trim() === '');
  if (before)
    return (
      <p className="text-quiet">
        {draft.base} with {before.map((m) => `◌${String.fromCodePoint(m)}`).join(' ')} before it, at the height of
        capitals.
      </p>
    );
  return (
    <form onSubmit={keep} className="grid gap-1.5">
      {name === undefined && (
        <TextField
          aria-label="Glyph that is put together"
          placeholder="glyph: a character or a name"
          value={draft.glyph}
          onChange={(e) => setDraft({ ...draft, glyph: e.target.value })}
        />
      )}
      <TextField
        aria-label="Base"
        placeholder="base"
        value={draft.base}
        onChange={(e) => setDraft({ ...draft, base: e.target.value })}
      />
      {draft.parts.map((p, i) => (
        <div key={p.key} className="flex items-center gap-1">
          <span className="min-w-0 flex-1">
            <TextField
              aria-label={`Part ${i + 1}`}
              placeholder="mark or letter"
              value={p.glyph}
              onChange={(e) => change(p.key, { glyph: e.target.value })}
            />
          </span>
          <Pick
            label={`Where part ${i + 1} stands`}
            className="w-24 shrink-0"
            value={p.anchor}
            options={anchors}
            onChange={(anchor) => change(p.key, { anchor })}
          />
          {draft.parts.length > 1 && (
            <IconButton
              label={`Leave part ${i + 1} out`}
              onClick={() => setDraft({ ...draft, parts: draft.parts.filter((q) => q !== p) })}
            >
              <Trash2 size={14} />
            </IconButton>
          )}
        </div>
      ))}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => setDraft({ ...draft, parts: [...draft.parts, part('', 'top')] })}>
          <Plus size={14} /> Part
        </Button>
        <Button type="submit" disabled={empty} title="Kept with the project; what is drawn is not touched">
          Keep this recipe
        </Button>
        {own && name !== undefined && (
          <Button
            onClick={() => {
              if (!run((p) => dropRecipe(p, { glyph: name }))) return;
              setDraft(drafted(useBench.getState().settled!, name, code));
            }}
          >
            {code !== undefined && recipeOf(code) ? 'Back to that of its character' : 'Take it away'}
          </Button>
        )}
      </div>
    </form>
  );
}
