import { COMMANDS, GESTURES, GROUPS } from '../commands/all';
import { titleOf } from '../keys/command';
import { MOD, shownKeys } from '../keys/keys';
import { Modal } from '../ui/Modal';
import { Key } from '../ui/parts';

type Row = readonly [keys: string, does: string];

function Rows({ title, rows }: { title: string; rows: readonly Row[] }) {
  if (rows.length === 0) return null;
  return (
    <section className="mb-4 break-inside-avoid">
      <h3 className="mb-1 font-semibold">{title}</h3>
      <dl className="grid grid-cols-[max-content_1fr] items-baseline gap-x-3 gap-y-1">
        {rows.map(([keys, does]) => (
          <div key={keys + does} className="contents">
            <dt>
              <Key>{keys}</Key>
            </dt>
            <dd className="text-quiet">{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** Every key there is, on one sheet, made from the commands themselves. */
export function KeySheet({ open, onClose }: { open: boolean; onClose: () => void }) {
  const rows = (group: (typeof GROUPS)[number]): Row[] => [
    ...COMMANDS.flatMap((c): Row[] => {
      const keys = c.group === group ? shownKeys(c) : undefined;
      return keys ? [[keys, titleOf(c)]] : [];
    }),
    ...GESTURES.flatMap((g): Row[] => (g.group === group ? [[g.how.replace('Mod', MOD), g.does]] : [])),
  ];
  return (
    <Modal open={open} onClose={onClose} title="Sheet of keys" wide>
      <div className="columns-2 gap-8 text-[13.5px]">
        {open && GROUPS.map((group) => <Rows key={group} title={group} rows={rows(group)} />)}
      </div>
    </Modal>
  );
}
