import { LRUCache } from 'lru-cache';
import { newStemmer } from 'snowball-stemmers';
import { deu, eng, fra, por, spa } from 'stopword';
import { hasEnglishVerb, isEnglishWord } from './english-tagger.ts';
import type { Language } from '../words/language.ts';

/** Languages that the desk works in: English whole, the others for selecting, shortening and key phrases. What else is there is quoted. */
export type DeskLanguage = Extract<Language, 'en' | 'de' | 'fr' | 'es' | 'pt'>;

/** What the desk knows of a language, as data. */
export interface LanguagePack {
  readonly language: DeskLanguage;
  readonly stem: (word: string) => string;
  readonly stopwords: ReadonlySet<string>;
  /** Words that deny or call off; a word that begins with one of `negationStarts` denies as well. */
  readonly negations: ReadonlySet<string>;
  readonly negationStarts: readonly string[];
  /** Denials of several words, parted or not. */
  readonly denials?: RegExp;
  /** Weekdays and months in full, and words for days near by. */
  readonly dateWords: readonly string[];
  /** Months, of which some are ordinary words: they count where a number or a day is beside them. */
  readonly numberWords: readonly string[];
  /** What opens a sentence and can go without a loss, with the comma behind it. */
  readonly openers: readonly string[];
  /** Words that only make others louder, and phrases in which one of them says something of its own. */
  readonly intensifiers: readonly string[];
  readonly louderPhrases: readonly string[];
  /** What a clause begins with that tells more of the noun before it. */
  readonly relatives: readonly string[];
  /** Words before a noun. */
  readonly articles: ReadonlySet<string>;
  /** All nouns have a capital, so that it says nothing of names. */
  readonly capitalNouns: boolean;
  /** Whether a word in small letters is an ordinary one; what nobody knows may be a name. */
  readonly isCommon: (word: string) => boolean;
  /** Whether a sentence has a verb; always where nobody can tell. */
  readonly hasVerb: (sentence: string) => boolean;
}

const MAX_STEMS = 20_000;
const set = (words: string): ReadonlySet<string> => new Set(list(words));
const list = (words: string): readonly string[] => words.split('|').map((word) => word.trim()).filter((word) => word !== '');

/** Words that open sentences in any of the languages: none of them is a name in another. */
const OPENER_WORDS = set('aufgrund|natürlich|übrigens|also|nun|außerdem|eigentlich|leider|kurzum|tatsächlich|schließlich|wir|ihr|heute|enfin|alors|donc|bref|surtout|bien|heureusement|malheureusement|franchement|además|pues|bueno|entonces|sobre|claro|bem|então|além|aliás|felizmente|infelizmente|enfim|sobretudo|afinal');

const english: LanguagePack = {
  language: 'en',
  stem: stemmer('english'),
  stopwords: new Set([...eng, ...list('we|our|ours|us|you|your|yours|they|their|them|its|it’s|we’re|you’re|just|also|then|here|there|than|too|very|will|would|can|could|should|may|might|must|shall|do|does|did|done|has|have|had|who|whom|whose|which|what|when|where|why|how|if|so|not|no|nor|more|most|much|many|some|any|each|every|both|all|one|out|up|down|over|again|still|yet|only|own|same|now|get|got')]),
  negations: set('not|no|never|none|nothing|nobody|nowhere|neither|nor|without|cannot|hardly|barely|except|unless|instead|cancelled|canceled|postponed|closed|unavailable|delayed|rescheduled'),
  negationStarts: [],
  denials: /(?<!\p{L})(?:sold out|fully booked|called off|on hold)(?!\p{L})/giu,
  dateWords: list('monday|tuesday|wednesday|thursday|friday|saturday|sunday|mondays|tuesdays|wednesdays|thursdays|fridays|saturdays|sundays|january|february|april|june|july|august|september|october|november|december|today|tomorrow|tonight|yesterday|weekend|weekends|noon|midnight|daily|weekly|fortnightly|monthly|yearly|christmas|easter|new year'),
  numberWords: list('one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety|hundred|thousand|million|half|quarter|dozen|first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|twice|once|double|free'),
  openers: list('however|in fact|of course|as always|as ever|as usual|well|so|now|still|anyway|besides|by the way|to be honest|honestly|frankly|luckily|happily|sadly|naturally|obviously|clearly|after all|in other words|that said|in short|all in all|on top of that|what is more|what’s more|more than that|above all|believe it or not|as you know|as you may know|as some of you know|needless to say|for what it is worth|in the end|at the end of the day|and|but|also|indeed|yes|oh|you see|you know|to tell the truth|truth be told|let’s face it|first of all'),
  intensifiers: list('very|really|quite|just|actually|simply|absolutely|totally|completely|literally|truly|extremely|incredibly|rather|pretty|basically|definitely|certainly|so very'),
  louderPhrases: list('rather than|would rather|i’d rather|we’d rather|you’d rather|they’d rather|had rather|or rather|but rather|pretty much|pretty well|just enough|only just|just about|quite enough|quite so|just in time|just in case|as simply as|as certainly as'),
  relatives: list('which|who|whose|where'),
  articles: set('the|a|an|this|that|these|those|my|your|our|his|her|its|their|some|any|each|every'),
  capitalNouns: false,
  isCommon: isEnglishWord,
  hasVerb: hasEnglishVerb,
};

