import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { useScope } from '../keys/scopes';

/** A dialog in the bench's look; Escape and the cross close it. */
export function Modal({
  open,
  onClose,
  title,
  children,
  wide,
  full,
  over,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  children: ReactNode;
  wide?: boolean;
  full?: boolean;
  /** Leaves the lower edge of the window free, where the galley is. */
  over?: boolean;
}) {
  useScope([], { closed: true, on: open });
  return (
    <Dialog.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={`fixed inset-0 z-40 ${over ? 'bottom-44 bg-ink/15' : 'bg-ink/25'}`} />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed ${over ? 'top-2 max-h-[calc(100vh-190px)]' : full ? 'top-[3vh] max-h-[94vh]' : 'top-[8vh] max-h-[86vh]'} left-1/2 z-50 w-[calc(100vw-48px)] -translate-x-1/2 overflow-auto rounded-xl border border-line bg-panel p-5 shadow-xl ${full || over ? 'max-w-[1120px]' : wide ? 'max-w-[760px]' : 'max-w-[480px]'}`}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Dialog.Title className="text-[17px] font-semibold">{title}</Dialog.Title>
            <Dialog.Close aria-label="Close" className="rounded-md p-1 text-quiet hover:bg-kelp-tint">
              <X size={16} />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
