/** Coordinates are kept on a grid of thousandths so that sums of steps come out even; there is no negative zero. */
export const tidy = (v: number): number => Math.round(v * 1000) / 1000 || 0;