const german: LanguagePack = {
  language: 'de',
  stem: stemmer('german'),
  stopwords: new Set(deu),
  negations: set('nicht|nichts|nie|niemals|niemand|nirgends|nirgendwo|ohne|weder|noch|kaum|außer|statt|anstatt|stattdessen|abgesagt|ausgebucht|ausverkauft|geschlossen|verschoben|verlegt|entfällt|entfallen|gestrichen'),
  negationStarts: ['kein'],
  denials: /(?<!\p{L})(?:fällt|fallen|fiel|fielen)(?=[^.!?\n]*\saus[.!?,;\s])/giu,
  dateWords: list('montag|dienstag|mittwoch|donnerstag|freitag|samstag|sonnabend|sonntag|montags|dienstags|mittwochs|donnerstags|freitags|samstags|sonntags|januar|februar|märz|april|mai|juni|juli|august|september|oktober|november|dezember|heute|morgen|übermorgen|gestern|wochenende|mittags|mittag|mitternacht|täglich|wöchentlich|monatlich|jährlich|weihnachten|ostern|silvester'),
  numberWords: list('eins|zwei|drei|vier|fünf|sechs|sieben|acht|neun|zehn|elf|zwölf|dreizehn|zwanzig|dreißig|vierzig|fünfzig|hundert|tausend|halb|halbe|halben|viertel|dutzend|doppelt|zweimal|dreimal|einmal|gratis|kostenlos|kostenfrei|umsonst'),
  openers: list('übrigens|natürlich|wie immer|wie gewohnt|also|nun|außerdem|eigentlich|ehrlich gesagt|zum glück|leider|kurz gesagt|kurzum|vor allem|wie ihr wisst|wie sie wissen|und|denn|ja|ach|tatsächlich|schließlich|im grunde'),
  intensifiers: list('sehr|wirklich|richtig|ganz|einfach|echt|total|absolut|ziemlich|besonders|eigentlich|natürlich|übrigens|halt|eben'),
  louderPhrases: list('einfach zu|einfach und|so einfach|ganz oder|richtig oder|richtig zu|es richtig|alles richtig|richtig machen|natürlich gereift|natürlich gereifter|natürlich gereiften|natürlich gefärbt|natürlich gefärbte|nur eben|eben erst|eben noch|besonders geeignet|nicht besonders'),
  relatives: list('der|die|das|den|dem|deren|dessen|denen|welche|welcher|welches|welchem|welchen|wo|worin|wobei'),
  articles: set('der|die|das|den|dem|des|ein|eine|einen|einem|einer|eines|kein|keine|keinen|keinem|mein|meine|dein|deine|sein|seine|ihr|ihre|ihren|ihrem|ihrer|unser|unsere|unseren|unserem|unserer|euer|eure|eurem|jede|jeder|jedes|jeden|diese|dieser|dieses|diesen|diesem|alle|allen|viele|vielen|einige|mehr|im|am|zum|zur|vom|beim|ins|ans'),
  capitalNouns: true,
  isCommon: commonIn(deu),
  hasVerb: () => true,
};

const french: LanguagePack = {
  language: 'fr',
  stem: stemmer('french'),
  stopwords: new Set(fra),
  negations: set('ne|n|pas|jamais|rien|personne|aucun|aucune|sans|ni|sauf|non|guère|annulé|annulée|annulés|annulées|reporté|reportée|reportés|reportées|fermé|fermée|fermés|fermées|complet|complète|épuisé|épuisée'),
  negationStarts: ['n’', "n'"],
  dateWords: list('lundi|mardi|mercredi|jeudi|vendredi|samedi|dimanche|janvier|février|mars|avril|mai|juin|juillet|août|septembre|octobre|novembre|décembre|aujourd’hui|demain|hier|week-end|midi|minuit|noël|pâques'),
  numberWords: list('deux|trois|quatre|cinq|six|sept|huit|neuf|dix|onze|douze|treize|quatorze|quinze|seize|vingt|trente|quarante|cinquante|cent|mille|demi|demie|moitié|quart|douzaine|premier|première|gratuit|gratuite|gratuitement'),
  openers: list('bien sûr|en fait|d’ailleurs|comme toujours|comme d’habitude|alors|donc|et|mais|enfin|en effet|au fait|franchement|heureusement|malheureusement|bref|en somme|surtout|vous le savez|oui|après tout'),
  intensifiers: list('très|vraiment|tout simplement|absolument|totalement|complètement|particulièrement|assez|plutôt'),
  louderPhrases: list('assez de|assez d’|assez pour|plutôt que|plutôt qu’|ou plutôt|mais plutôt'),
  relatives: list('qui|dont|où|lequel|laquelle|lesquels|lesquelles'),
  articles: set('le|la|les|un|une|des|du|de|ce|cet|cette|ces|mon|ma|mes|ton|ta|tes|son|sa|ses|notre|nos|votre|vos|leur|leurs|au|aux|chaque'),
  capitalNouns: false,
  isCommon: commonIn(fra),
  hasVerb: () => true,
};

