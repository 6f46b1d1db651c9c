import type { Lib } from '../project/model';

/** A number that the source states about a master, where it fits its 16 bits. */
export const infoNumber = (info: Lib | undefined, key: string): number | undefined => {
  const v = info?.[key];
  return typeof v === 'number' && Math.abs(v) <= 32767 ? Math.round(v) : undefined;
};
