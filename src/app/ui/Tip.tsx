import { Tooltip } from 'radix-ui';
import { cloneElement, type ReactElement, useEffect, useState } from 'react';

/** Where the words of a tip stand on an element. */
const ATTRIBUTE = 'data-tip';

/** A short explanation by the pointer or the focus; one layer shows those of all elements. */
export function Tip({ text, children }: { text: string | undefined; children: ReactElement }) {
  return text ? cloneElement(children as ReactElement<Record<string, unknown>>, { [ATTRIBUTE]: text }) : children;
}

type Shown = { text: string; box: DOMRect };
/** How long the pointer rests before a tip comes; the next one comes at once while one is shown. */
const DELAY_MS = 500;

/** The one tip of the page: it follows whatever has one under the pointer or the focus. */
export function TipLayer() {
  const [shown, setShown] = useState<Shown>();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let owner: Element | undefined;
    let open = false;
    const hide = () => {
      clearTimeout(timer);
      owner = undefined;
      open = false;
      setShown(undefined);
    };
    const show = (element: Element, after: number) => {
      clearTimeout(timer);
      owner = element;
      timer = setTimeout(() => {
        const text = element.getAttribute(ATTRIBUTE);
        if (!text || !element.isConnected) return hide();
        open = true;
        setShown({ text, box: element.getBoundingClientRect() });
      }, after);
    };
    const over = (e: Event) => {
      const element = e.target instanceof Element ? (e.target.closest(`[${ATTRIBUTE}]`) ?? undefined) : undefined;
      if (element === owner) return;
      if (element) show(element, open ? 0 : DELAY_MS);
      else hide();
    };
    const focus = (e: FocusEvent) => {
      if (e.target instanceof Element && e.target.matches(':focus-visible')) over(e);
    };
    const key = (e: KeyboardEvent) => {
      if (e.key === 'Escape') hide();
    };
    const on = { capture: true, passive: true } as const;
    document.addEventListener('pointerover', over, on);
    document.addEventListener('focusin', focus, on);
    document.addEventListener('pointerdown', hide, on);
    document.addEventListener('focusout', hide, on);
    document.addEventListener('keydown', key, on);
    return () => {
      clearTimeout(timer);
      document.removeEventListener('pointerover', over, on);
      document.removeEventListener('focusin', focus, on);
      document.removeEventListener('pointerdown', hide, on);
      document.removeEventListener('focusout', hide, on);
      document.removeEventListener('keydown', key, on);
    };
  }, []);
  if (!shown) return null;
  const { left, top, width, height } = shown.box;
  return (
    <Tooltip.Provider>
      <Tooltip.Root open>
        <Tooltip.Trigger asChild>
          <span aria-hidden className="pointer-events-none fixed" style={{ left, top, width, height }} />
        </Tooltip.Trigger>
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={5}
            collisionPadding={8}
            className="pointer-events-none z-[60] max-w-[280px] rounded-md bg-ink px-2 py-1 text-[12.5px] leading-4 text-panel"
          >
            {shown.text}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
