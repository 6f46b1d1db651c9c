import type { Severity } from '../../../core/base/result';

const SIGNS: Readonly<Record<Severity, { sign: string; className: string; said: string }>> = {
  error: { sign: '■', className: 'text-brick', said: 'Error' },
  attention: { sign: '▲', className: 'text-marigold', said: 'To look at' },
  note: { sign: '●', className: 'text-quiet', said: 'Note' },
};

/** How bad a finding is, as a sign of its own shape and colour. */
export function SeveritySign({ severity }: { severity: Severity }) {
  const { sign, className, said } = SIGNS[severity];
  return (
    <span role="img" aria-label={said} title={said} className={`text-[11px] ${className}`}>
      {sign}
    </span>
  );
}
