import { avoidedWords } from '../brand/voice.ts';
import { blanksOf } from '../brand/snippets.ts';
import { findMentions, LINK_PATTERN } from '../words/count-characters.ts';
import { fieldOf, type FieldKey } from '../words/fields.ts';
import { brokenTags, capitalsFor, doubleTags } from '../words/tag-text.ts';
import { fieldProblem } from './check-fields.ts';
import { composeRow, countField, writtenTags, type ComposedRow } from './compose.ts';
import { cardOf } from './mentions.ts';
import { cellOf, type Row } from './row.ts';

/** Something about the words of a row that a network would refuse (`stops`) or take badly (`warns`). */
export type WordingFinding =
  | { readonly kind: 'too-long'; readonly severity: 'stops'; readonly field: FieldKey; readonly over: number; readonly max: number }
  | { readonly kind: 'no-thread'; readonly severity: 'stops'; readonly maxParts: number }
  | { readonly kind: 'missing-fact'; readonly severity: 'stops'; readonly fact: string; readonly reason: 'unknown' | 'empty' }
  | { readonly kind: 'avoided-word'; readonly severity: 'warns'; readonly field: FieldKey; readonly word: string; readonly prefer: string }
  | { readonly kind: 'missing'; readonly severity: 'stops'; readonly field: FieldKey }
  | { readonly kind: 'not-valid'; readonly severity: 'stops'; readonly field: FieldKey; readonly problem: string }
  | { readonly kind: 'button-alone'; readonly severity: 'stops' }
  | { readonly kind: 'blank-left'; readonly severity: 'stops'; readonly field: FieldKey; readonly blank: string }
  | { readonly kind: 'too-many-hashtags'; readonly severity: 'stops' | 'warns'; readonly count: number; readonly limit: number; readonly by: 'network' | 'brand' }
  | { readonly kind: 'too-many-mentions'; readonly severity: 'stops'; readonly count: number; readonly limit: number }
  | { readonly kind: 'plain-mention'; readonly severity: 'warns'; readonly name: string }
  | { readonly kind: 'shared-handle'; readonly severity: 'warns'; readonly handle: string }
  | { readonly kind: 'avoided-hashtag'; readonly severity: 'warns'; readonly tag: string }
  | { readonly kind: 'double-hashtag'; readonly severity: 'warns'; readonly tag: string }
  | { readonly kind: 'broken-hashtag'; readonly severity: 'warns'; readonly tag: string; readonly why: 'digits-only' | 'punctuation' | 'too-long'; readonly mended: string | null }
  | { readonly kind: 'hashtag-capitals'; readonly severity: 'warns'; readonly tag: string; readonly proposed: string }
  | { readonly kind: 'dead-link'; readonly severity: 'warns' };

/** Fields in which people write sentences: brackets there may be blanks of a snippet. */
const isProse = (key: FieldKey): boolean => fieldOf(key).kind === 'text';

/** Checks the words that would go to a channel against its network's sheet and the brand's voice. */
export function checkWording(row: Row): readonly WordingFinding[] {
  const { sheet, book } = row;
  const composed = composeRow(row);
  const findings: WordingFinding[] = composed.missing.map(({ key, reason }) => ({ kind: 'missing-fact', severity: 'stops', fact: key, reason }));
  for (const { key, rule, within } of composed.fields) {
    const text = composed.words[key] ?? '';
    for (const avoided of avoidedWords(within ? '' : text, book.voice)) findings.push({ kind: 'avoided-word', severity: 'warns', field: key, ...avoided });
    if (within) continue;
    if (rule.required && text.trim() === '') findings.push({ kind: 'missing', severity: 'stops', field: key });
    const problem = key === 'thread' ? null : fieldProblem(rule, text, row.channel.offers);
    if (problem !== null) findings.push({ kind: 'not-valid', severity: 'stops', field: key, problem });
    for (const blank of isProse(key) ? blanksFrom(row, key) : []) findings.push({ kind: 'blank-left', severity: 'stops', field: key, blank });
    const { over, max } = countField(text, rule, sheet);
    // A text that is split has a limit for each of its parts.
    if (key === 'caption' && cellOf(row, 'thread').text !== '' && sheet.words.thread) {
      if (composed.parts === null) findings.push({ kind: 'no-thread', severity: 'stops', maxParts: sheet.words.thread.maxParts });
    } else if (over > 0 && max !== null) findings.push({ kind: 'too-long', severity: 'stops', field: key, over, max });
  }
  if (!['', 'call'].includes(composed.words.button ?? '') && (composed.words.link ?? '') === '') findings.push({ kind: 'button-alone', severity: 'stops' });
  for (const name of composed.plain) findings.push({ kind: 'plain-mention', severity: 'warns', name });
  for (const handle of sharedHandles(row)) findings.push({ kind: 'shared-handle', severity: 'warns', handle });
  return [...findings, ...tagFindings(row, composed), ...reachFindings(row, composed)];
}

