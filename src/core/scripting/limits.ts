/** How much memory a script may take where nothing else is said, in megabytes. */
export const USUAL_MEGABYTES = 384;
