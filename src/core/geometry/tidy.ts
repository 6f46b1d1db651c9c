/** Coordinates are kept on a grid of thousandths so that sums of steps come out even; there is no negative zero. */
export const tidy = (v: number): number => Math.round(v * 1000) / 1000 || 0;

/** A coordinate on a grid of so many units; 0 leaves it where it is. */
export const gridded = (v: number, grid: number): number => (grid > 0 ? tidy(Math.round(v / grid) * grid) : v);
