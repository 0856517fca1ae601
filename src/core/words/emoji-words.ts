import { sentencesOf } from './sentences.ts';

/** Words, by their beginnings, with the emoji that people put beside them. */
const signs: readonly (readonly [string, string])[] = [
  ['kite', '🪁'], ['drachen', '🪁'], ['wind', '💨'], ['storm', '🌬️'], ['sun', '☀️'], ['sonn', '☀️'], ['rain', '🌧️'], ['regen', '🌧️'], ['snow', '❄️'], ['schnee', '❄️'], ['fog', '🌫️'], ['cloud', '☁️'], ['rainbow', '🌈'],
  ['sea', '🌊'], ['wave', '🌊'], ['coast', '🌊'], ['beach', '🏖️'], ['strand', '🏖️'], ['dune', '🏖️'], ['boat', '⛵'], ['sail', '⛵'], ['harbour', '⚓'], ['hafen', '⚓'], ['quay', '⚓'], ['fish', '🐟'], ['gull', '🐦'], ['bird', '🐦'],
  ['bread', '🍞'], ['brot', '🍞'], ['loaf', '🍞'], ['baker', '🥖'], ['bäcker', '🥖'], ['cake', '🍰'], ['kuchen', '🍰'], ['croissant', '🥐'], ['pretzel', '🥨'], ['brezel', '🥨'], ['coffee', '☕'], ['kaffee', '☕'], ['kettle', '🫖'], ['tea', '🍵'], ['soup', '🍲'], ['suppe', '🍲'], ['noodle', '🍜'], ['dumpling', '🥟'], ['food', '🍴'], ['essen', '🍴'], ['pizza', '🍕'], ['wine', '🍷'], ['beer', '🍺'], ['apple', '🍎'], ['apfel', '🍎'], ['lemon', '🍋'], ['honey', '🍯'],
  ['book', '📖'], ['buch', '📖'], ['read', '📖'], ['write', '✍️'], ['music', '🎵'], ['musik', '🎵'], ['song', '🎶'], ['film', '🎬'], ['photo', '📷'], ['foto', '📷'], ['paint', '🎨'], ['colour', '🎨'], ['color', '🎨'], ['farbe', '🎨'], ['sew', '🧵'], ['thread', '🧵'], ['stitch', '🪡'], ['string', '🧶'], ['scissor', '✂️'], ['tool', '🛠️'], ['workshop', '🛠️'], ['werkstatt', '🛠️'], ['build', '🔨'], ['bau', '🔨'], ['repair', '🔧'],
  ['lantern', '🏮'], ['latern', '🏮'], ['light', '💡'], ['licht', '💡'], ['night', '🌙'], ['nacht', '🌙'], ['star', '⭐'], ['stern', '⭐'], ['fire', '🔥'], ['feuer', '🔥'], ['oven', '🔥'], ['candle', '🕯️'], ['kerze', '🕯️'],
  ['gift', '🎁'], ['present', '🎁'], ['geschenk', '🎁'], ['birthday', '🎂'], ['geburtstag', '🎂'], ['party', '🎉'], ['festival', '🎪'], ['fest', '🎉'], ['christmas', '🎄'], ['weihnacht', '🎄'], ['advent', '🕯️'], ['easter', '🐣'], ['ostern', '🐣'], ['new year', '🎆'],
  ['flower', '🌸'], ['blume', '🌸'], ['garden', '🌱'], ['garten', '🌱'], ['tree', '🌳'], ['baum', '🌳'], ['leaf', '🍂'], ['autumn', '🍂'], ['herbst', '🍂'], ['spring', '🌷'], ['frühling', '🌷'], ['summer', '🌞'], ['sommer', '🌞'], ['winter', '⛄'],
  ['dog', '🐕'], ['hund', '🐕'], ['cat', '🐈'], ['katze', '🐈'], ['bee', '🐝'], ['horse', '🐎'],
  ['saturday', '📅'], ['sunday', '📅'], ['samstag', '📅'], ['sonntag', '📅'], ['date', '📅'], ['time', '⏰'], ['uhr', '⏰'], ['open', '🚪'], ['door', '🚪'], ['tür', '🚪'], ['phone', '📞'], ['ring', '📞'], ['mail', '✉️'], ['price', '🏷️'], ['sale', '🏷️'], ['ticket', '🎟️'], ['place', '📍'], ['find us', '📍'],
  ['love', '❤️'], ['liebe', '❤️'], ['thank', '🙏'], ['dank', '🙏'], ['welcome', '👋'], ['hello', '👋'], ['hallo', '👋'], ['question', '❓'], ['frage', '❓'], ['idea', '💡'], ['idee', '💡'], ['team', '🤝'], ['win', '🏆'], ['children', '🧒'], ['kinder', '🧒'], ['family', '👪'], ['familie', '👪'], ['home', '🏠'], ['zuhause', '🏠'],
];

/** Emoji that suit a text by its words, those of which it says most first. */
export function emojiFor(text: string, most: number): readonly string[] {
  const words = text.toLowerCase().match(/[\p{L}\p{M}]+/gu) ?? [];
  const counts = new Map<string, number>();
  for (const word of words) {
    const sign = signs.find(([start]) => word.startsWith(start) && word.length - start.length <= 4);
    if (sign) counts.set(sign[1], (counts.get(sign[1]) ?? 0) + 1);
  }
  return [...counts].toSorted((a, b) => b[1] - a[1]).slice(0, most).map(([emoji]) => emoji);
}

/** An emoji as people see it, with all that belongs to it. */
export const EMOJI_PATTERN = /\p{Regional_Indicator}{2}|[0-9#*]\ufe0f?\u20e3|\p{Extended_Pictographic}(?:\ufe0f|\p{Emoji_Modifier})?(?:\u200d\p{Extended_Pictographic}(?:\ufe0f|\p{Emoji_Modifier})?)*(?:[\u{e0020}-\u{e007f}]+)?/gu;

/** A text with emoji behind the sentences whose words they suit, each once, at most so many. */
export function placeEmoji(text: string, most: number): string {
  const used = new Set(text.match(EMOJI_PATTERN) ?? []);
  let placed = 0;
  let result = text;
  for (const { text: sentence, start } of sentencesOf(text).toReversed()) {
    if (placed >= most) break;
    const emoji = emojiFor(sentence, 3).find((each) => !used.has(each));
    const isTags = sentence.split(/\s+/u).every((word) => word.startsWith('#'));
    if (emoji === undefined || isTags) continue;
    const end = start + sentence.length;
    result = `${result.slice(0, end)} ${emoji}${result.slice(end)}`;
    used.add(emoji);
    placed += 1;
  }
  return result;
}

/** A text without its emoji and the space before each. */
export function withoutEmoji(text: string): string {
  return text.replace(EMOJI_PATTERN, (found) => (/^[0-9#*©®™]/u.test(found) && !found.includes('\u20e3') ? found : '\u0000')).replace(/[ \t]?\u0000/gu, '');
}
