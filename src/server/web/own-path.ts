/**
 * Where signing in leads: the wanted address where it is one of our own pages, else the start. It is read as browsers read it, which drop
 * tabs and line ends and take `\` for `/`; an address that leads elsewhere would make the sign-in page a lure.
 */
export function ownPath(wanted: string | null, origin: string): string {
  if (!wanted?.startsWith('/')) return '/';
  const read = URL.canParse(wanted, origin) ? new URL(wanted, origin) : null;
  return read?.origin === origin ? `${read.pathname}${read.search}${read.hash}` : '/';
}
