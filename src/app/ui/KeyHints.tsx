import { type Command, titleOf } from '../keys/command';
import { shownKeys } from '../keys/keys';

/** What keys do here just now: commands of the hand, those that can run. */
export function KeyHints({ commands }: { commands: readonly Command[] }) {
  const hints = commands.filter((c) => c.onlyKeys && c.keys && (c.can?.() ?? true));
  return (
    <p className="flex flex-wrap gap-x-3.5 px-5 pb-1.5 text-[12.5px] text-quiet" data-testid="key-hints">
      {hints.map((c) => (
        <span key={c.id}>
          <b className="font-semibold text-ink">{shownKeys(c)}</b>{' '}
          {titleOf(c).charAt(0).toLowerCase() + titleOf(c).slice(1)}
        </span>
      ))}
    </p>
  );
}
