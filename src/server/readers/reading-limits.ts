const MEGABYTE = 1024 * 1024;

// Whoever receives a file needs its limit, and not the library that reads it.
export const MAX_SHEET_BYTES = 12 * MEGABYTE;
export const MAX_DOCUMENT_BYTES = 20 * MEGABYTE;
export const MAX_FEED_BYTES = 5 * MEGABYTE;
/** Larger typefaces are collections for whole scripts; the shelf has those. */
export const MAX_TYPEFACE_BYTES = 12 * MEGABYTE;
