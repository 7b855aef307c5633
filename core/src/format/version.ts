/** Newest version of the board file this Cadenza reads and the one it writes: the form of everything that is stored as a document. */
export const BOARD_FILE_VERSION = 16;
