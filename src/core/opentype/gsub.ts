/** The lookup type of GSUB that only points further. */
export const GSUB_EXTENSION = 7;
