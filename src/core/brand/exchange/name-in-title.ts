/** What parts a title: a bar, a dot, a spaced dash, a colon. */
const PARTING = / ?[|·•] ?| [-–—] |: /u;
/** What a start page is called in its own title, in the languages that brands write in. */
const START = /^(?:home(?:page)?|start(?:seite)?|willkommen|welcome|accueil|bienvenue|inicio|bienvenidos|benvenuti|página inicial|strona główna)$/iu;

const spaced = (text: string): string => text.normalize('NFC').replace(/\s+/gu, ' ').trim();
const folded = (text: string): string => spaced(text).toLocaleLowerCase();

/**
 * The brand's name in the title of its page, which mostly says more: "Name: what it does", "Home | Name".
 * @param pictured what the pictures of the page stand for; a mark mostly stands for the name
 */
export function nameInTitle(title: string, pictured: readonly string[]): string {
  const parts = spaced(title).split(PARTING).filter((part) => part !== '');
  const marks = new Set(pictured.map(folded));
  return (parts.find((part) => marks.has(folded(part))) ?? parts.find((part) => !START.test(part)) ?? spaced(title));
}
