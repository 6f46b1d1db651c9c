import { checkFont } from '../casting/checks';
import { type Finding, finding, type KindFacts } from './finding';

export const FILE_KINDS: readonly KindFacts[] = [
  {
    kind: 'files/table',
    family: 'files',
    title: 'Tables of font files',
    severity: 'error',
    why: 'Installers and browsers refuse a font whose tables are missing or contradict each other.',
  },
];

/** What installers and browsers would refuse in a finished font file. */
export const fileFindings = (bytes: Uint8Array): Finding[] =>
  checkFont(bytes).flatMap((f) => (f.severity === 'fine' ? [] : [finding('files/table', `${f.title}: ${f.reason}`)]));
