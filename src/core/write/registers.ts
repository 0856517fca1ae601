import { THINGS, type Way } from './ways.ts';

/** Words that make `it’s` stand for `it has`. */
const HAS_BEEN = '(?:been|had|got|become|begun|grown|happened)(?!\\p{L})';
const PRONOUNS = '(?:I|you|we|they|he|she|it|there|this|that|these|those)(?![\\p{L}’\'])';

const isOrHas = (word: string): readonly Way[] => [
  { from: `${word}’s`, to: `${word} has`, before: HAS_BEEN },
  { from: `${word}’s`, to: `${word} is` },
];

/** Verbs that deny in short, each with its full form. */
const denials: readonly (readonly [short: string, verb: string])[] = [
  ['can’t', 'can'],
  ['won’t', 'will'],
  ['shan’t', 'shall'],
  ...['do', 'does', 'did', 'is', 'are', 'was', 'were', 'have', 'has', 'had', 'would', 'could', 'should'].map((verb) => [`${verb}n’t`, verb] as const),
];

/** What is no question, and what dares: “Don’t you dare.” */
const NO_QUESTION = '(?:dare(?!\\p{L})|[^.!?\\n]*(?:[.!\\n]|$))';

/** In a question the person stands between: “Don’t you love it?” asks “Do you not love it?” “Why don’t we…?” is an offer, and stays. */
const askedDenials = denials.flatMap(([short, verb]) => ['I', 'you', 'we', 'they', 'he', 'she', 'it', 'there'].map((person): Way => ({ from: `${short} ${person}`, to: `${verb} ${person} not`, notBehind: 'why', notBefore: NO_QUESTION })));

/** Short forms and their full ones. */
export const fullForms: readonly Way[] = [
  ...askedDenials,
  ...denials.map(([short, verb]): Way => ({ from: short, to: verb === 'can' ? 'cannot' : `${verb} not`, notBefore: PRONOUNS })),
  ...['it', 'that', 'there', 'here', 'what', 'who'].flatMap(isOrHas),
  { from: 'let’s', to: 'let us' },
  { from: 'i’m', to: 'I am' },
  { from: 'you’re', to: 'you are' },
  { from: 'we’re', to: 'we are' },
  { from: 'they’re', to: 'they are' },
  { from: 'i’ll', to: 'I will' },
  { from: 'you’ll', to: 'you will' },
  { from: 'we’ll', to: 'we will' },
  { from: 'they’ll', to: 'they will' },
  { from: 'i’ve', to: 'I have' },
  { from: 'you’ve', to: 'you have' },
  { from: 'we’ve', to: 'we have' },
  { from: 'they’ve', to: 'they have' },
];

/** Words of talk and those of letters. */
export const formalWords: readonly Way[] = [
  { from: 'kids', to: 'children' },
  { from: 'hi', to: 'good day', behind: '^' },
  { from: 'hey', to: 'good day', behind: '^' },
  { from: 'thanks', to: 'thank you', notBehind: 'many|with|our|of|no|some|say|says|and', notBefore: 'to(?!\\p{L})' },
  { from: 'pop in', to: 'visit', notBefore: '(?:and|to|for|on|at)(?!\\p{L})' },
  { from: 'pop by', to: 'visit' },
  { from: 'come along', to: 'come' },
  ...['loads of', 'lots of'].flatMap((from): readonly Way[] => [{ from, to: 'many', before: THINGS }, { from, to: 'plenty of' }]),
  { from: 'you guys', to: 'you all' },
  { from: 'okay', to: 'all right' },
  { from: 'yep', to: 'yes' },
  { from: 'nope', to: 'no' },
  { from: 'gonna', to: 'going to' },
  { from: 'wanna', to: 'want to' },
  { from: 'grab', to: 'take', before: '(?:a|an|the|your|some|one)(?!\\p{L})' },
  { from: 'super', to: 'very', before: '(?:easy|happy|nice|simple|quick|busy|proud|excited|good|strong|light|fast)(?!\\p{L})' },
];

/** What may be done in a place to which one comes. */
const DOINGS = '(?:build|make|fly|try|see|hear|taste|learn|join|meet|find|watch|sew|paint|bake|sing|dance|play|look)(?!\\p{L})';

/** Dull words and livelier ones. */
export const livelyWords: readonly Way[] = [
  { from: 'good', to: 'lovely', behind: 'a|some|really|such', notBefore: '(?:enough|at|for|with|to|as|many|few|deal|\\d|half|hour|way|luck)(?!\\p{L})|\\d' },
  { from: 'good', to: 'lovely', behind: '^', notBefore: '(?:enough|at|for|with|to|as|morning|evening|night|afternoon|day|luck|bye|Friday)(?!\\p{L})' },
  { from: 'nice', to: 'delightful', notBehind: 'as|not|no' },
  { from: 'we are pleased', to: 'we are delighted' },
  { from: 'you can', to: 'come and', behind: '^', before: DOINGS },
  { from: 'interesting', to: 'gripping', notBehind: 'as|not|no' },
];
