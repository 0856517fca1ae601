/** A question with a few answers, open for some days. */
export interface Poll {
  readonly question: string;
  readonly options: readonly string[];
  readonly days: number;
}

/** How long a poll is open until somebody says it. */
export const USUAL_POLL_DAYS = 3;

/**
 * A poll as it is kept and copied: the question, a line an option that begins with `-`, and a line with the days.
 *
 * ```
 * Which kite first?
 * - The sled
 * - The delta
 * 3 days
 * ```
 */
export function writePoll({ question, options, days }: Poll): string {
  return [question.trim(), ...options.map((option) => `- ${option.trim()}`), `${days} ${days === 1 ? 'day' : 'days'}`].join('\n');
}

/** A poll out of its text; what is written without marks is the question, and every further line an option. Null for an empty text. */
export function readPoll(text: string): Poll | null {
  const lines = text.split('\n').map((line) => line.trim()).filter((line) => line !== '');
  if (lines.length === 0) return null;
  const isDays = (line: string): boolean => /^\d{1,3} ?(?:days?|d)$/iu.test(line);
  const days = lines.findLast(isDays);
  const [question = '', ...rest] = lines.filter((line) => !isDays(line));
  return { question: question.replace(/^[-–•]\s*/u, ''), options: rest.map((line) => line.replace(/^[-–•]\s*/u, '')), days: days === undefined ? USUAL_POLL_DAYS : Number.parseInt(days, 10) };
}
