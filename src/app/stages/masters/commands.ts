import type { Command } from '../../keys/command';
import { hands, type MastersView } from '../../keys/hands';

const view = (id: MastersView, title: string, key: string): Command => ({
  id: `masters-${id}`,
  title,
  group: 'Masters',
  stage: 'masters',
  keys: [key],
  can: () => hands.masters !== undefined,
  run: () => hands.masters?.view(id),
});

/** What can be done in Masters. */
export const MASTERS_COMMANDS: readonly Command[] = [
  view('plane', 'Masters and instances at their places', 'KeyP'),
  view('agreement', 'What differs between the masters', 'KeyG'),
  view('between', 'What goes wrong between the masters', 'KeyB'),
  {
    id: 'masters-film',
    title: 'Film between two masters, on or off',
    group: 'Masters',
    stage: 'masters',
    keys: ['KeyF'],
    can: () => hands.strip !== undefined,
    run: () => hands.strip?.film(),
  },
  {
    id: 'masters-watch',
    title: 'Keep the chosen place in sight in other stages, or let it go',
    group: 'Masters',
    stage: 'masters',
    keys: ['KeyW'],
    can: () => hands.sight !== undefined,
    run: () => hands.sight?.watch(),
  },
];
