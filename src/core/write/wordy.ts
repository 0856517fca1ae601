import type { DeskLanguage } from './language-pack.ts';
import { inOtherWays, THINGS, waysIn, type OtherWay, type Way } from './ways.ts';

const DETERMINERS = 'the|these|those|this|that|my|your|our|his|her|its|their|us|them|you';
const ARTICLES = 'a|an|the|this|that|each|every|one|any|no|my|your|our|his|her|its|their';
const MODALS = 'will|would|may|might|must|could|should|shall|can|to|not|won’t|don’t|didn’t';

/** Long ways to say something, each with a short one. */
const phrases: Readonly<Record<DeskLanguage, readonly Way[]>> = {
  en: [
    { from: 'in order to', to: 'to' },
    { from: 'due to the fact that', to: 'because' },
    { from: 'in spite of the fact that', to: 'although' },
    { from: 'despite the fact that', to: 'although' },
    { from: 'at this point in time', to: 'now' },
    { from: 'at the present time', to: 'now' },
    { from: 'in the near future', to: 'soon' },
    { from: 'on a regular basis', to: 'regularly' },
    { from: 'a large number of', to: 'many', notBefore: DETERMINERS },
    { from: 'a wide variety of', to: 'many', before: THINGS },
    { from: 'a wide range of', to: 'many', before: THINGS },
    { from: 'the majority of', to: 'most of', before: `(?:${DETERMINERS})(?!\\p{L})` },
    { from: 'the majority of', to: 'most' },
    { from: 'in the event that', to: 'if' },
    { from: 'for the purpose of', to: 'for' },
    { from: 'with regard to', to: 'about' },
    { from: 'with the exception of', to: 'except' },
    { from: 'is able to', to: 'can' },
    { from: 'are able to', to: 'can' },
    { from: 'has the ability to', to: 'can' },
    { from: 'have the opportunity to', to: 'can', notBehind: MODALS },
    { from: 'make use of', to: 'use' },
    { from: 'take a look at', to: 'look at' },
    { from: 'prior to', to: 'before' },
    { from: 'subsequent to', to: 'after' },
    { from: 'until such time as', to: 'until' },
    { from: 'each and every', to: 'every' },
    { from: 'first and foremost', to: 'first' },
    { from: 'would like to', to: 'want to', behind: 'I|we|you|they' },
    { from: 'in the process of', to: '', behind: 'is|are|am|was|were|been|we’re|they’re|I’m|it’s' },
    { from: 'all of the', to: 'all the' },
    { from: 'the fact that', to: 'that', notBehind: 'despite|of|to|by|from|in|with|about|on|for|given|than|beyond' },
  ],
  de: [
    { from: 'aufgrund der Tatsache, dass', to: 'weil', behind: '^' },
    { from: 'zum jetzigen Zeitpunkt', to: 'jetzt' },
    { from: 'in regelmäßigen Abständen', to: 'regelmäßig' },
    { from: 'unter Zuhilfenahme von', to: 'mit' },
    { from: 'im Rahmen von', to: 'bei' },
  ],
  fr: [
    { from: 'afin de', to: 'pour' },
    { from: 'en raison du fait que', to: 'parce que' },
    { from: 'à l’heure actuelle', to: 'maintenant' },
    { from: 'un grand nombre de', to: 'beaucoup de' },
    { from: 'dans le but de', to: 'pour' },
    { from: 'être en mesure de', to: 'pouvoir' },
  ],
  es: [
    { from: 'con el fin de', to: 'para' },
    { from: 'debido al hecho de que', to: 'porque' },
    { from: 'en este momento', to: 'ahora' },
    { from: 'con el objetivo de', to: 'para' },
  ],
  pt: [
    { from: 'com o objetivo de', to: 'para' },
    { from: 'a fim de', to: 'para' },
    { from: 'devido ao fato de que', to: 'porque' },
    { from: 'neste momento', to: 'agora' },
  ],
};

/** Words that a plain text does without, each with a plainer one. */
const plainWords: readonly Way[] = [
  { from: 'utilise', to: 'use' },
  { from: 'utilize', to: 'use' },
  { from: 'purchase', to: 'buy', behind: 'to|can|may|will|could|would|must|should|you|we|they|I|^' },
  { from: 'commence', to: 'begin' },
  { from: 'commences', to: 'begins' },
  { from: 'terminate', to: 'end' },
  { from: 'assist', to: 'help' },
  { from: 'assistance', to: 'help' },
  { from: 'require', to: 'need' },
  { from: 'requires', to: 'needs' },
  { from: 'obtain', to: 'get' },
  { from: 'approximately', to: 'about' },
  { from: 'additional', to: 'more', notBehind: ARTICLES },
  { from: 'numerous', to: 'many', notBehind: 'so|too|very|are|were|more' },
  { from: 'sufficient', to: 'enough', notBehind: ARTICLES },
  { from: 'demonstrate', to: 'show' },
  { from: 'endeavour', to: 'try', behind: 'to|we|will|they|I' },
  { from: 'participate', to: 'take part' },
  { from: 'individuals', to: 'people' },
  { from: 'subsequently', to: 'later' },
  { from: 'consequently', to: 'so', behind: '^|and' },
  { from: 'nevertheless', to: 'still', behind: '^|but|and' },
  { from: 'furthermore', to: 'also', behind: '^|and' },
  { from: 'moreover', to: 'also', behind: '^|and' },
  { from: 'therefore', to: 'so', behind: '^|and' },
  { from: 'whilst', to: 'while' },
  { from: 'amongst', to: 'among' },
  { from: 'upon', to: 'on', notBehind: 'once' },
  { from: 'regarding', to: 'about' },
  { from: 'concerning', to: 'about', notBehind: 'a|very|most|more|is|are|was|were|deeply' },
  { from: 'attend', to: 'come to', before: '(?:the|a|an|our|this|your|all|both|one|any|every|each|his|her|their)(?!\\p{L})' },
];

/** Long phrases of a text, with the short ones. */
export function shorterWays(text: string, language: DeskLanguage): readonly OtherWay[] {
  return waysIn(text, phrases[language]);
}

/** A text in plainer words, but for what lies on the kept spans. */
export function plainer(text: string, language: DeskLanguage, kept: readonly { readonly start: number; readonly end: number }[]): string {
  return inOtherWays(text, [...phrases[language], ...(language === 'en' ? plainWords : [])], kept);
}
