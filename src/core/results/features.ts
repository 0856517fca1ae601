import { DateTime } from 'luxon';

/** What is known of a post that may go with how well it does. */
export interface PostTraits {
  readonly channelId: string;
  /** `picture`, `carousel`, `video`, `document` or `text`. */
  readonly format: string;
  readonly themeId: string | null;
  readonly templateKey: string | null;
  readonly publishedMs: number;
  readonly slides: number;
  readonly captionWords: number;
  readonly hashtags: number;
  readonly hasFirstComment: boolean;
  /** Whether the brand answered a comment in the first two hours. */
  readonly answeredEarly: boolean;
  /** Null: the picture shows no words of a template, or none is known. */
  readonly wordsOnPicture: number | null;
  /** Null: nobody has described the picture. */
  readonly showsPeople: boolean | null;
}

/** Groups of like things that are compared with each other, in the order in which they are shown. */
export const families = {
  format: 'Format',
  slides: 'Slides',
  theme: 'Theme',
  hours: 'Time of day',
  weekday: 'Weekday',
  firstComment: 'First comment',
  answers: 'Answers',
  caption: 'Caption',
  hashtags: 'Hashtags',
  template: 'Template',
  picture: 'Words on the picture',
  people: 'People in the picture',
} as const satisfies Readonly<Record<string, string>>;

export type Family = keyof typeof families;
export const familyKeys = Object.keys(families) as readonly Family[];

/** Parts of the day that posts are compared by: first hour, name. */
const hourBlocks = [
  [0, 'night', 'at night, 0 to 5'],
  [5, 'early', 'early, 5 to 9'],
  [9, 'morning', 'in the morning, 9 to 12'],
  [12, 'midday', 'at midday, 12 to 14'],
  [14, 'afternoon', 'in the afternoon, 14 to 17'],
  [17, 'evening', 'in the evening, 17 to 21'],
  [21, 'late', 'late, 21 to 24'],
] as const;

export type HourBlock = (typeof hourBlocks)[number][1];

export function hourBlockOf(hour: number): HourBlock {
  return hourBlocks.findLast(([from]) => hour >= from)?.[1] ?? 'night';
}

const weekdays = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'] as const;
const formats: Readonly<Record<string, string>> = { picture: 'one picture', carousel: 'a carousel', video: 'a video', document: 'a document', text: 'text alone' };

/** The level that a post has in each family; a family that says nothing of it is missing. */
export function levelsOf(traits: PostTraits, zone: string): Readonly<Partial<Record<Family, string>>> {
  const local = DateTime.fromMillis(traits.publishedMs, { zone });
  const { slides, captionWords, hashtags, wordsOnPicture, showsPeople } = traits;
  return {
    format: traits.format,
    ...(slides > 1 ? { slides: slides >= 6 ? '6+' : slides >= 4 ? '4-5' : '2-3' } : {}),
    ...(traits.themeId === null ? {} : { theme: traits.themeId }),
    hours: hourBlockOf(local.hour),
    weekday: String(local.weekday),
    firstComment: traits.hasFirstComment ? 'yes' : 'no',
    answers: traits.answeredEarly ? 'yes' : 'no',
    caption: captionWords < 12 ? 'short' : captionWords < 40 ? 'middle' : 'long',
    hashtags: hashtags === 0 ? 'none' : hashtags <= 3 ? '1-3' : '4+',
    ...(traits.templateKey === null ? {} : { template: traits.templateKey }),
    ...(wordsOnPicture === null ? {} : { picture: wordsOnPicture <= 6 ? 'few' : 'many' }),
    ...(showsPeople === null ? {} : { people: showsPeople ? 'yes' : 'no' }),
  };
}

/** How a level is called after "Posts …". Names of themes and templates come from outside. */
export function levelName(family: Family, level: string, names: ReadonlyMap<string, string> = new Map()): string {
  switch (family) {
    case 'format':
      return `with ${formats[level] ?? level}`;
    case 'slides':
      return level === '6+' ? 'with 6 or more slides' : `with ${level.replace('-', ' to ')} slides`;
    case 'theme':
      return `about ${names.get(level) ?? level}`;
    case 'template':
      return `in ${names.get(level) ?? level}`;
    case 'hours':
      return hourBlocks.find(([, key]) => key === level)?.[2] ?? level;
    case 'weekday':
      return `on ${weekdays[Number(level) - 1] ?? level}`;
    case 'firstComment':
      return level === 'yes' ? 'with a first comment' : 'without a first comment';
    case 'answers':
      return level === 'yes' ? 'with an answer in the first two hours' : 'without an early answer';
    case 'caption':
      return level === 'short' ? 'with a caption below 12 words' : level === 'middle' ? 'with a caption of 12 to 39 words' : 'with a caption of 40 words or more';
    case 'hashtags':
      return level === 'none' ? 'without hashtags' : level === '1-3' ? 'with 1 to 3 hashtags' : 'with 4 hashtags or more';
    case 'picture':
      return level === 'few' ? 'with up to 6 words on the picture' : 'with over 6 words on the picture';
    case 'people':
      return level === 'yes' ? 'with people in the picture' : 'without people in the picture';
  }
}
