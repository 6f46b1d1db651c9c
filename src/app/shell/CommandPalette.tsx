import { Command as Menu } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { codePointForm } from '../../core/base/notation';
import { findGlyphs, pairTyped } from '../../core/project/findGlyphs';
import type { Glyph } from '../../core/project/model';
import { COMMANDS, runFromAnywhere } from '../commands/all';
import { type Command, titleOf } from '../keys/command';
import { hands } from '../keys/hands';
import { shownKeys } from '../keys/keys';
import { useScope } from '../keys/scopes';
import { chooseGlyph, useBench } from '../state/bench';
import type { StageKey } from '../state/stages';
import { GlyphShape } from '../ui/GlyphShape';
import { Key } from '../ui/parts';

/** Commands whose words all hold what was typed; those of the hand alone are not offered. */
function offeredFor(typed: string): Command[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return COMMANDS.filter((c) => {
    const title = `${c.group} ${titleOf(c)}`.toLowerCase();
    return !c.onlyKeys && words.every((w) => title.includes(w));
  });
}

/** Does what was typed begin a word of a command's title, and no glyph's name or character? Then commands come first. */
function meansCommand(typed: string, glyphs: readonly Glyph[], offered: readonly Command[]): boolean {
  const start = typed.trim().toLowerCase();
  const begins = (text: string) => text.toLowerCase().startsWith(start);
  return (
    start.length > 1 &&
    !glyphs.some((g) => begins(g.name) || g.unicodes.some((c) => begins(codePointForm(c)))) &&
    offered.some((c) => titleOf(c).split(/\s+/).some(begins))
  );
}

/**
 * Finds glyphs and commands by a few letters. A glyph opens in the stage one is in, from Plan and Cast in Draw; in Kern it
 * becomes a letter of the pair, and two letters are a pair.
 */
export function CommandPalette({ open, onClose, stage }: { open: boolean; onClose: () => void; stage: StageKey }) {
  const navigate = useNavigate();
  const project = useBench((s) => s.settled)!;
  const projectId = useBench((s) => s.projectId);
  const master = useBench((s) => s.master);
  const [typed, setTyped] = useState('');
  const glyphs = useMemo(() => (open ? findGlyphs(project, typed) : []), [open, project, typed]);
  const offered = useMemo(() => (open ? offeredFor(typed) : []), [open, typed]);
  const commandsFirst = meansCommand(typed, glyphs, offered);
  const pair = useMemo(() => {
    const found = open && stage === 'kern' ? pairTyped(project, typed) : undefined;
    return found && 'glyphs' in found ? found.glyphs : undefined;
  }, [open, stage, project, typed]);
  const firstPair = pair && `pair ${pair[0].id} ${pair[1].id}`;
  const firstGlyph = glyphs[0] && `glyph ${glyphs[0].id}`;
  const firstCommand = offered[0] && `command ${offered[0].id}`;
  const first = firstPair ?? (commandsFirst ? firstCommand : (firstGlyph ?? firstCommand)) ?? '';
  const [chosen, setChosen] = useState('');
  const list = useRef<HTMLDivElement>(null);
  // With every letter typed the first answer is the chosen one, in sight.
  useLayoutEffect(() => {
    setChosen(first);
    if (list.current) list.current.scrollTop = 0;
  }, [first]);
  useScope([], { closed: true, on: open });
  const close = () => {
    setTyped('');
    onClose();
  };
  const go = (glyph: Glyph) => {
    close();
    chooseGlyph(glyph.id);
    const target = stage === 'plan' || stage === 'cast' ? 'draw' : stage;
    void navigate(`/p/${projectId}/${target}?glyph=${encodeURIComponent(glyph.name)}`);
  };
  const row = 'flex items-center gap-3 rounded-lg px-2 py-1.5 data-[selected=true]:bg-kelp-tint';
  const heading =
    '[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[12.5px] [&_[cmdk-group-heading]]:text-quiet';
  const show = (pair: { first?: string; second?: string }) => {
    close();
    hands.kern?.show(pair);
  };
  const shape = (g: Glyph) => <GlyphShape project={project} glyph={g} master={master} size={30} />;
  const group = (key: string, title: string, choose: (g: Glyph) => void) => (
    <Menu.Group key={key} heading={title} className={heading}>
      {glyphs.map((g) => (
        <Menu.Item key={g.id} value={`${key} ${g.id}`} onSelect={() => choose(g)} className={row}>
          {shape(g)}
          <span>{g.name}</span>
          <span className="ml-auto text-quiet">{g.unicodes.map(codePointForm).join(' ')}</span>
        </Menu.Item>
      ))}
    </Menu.Group>
  );
  const glyphGroup =
    glyphs.length > 0 &&
    (stage === 'kern'
      ? [
          group('glyph', 'As the first letter of the pair', (g) => show({ first: g.id })),
          group('second', 'As the second letter of the pair', (g) => show({ second: g.id })),
        ]
      : group('glyph', 'Glyphs', go));
  const pairGroup = pair && (
    <Menu.Group key="pair" heading="Pair" className={heading}>
      <Menu.Item value={firstPair!} onSelect={() => show({ first: pair[0].id, second: pair[1].id })} className={row}>
        {shape(pair[0])}
        {shape(pair[1])}
        <span>
          {pair[0].name} and {pair[1].name}
        </span>
      </Menu.Item>
    </Menu.Group>
  );
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const scripts = open
    ? project.scripts.filter((s) => words.every((w) => `script ${s.name}`.toLowerCase().includes(w)))
    : [];
  const scriptGroup = words.length > 0 && scripts.length > 0 && (
    <Menu.Group key="scripts" heading="Scripts of this project" className={heading}>
      {scripts.map((s) => (
        <Menu.Item
          key={s.id}
          value={`script ${s.id}`}
          onSelect={() => {
            close();
            void navigate(`/p/${projectId}/scripts?script=${encodeURIComponent(s.id)}`);
          }}
          className={row}
        >
          <span>{s.name}</span>
        </Menu.Item>
      ))}
    </Menu.Group>
  );
  const commandGroup = offered.length > 0 && (
    <Menu.Group key="commands" heading="Commands" className={heading}>
      {offered.map((c) => (
        <Menu.Item
          key={c.id}
          value={`command ${c.id}`}
          onSelect={() => {
            close();
            runFromAnywhere(c);
          }}
          className={row}
        >
          <span>{titleOf(c)}</span>
          {shownKeys(c) && (
            <span className="ml-auto">
              <Key>{shownKeys(c)}</Key>
            </span>
          )}
        </Menu.Item>
      ))}
    </Menu.Group>
  );
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[10vh] left-1/2 z-50 w-[560px] max-w-[94vw] -translate-x-1/2 rounded-xl border border-line bg-panel shadow-xl"
        >
          <Dialog.Title className="sr-only">Find a glyph or a command</Dialog.Title>
          <Menu shouldFilter={false} label="Find a glyph or a command" loop value={chosen} onValueChange={setChosen}>
            <Menu.Input
              autoFocus
              value={typed}
              onValueChange={setTyped}
              placeholder="A character, glyph name, code point or command"
              className="h-12 w-full rounded-t-xl border-b border-line bg-transparent px-4 text-[16px] outline-none placeholder:text-quiet"
            />
            <Menu.List ref={list} className="max-h-[54vh] overflow-auto p-2">
              <Menu.Empty className="px-2 py-3 text-quiet">Nothing answers to “{typed}”.</Menu.Empty>
              {pairGroup}
              {commandsFirst ? [commandGroup, glyphGroup] : [glyphGroup, commandGroup]}
              {scriptGroup}
            </Menu.List>
          </Menu>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
