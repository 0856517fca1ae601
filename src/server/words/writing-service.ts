import type { DeskBrief, DeskVersion } from '../../core/write/desk.ts';
import { countCharacters } from '../../core/words/count-characters.ts';
import type { WritingService } from '../db/writing-service-repository.ts';
import { ProblemError } from '../errors.ts';
import { guardedPost } from '../outside/guarded-fetch.ts';
import type { Services } from '../services.ts';

const MAX_ANSWER_BYTES = 512 * 1024;
const MAX_VERSION = 20_000;

/** What stands for the desk's wishes and sources in a body; as JSON strings without their quotes, so that they can stand in one. */
export const placeholders = ['instructions', 'sources', 'text', 'versions'] as const;

const asks: Readonly<Record<DeskBrief['ask'], string>> = {
  draft: 'Write a caption for a post',
  shorter: 'Make the text shorter',
  longer: 'Make the text longer, from the sources',
  opening: 'Give the text another opening',
  question: 'Open the text with a question',
  list: 'Turn the text into a list',
  calmer: 'Make the text calmer',
  brighter: 'Make the text brighter',
  formal: 'Make the text more formal',
  plainer: 'Make the text plainer',
};

/** What a service is asked, in words. */
function instructionsOf(brief: DeskBrief): string {
  return [
    `${asks[brief.ask]} in ${brief.language}.`,
    brief.topic === '' ? '' : `Topic: ${brief.topic}.`,
    brief.words === null ? '' : `About ${brief.words} words.`,
    brief.limit === null ? '' : `At most ${brief.limit.max} characters.`,
    brief.voice.tone === '' ? '' : `Tone: ${brief.voice.tone}`,
    brief.voice.words.length === 0 ? '' : `Do not say: ${brief.voice.words.map(({ avoid }) => avoid).join(', ')}.`,
    brief.hashtags.length === 0 ? 'No hashtags.' : `End with ${brief.hashtags.join(' ')}.`,
    brief.emoji.length === 0 ? 'No emoji.' : '',
    'Say nothing that the sources do not say.',
    `Give ${brief.versions} ${brief.versions === 1 ? 'version' : 'versions'}, parted by a line with three hyphens.`,
  ].filter((part) => part !== '').join(' ');
}

/**
 * The body of a request: the service's own, with the wishes and the sources in their places.
 * @throws ProblemError 422 when it is no JSON afterwards
 */
export function requestBody({ body }: Pick<WritingService, 'body'>, brief: DeskBrief): string {
  const sources = [...brief.sources.map(({ name, text }) => `${name}:\n${text}`), ...brief.facts.filter(({ text }) => text !== '').map(({ name, text }) => `${name}: ${text}`)].join('\n\n');
  const values: Readonly<Record<(typeof placeholders)[number], string>> = { instructions: instructionsOf(brief), sources, text: brief.text, versions: String(brief.versions) };
  const filled = body.replace(/\{\{(instructions|sources|text|versions)\}\}/gu, (_, name: (typeof placeholders)[number]) => JSON.stringify(values[name]).slice(1, -1));
  try {
    JSON.parse(filled);
  } catch {
    throw new ProblemError(422, 'not-json', 'The body of the writing service is no valid JSON. Put the places in quotes: "{{instructions}}".');
  }
  return filled;
}

/** Versions that are parted by lines of hyphens. */
function partsOf(text: string): readonly string[] {
  return text.split('\n').reduce<string[]>((parts, line) => (/^-{3,}$/u.test(line.trim()) ? [...parts, ''] : [...parts.slice(0, -1), `${parts.at(-1) ?? ''}${line}\n`]), ['']);
}

/** The texts at a path of an answer: `choices.0.text`; a `*` takes every item of a list. */
export function textsAt(answer: unknown, path: string): readonly string[] {
  let found: readonly unknown[] = [answer];
  for (const step of path.split('.').map((each) => each.trim()).filter((each) => each !== '')) {
    found = found.flatMap((value): readonly unknown[] => {
      if (typeof value !== 'object' || value === null) return [];
      if (step === '*') return Object.values(value);
      return Object.hasOwn(value, step) ? [(value as Readonly<Record<string, unknown>>)[step]] : [];
    });
  }
  return found.filter((value): value is string => typeof value === 'string');
}

/** Values of headers, as they are sealed. */
export type HeaderValues = readonly { readonly name: string; readonly value: string }[];

/**
 * Asks a brand's writing service. Every version is held against its sources like the desk's own: what they do not hold is marked.
 * @throws ProblemError when the service does not answer, refuses, or answers something else
 */
export async function askService(services: Services, service: WritingService, brief: DeskBrief): Promise<readonly DeskVersion[]> {
  const headers = JSON.parse(services.sealer.open(service.headers)) as HeaderValues;
  const { bytes } = await guardedPost(service.address, requestBody(service, brief), Object.fromEntries(headers.map(({ name, value }) => [name, value])), { mostBytes: MAX_ANSWER_BYTES, trustedHosts: [...services.settings.trustedHosts, ...services.settings.writingHosts], accept: 'application/json' });
  const texts = textsAt(parsed(bytes.toString('utf8')), service.answerPath).flatMap((text) => partsOf(text)).map((text) => text.trim().slice(0, MAX_VERSION)).filter((text) => text !== '').slice(0, brief.versions);
  if (texts.length === 0) throw new ProblemError(422, 'no-answer', `The writing service answered nothing at ${service.answerPath}.`);
  const checked = await services.words.run({ kind: 'check-version', texts, brief });
  return texts.map((text, index): DeskVersion => ({ text, used: ['the writing service'], leftOut: [], marked: (checked[index] ?? []).map(({ kind, text: span }) => ({ kind, text: span })), fits: brief.limit === null || countCharacters(text, brief.limit.counting) <= brief.limit.max }));
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new ProblemError(422, 'not-json', 'The writing service answered something that is no JSON.', { reason: error instanceof Error ? error.name : 'unknown' });
  }
}
