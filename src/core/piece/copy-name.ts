const MAX_TITLE = 120;

/** `Big Blow copy`, `Big Blow copy 2`, and so on; or with another word than “copy”. */
export function copyName(name: string, word: 'copy' | 'version' = 'copy'): string {
  const [, first = name, count] = new RegExp(`^(.*) ${word}(?: (\\d{1,4}))?$`, 'su').exec(name) ?? [];
  const ending = first === name ? ` ${word}${word === 'version' ? ' 2' : ''}` : ` ${word} ${Number(count ?? 1) + 1}`;
  return `${first.slice(0, MAX_TITLE - ending.length)}${ending}`;
}
