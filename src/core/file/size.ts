/** How large a file of others may be, in bytes. */
export const MOST_FILE_BYTES = 10 * 1024 * 1024;

/** What is said of a larger one. */
export const FILE_TOO_LARGE = 'This file is larger than 10 MB. Make it smaller and choose it again.';
