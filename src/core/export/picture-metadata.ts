/** What travels inside an exported picture. */
export interface PictureMetadata {
  readonly title: string;
  readonly altText: string;
  /** Who is to be named, e.g. the photographer and the brand. */
  readonly credit: string;
  readonly licence: string;
}

/** Metadata of a piece and of the pictures it shows: every credit and licence once. */
export function gatherMetadata(title: string, altText: string, pictures: readonly { readonly credit: string; readonly licence: string }[]): PictureMetadata {
  const once = (texts: readonly string[]): string => [...new Set(texts.map((text) => text.trim()).filter((text) => text !== ''))].join('; ');
  return { title, altText, credit: once(pictures.map((picture) => picture.credit)), licence: once(pictures.map((picture) => picture.licence)) };
}

/**
 * Metadata as an XMP packet (ISO 16684-1) with Dublin Core properties and the alt text of the IPTC Photo Metadata Standard, which
 * picture programs and screen readers look for.
 * @see https://www.iptc.org/std/photometadata/specification/IPTC-PhotoMetadata
 */
export function toXmp({ title, altText, credit, licence }: PictureMetadata): string {
  const alternative = (name: string, text: string): string => (text === '' ? '' : `<${name}><rdf:Alt><rdf:li xml:lang="x-default">${escapeXml(text)}</rdf:li></rdf:Alt></${name}>`);
  const properties = [
    alternative('dc:title', title),
    alternative('dc:description', altText),
    alternative('Iptc4xmpCore:AltTextAccessibility', altText),
    alternative('dc:rights', licence),
    credit === '' ? '' : `<dc:creator><rdf:Seq>${credit.split('; ').map((name) => `<rdf:li>${escapeXml(name)}</rdf:li>`).join('')}</rdf:Seq></dc:creator>`,
  ];
  return `<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">${properties.join('')}</rdf:Description></rdf:RDF><?xpacket end="w"?>`;
}

/** A text inside XML: what has a meaning there is written as an entity, what may not be there is left out. */
export function escapeXml(text: string): string {
  return text
    // The very characters that XML forbids.
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}
