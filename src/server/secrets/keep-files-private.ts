const OTHERS = 0o077;

/** Files that this process makes are for its own user alone: pictures not out yet, the database, tokens. */
export function keepFilesPrivate(): void {
  process.umask(OTHERS);
}
