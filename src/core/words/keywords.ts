/** Keywords of a text in which they are parted by commas, semicolons or lines; each once, whatever its case. */
export function readKeywords(text: string): readonly string[] {
  const words = text.split(/[,;\n]/u).map((word) => word.trim()).filter((word) => word !== '');
  return [...new Map(words.map((word) => [word.toLowerCase(), word])).values()];
}
