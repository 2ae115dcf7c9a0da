const rootFont = (): number => Number.parseFloat(getComputedStyle(document.documentElement).fontSize);

/** Widths are kept in rem, so that they fit whatever size letters have; a table reckons in pixels. */
export const inPixels = (rem: number): number => rem * rootFont();
/** To half a rem. */
export const inRem = (pixels: number): number => Math.round((2 * pixels) / rootFont()) / 2;
