/** Whether a text has one of the words or phrases that a brand holds back, as whole words, whatever their case. */
export function holdsBack(text: string, heldWords: readonly string[]): boolean {
  const plain = ` ${wordsOf(text)} `;
  return heldWords.some((each) => {
    const wanted = wordsOf(each);
    return wanted !== '' && plain.includes(` ${wanted} `);
  });
}

/** The words of a text in small letters, with single spaces between them. */
export function wordsOf(text: string): string {
  return text.normalize('NFKC').toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ').trim();
}

/** What a new brand holds back; it can change the list. */
export const usualHeldWords: readonly string[] = ['new followers', 'claim your prize', 'from home ask me how'];
