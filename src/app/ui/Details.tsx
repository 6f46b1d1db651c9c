import type { ReactNode } from 'react';

/** The column beside a workspace: a sentence on what is selected, then only what applies to it. */
export function Details({ heading, sub, children }: { heading: string; sub?: ReactNode; children?: ReactNode }) {
  return (
    <aside
      aria-label="Details"
      className="w-[264px] shrink-0 overflow-y-auto max-[760px]:w-[200px] border-l border-line bg-panel px-4 py-3.5"
    >
      <h2 className="text-[15px] leading-5 font-semibold">{heading}</h2>
      <p className="mb-3.5 text-[13px] text-quiet">{sub}</p>
      {children}
    </aside>
  );
}
