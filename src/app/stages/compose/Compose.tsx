import { useEffect, useState } from 'react';
import { layHands } from '../../keys/hands';
import { Choice } from '../../ui/parts';
import { Sets } from './Sets';
import { WithMarks } from './WithMarks';

export type ComposeView = 'marks' | 'sets';
const VIEWS = [
  { value: 'marks', text: 'With marks', hint: 'Letters from a base and marks' },
  { value: 'sets', text: 'Sets', hint: 'Small capitals, figures, fractions and more from letters that are drawn' },
] as const;
/** The view that was open last comes again. */
let last: ComposeView = 'marks';

/** Letters that come from other letters: with marks, and whole sets. */
export default function Compose() {
  const [view, setView] = useState<ComposeView>(last);
  const change = (next: ComposeView) => {
    last = next;
    setView(next);
  };
  useEffect(() => layHands('letters', { view: change }));
  const views = <Choice label="What is composed" value={view} options={VIEWS} onChange={change} />;
  return view === 'marks' ? <WithMarks views={views} /> : <Sets views={views} />;
}