const spanish: LanguagePack = {
  language: 'es',
  stem: stemmer('spanish'),
  stopwords: new Set(spa),
  negations: set('no|nunca|jamás|nada|nadie|ningún|ninguno|ninguna|sin|ni|tampoco|salvo|excepto|cancelado|cancelada|cancelados|canceladas|aplazado|aplazada|agotado|agotada|agotados|agotadas|cerrado|cerrada|cerrados|cerradas'),
  negationStarts: [],
  dateWords: list('lunes|martes|miércoles|jueves|viernes|sábado|sábados|domingo|domingos|enero|febrero|marzo|abril|mayo|junio|julio|agosto|septiembre|octubre|noviembre|diciembre|hoy|mañana|ayer|mediodía|medianoche|navidad'),
  numberWords: list('dos|tres|cuatro|cinco|seis|siete|ocho|nueve|diez|once|doce|trece|catorce|quince|veinte|treinta|cuarenta|cincuenta|cien|ciento|mil|medio|media|mitad|cuarto|docena|primer|primero|primera|gratis|gratuito|gratuita'),
  openers: list('por supuesto|de hecho|como siempre|bueno|entonces|además|pues|y|pero|en realidad|por cierto|la verdad|por suerte|en fin|sobre todo|como sabéis|sí|al fin y al cabo'),
  intensifiers: list('muy|realmente|simplemente|absolutamente|totalmente|completamente|especialmente|bastante'),
  louderPhrases: list('bastante para|muy señor|muy señores'),
  relatives: list('que|quien|quienes|cuyo|cuya|donde'),
  articles: set('el|la|los|las|un|una|unos|unas|del|al|este|esta|estos|estas|ese|esa|mi|mis|tu|tus|su|sus|nuestro|nuestra|nuestros|nuestras|cada'),
  capitalNouns: false,
  isCommon: commonIn(spa),
  hasVerb: () => true,
};

const portuguese: LanguagePack = {
  language: 'pt',
  stem: stemmer('portuguese'),
  stopwords: new Set(por),
  negations: set('não|nunca|jamais|nada|ninguém|nenhum|nenhuma|sem|nem|exceto|salvo|cancelado|cancelada|cancelados|canceladas|adiado|adiada|esgotado|esgotada|esgotados|esgotadas|fechado|fechada|fechados|fechadas'),
  negationStarts: [],
  dateWords: list('segunda-feira|terça-feira|quarta-feira|quinta-feira|sexta-feira|segunda|terça|quarta|quinta|sexta|sábado|sábados|domingo|domingos|janeiro|fevereiro|março|abril|maio|junho|julho|agosto|setembro|outubro|novembro|dezembro|hoje|amanhã|ontem|meio-dia|meia-noite|natal|páscoa'),
  numberWords: list('dois|duas|três|quatro|cinco|seis|sete|oito|nove|dez|onze|doze|treze|quinze|vinte|trinta|quarenta|cinquenta|cem|cento|mil|meio|meia|metade|quarto|dúzia|primeiro|primeira|grátis|gratuito|gratuita'),
  openers: list('claro|na verdade|como sempre|bem|então|além disso|pois|e|mas|aliás|por sinal|felizmente|infelizmente|enfim|sobretudo|como sabem|sim|afinal'),
  intensifiers: list('muito|realmente|simplesmente|absolutamente|totalmente|completamente|especialmente|bastante'),
  louderPhrases: list('muito tempo|muito obrigado|muito obrigada|bastante para|há muito|muito menos|muito mais'),
  relatives: list('que|quem|cujo|cuja|onde'),
  articles: set('o|a|os|as|um|uma|uns|umas|do|da|dos|das|no|na|nos|nas|ao|à|este|esta|esse|essa|meu|minha|teu|tua|seu|sua|seus|suas|nosso|nossa|nossos|nossas|cada'),
  capitalNouns: false,
  isCommon: commonIn(por),
  hasVerb: () => true,
};

/** Without a lexicon the words that say nothing are ordinary, and those that open a sentence. */
function commonIn(stopwords: readonly string[]): LanguagePack['isCommon'] {
  return (word) => stopwords.includes(word) || OPENER_WORDS.has(word);
}

const packs: Readonly<Record<DeskLanguage, LanguagePack>> = { en: english, de: german, fr: french, es: spanish, pt: portuguese };

/** The pack of a language; null for one that the desk only quotes. */
export function packOf(language: Language): LanguagePack | null {
  return language in packs ? packs[language as DeskLanguage] : null;
}

function stemmer(name: string): (word: string) => string {
  const made = newStemmer(name);
  // The same words come again and again: those of the brand's hashtags with every proposal.
  const known = new LRUCache<string, string>({ max: MAX_STEMS });
  return (word) => {
    const found = known.get(word) ?? made.stem(word.toLowerCase().normalize('NFC'));
    known.set(word, found);
    return found;
  };
}
