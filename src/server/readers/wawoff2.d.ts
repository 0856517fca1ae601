declare module 'wawoff2' {
  /** A WOFF2 file as the TTF or OTF it was made of. */
  export function decompress(bytes: Uint8Array): Promise<Uint8Array>;
}
