/** What the keys do while points, handles or contours are chosen or held. */

export const IDLE_HINTS = [
  ['Double click', 'turns a point, or adds one on the outline'],
  ['L', 'line or curve'],
  ['Alt drag', 'sweeps handles too'],
] as const;
export const CHOSEN_HINTS = [
  ['C', 'corner or smooth'],
  ['Arrows', 'nudge'],
  ['Delete', 'keeps the shape'],
  ['Tab', 'next point'],
] as const;
export const POINT_HINTS = [
  ['Shift', 'level, upright, diagonal'],
  ['Alt', 'leaves the handles'],
  ['Ctrl', 'glides, the shape stays'],
  ['F', 'no snapping'],
  ['Esc', 'lets go'],
] as const;
export const WHOLE_HINTS = [
  ['Shift', 'level, upright, diagonal'],
  ['Alt', 'drags a copy'],
  ['F', 'no snapping'],
  ['Esc', 'lets go'],
] as const;
export const HANDLE_HINTS = [
  ['Shift', 'level, upright, diagonal'],
  ['Alt', 'both handles alike'],
  ['Ctrl', 'parts the handles'],
  ['Esc', 'lets go'],
] as const;
