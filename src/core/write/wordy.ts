import type { DeskLanguage } from './language-pack.ts';

/** Long ways to say something, each with a short one. */
const phrases: Readonly<Partial<Record<DeskLanguage, readonly (readonly [string, string])[]>>> = {
  en: [
    ['in order to', 'to'],
    ['due to the fact that', 'because'],
    ['in spite of the fact that', 'although'],
    ['at this point in time', 'now'],
    ['at the present time', 'now'],
    ['in the near future', 'soon'],
    ['on a regular basis', 'regularly'],
    ['a large number of', 'many'],
    ['a wide variety of', 'many'],
    ['a wide range of', 'many'],
    ['the majority of', 'most'],
    ['in the event that', 'if'],
    ['for the purpose of', 'for'],
    ['with regard to', 'about'],
    ['in relation to', 'about'],
    ['with the exception of', 'except'],
    ['is able to', 'can'],
    ['are able to', 'can'],
    ['has the ability to', 'can'],
    ['have the opportunity to', 'can'],
    ['make use of', 'use'],
    ['take a look at', 'look at'],
    ['prior to', 'before'],
    ['subsequent to', 'after'],
    ['as well as', 'and'],
    ['until such time as', 'until'],
    ['each and every', 'every'],
    ['first and foremost', 'first'],
    ['would like to', 'want to'],
    ['in the process of', ''],
    ['all of the', 'all the'],
    ['the fact that', 'that'],
  ],
  de: [
    ['aufgrund der Tatsache, dass', 'weil'],
    ['zum jetzigen Zeitpunkt', 'jetzt'],
    ['in der Lage sein', 'können'],
    ['eine große Anzahl von', 'viele'],
    ['eine Vielzahl von', 'viele'],
    ['in regelmäßigen Abständen', 'regelmäßig'],
    ['unter Zuhilfenahme von', 'mit'],
    ['im Rahmen von', 'bei'],
    ['zum Zwecke', 'für'],
  ],
  fr: [
    ['afin de', 'pour'],
    ['en raison du fait que', 'parce que'],
    ['à l’heure actuelle', 'maintenant'],
    ['un grand nombre de', 'beaucoup de'],
    ['dans le but de', 'pour'],
    ['être en mesure de', 'pouvoir'],
  ],
  es: [
    ['con el fin de', 'para'],
    ['debido al hecho de que', 'porque'],
    ['en este momento', 'ahora'],
    ['un gran número de', 'muchos'],
    ['con el objetivo de', 'para'],
  ],
  pt: [
    ['com o objetivo de', 'para'],
    ['a fim de', 'para'],
    ['devido ao fato de que', 'porque'],
    ['neste momento', 'agora'],
    ['um grande número de', 'muitos'],
  ],
};

/** Words that a plain text does without, each with a plainer one. */
const plainWords: readonly (readonly [string, string])[] = [
  ['utilise', 'use'],
  ['utilize', 'use'],
  ['purchase', 'buy'],
  ['commence', 'begin'],
  ['commences', 'begins'],
  ['terminate', 'end'],
  ['assist', 'help'],
  ['assistance', 'help'],
  ['require', 'need'],
  ['requires', 'needs'],
  ['obtain', 'get'],
  ['approximately', 'about'],
  ['additional', 'more'],
  ['numerous', 'many'],
  ['sufficient', 'enough'],
  ['demonstrate', 'show'],
  ['facilitate', 'help'],
  ['endeavour', 'try'],
  ['participate', 'take part'],
  ['individuals', 'people'],
  ['prior', 'earlier'],
  ['subsequently', 'later'],
  ['consequently', 'so'],
  ['nevertheless', 'still'],
  ['furthermore', 'also'],
  ['moreover', 'also'],
  ['therefore', 'so'],
  ['whilst', 'while'],
  ['amongst', 'among'],
  ['upon', 'on'],
  ['regarding', 'about'],
  ['concerning', 'about'],
  ['attend', 'come to'],
  ['complimentary', 'free'],
];

/** A place in a text that can be said in fewer or plainer words. */
export interface Plainer {
  readonly start: number;
  readonly end: number;
  readonly put: string;
}

const made = new Map<string, readonly (readonly [RegExp, string])[]>();

function patternsOf(key: string, pairs: readonly (readonly [string, string])[]): readonly (readonly [RegExp, string])[] {
  const known = made.get(key) ?? pairs.map(([long, short]) => [new RegExp(`(?<![\\p{L}’'-])${long.replace(/’/gu, '[’\']')}(?![\\p{L}’'-])${short === '' ? '\\s' : ''}`, 'giu'), short] as const);
  made.set(key, known);
  return known;
}

/** Long phrases of a text, with the short ones. */
export function shorterWays(text: string, language: DeskLanguage): readonly Plainer[] {
  return patternsOf(language, phrases[language] ?? []).flatMap(([pattern, short]) => [...text.matchAll(pattern)].map((match) => ({ start: match.index, end: match.index + match[0].length, put: capitalAs(match[0], short) })));
}

/** A text in plainer words; numbers and names are none of these. */
export function plainer(text: string, language: DeskLanguage): string {
  const pairs = [...patternsOf(language, phrases[language] ?? []), ...(language === 'en' ? patternsOf('plain words', plainWords) : [])];
  return pairs.reduce((current, [pattern, short]) => current.replace(pattern, (found) => capitalAs(found, short)), text);
}

function capitalAs(found: string, put: string): string {
  return /^\p{Lu}/u.test(found) ? put.charAt(0).toUpperCase() + put.slice(1) : put;
}
