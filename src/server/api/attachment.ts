import contentDisposition from 'content-disposition';

/** A content-disposition that saves the response under a name, whatever letters are in it (RFC 6266). */
export function attachment(name: string): string {
  return contentDisposition(name);
}