/** Blanks of a snippet that nobody has filled in; brackets that no snippet has are just brackets. */
function blanksFrom(row: Row, key: FieldKey): readonly string[] {
  const asked = new Set(row.book.voice.snippets.flatMap(({ text }) => blanksOf(text)));
  return asked.size === 0 ? [] : blanksOf(cellOf(row, key).text).filter((blank) => asked.has(blank));
}

/** Handles that several networks get as they were written for one: without an address card nobody knows whose they are elsewhere. */
function sharedHandles(row: Row): readonly string[] {
  const channels = new Set(row.piece.cuts.map(({ channelId }) => channelId));
  const caption = cellOf(row, 'caption');
  if (channels.size < 2 || caption.from === 'own' || row.sheet.words.mentions.max === 0) return [];
  return [...new Set(findMentions(caption.text))].filter((handle) => cardOf(handle, row.book.voice.people) === null);
}

/** What the networks limit across fields: hashtags, mentions, links that lead nowhere. */
function reachFindings({ sheet, book: { voice } }: Row, { words, hashtags: found, mentions: mentioned }: ComposedRow): readonly WordingFinding[] {
  const findings: WordingFinding[] = [];
  const { hashtags, mentions, links } = sheet.words;
  if (hashtags.max !== null && found.length > hashtags.max) findings.push({ kind: 'too-many-hashtags', severity: 'stops', count: found.length, limit: hashtags.max, by: 'network' });
  else if (hashtags.warnOver !== null && found.length > hashtags.warnOver) findings.push({ kind: 'too-many-hashtags', severity: 'warns', count: found.length, limit: hashtags.warnOver, by: 'network' });
  else if (voice.maxHashtags !== null && found.length > voice.maxHashtags) findings.push({ kind: 'too-many-hashtags', severity: 'warns', count: found.length, limit: voice.maxHashtags, by: 'brand' });
  if (mentions.max !== null && mentioned.length > mentions.max) findings.push({ kind: 'too-many-mentions', severity: 'stops', count: mentioned.length, limit: mentions.max });
  if (!links.clickable && (words.caption ?? '').match(LINK_PATTERN)) findings.push({ kind: 'dead-link', severity: 'warns' });
  return findings;
}

/** What is wrong with single hashtags, whatever the network takes. */
function tagFindings(row: Row, { words }: ComposedRow): readonly WordingFinding[] {
  const { voice } = row.book;
  const tags = writtenTags(row);
  const avoided = new Set(voice.hashtagsAvoided.map((tag) => tag.toLowerCase()));
  const texts = [words.title ?? '', words.caption ?? '', ...voice.hashtags.map((tag) => tag.replace(/(?<=\p{Ll})(?=\p{Lu})/gu, ' '))];
  return [
    ...doubleTags(tags).map((tag): WordingFinding => ({ kind: 'double-hashtag', severity: 'warns', tag })),
    ...brokenTags(cellOf(row, 'caption').text).flatMap(({ written, problem, mended }): readonly WordingFinding[] =>
      problem === 'digits-only' || problem === 'punctuation' || problem === 'too-long' ? [{ kind: 'broken-hashtag', severity: 'warns', tag: written, why: problem, mended }] : [],
    ),
    ...tags.filter((tag) => avoided.has(tag.toLowerCase())).map((tag): WordingFinding => ({ kind: 'avoided-hashtag', severity: 'warns', tag })),
    ...tags.flatMap((tag): readonly WordingFinding[] => {
      const proposed = capitalsFor(tag, texts.map((text) => text.replaceAll(/#[\p{L}\p{M}\p{N}_]+/gu, ' ')));
      return proposed === null ? [] : [{ kind: 'hashtag-capitals', severity: 'warns', tag, proposed }];
    }),
  ];
}
