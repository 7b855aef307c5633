/** First line of a backup, by which `restore` knows it. */
export const BACKUP_MARK = '-- Cadenza backup';
