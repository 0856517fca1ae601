import { nanoid } from 'nanoid';
import type { Content } from '../../core/ideas/propose/draft.ts';
import { copyName } from '../../core/piece/copy-name.ts';
import { pieceName, readPiece, type Piece } from '../../core/piece/piece.ts';
import { channelsOfTheme } from '../../core/plan/plan.ts';
import { sentencesOf } from '../../core/words/sentences.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { findConversation } from '../db/conversation-repository.ts';
import { noteIdeaUses, type Idea } from '../db/idea-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { findPiece, insertPiece } from '../db/piece-repository.ts';
import { noPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { getPlan, savePlan } from '../db/plan-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { beginPiece } from '../pieces/begin-piece.ts';
import { readPieceOr422 } from '../pieces/read-piece.ts';
import { keepEntry, momentOfSpot, type Spot } from '../plan/place-piece.ts';
import type { Services } from '../services.ts';
import { fetchPicture } from './fetch-picture.ts';
import { pieceFromContent } from './piece-from-content.ts';
import { askProposals, templatesOf } from './proposals.ts';

/** A text of so many sentences is an article: what it says most makes the piece. */
const ARTICLE_SENTENCES = 4;
const MAX_PLACEHOLDER = 200;
const MAX_THEME_NOTE = 5_000;

/** Makes a piece of an idea and remembers it. @throws ProblemError 404 when the piece of a revival is gone */
export async function makePieceOfIdea(services: Services, brand: Brand, idea: Idea, personId: string, nowMs: number): Promise<{ readonly pieceId: string }> {
  const document = await pieceOfIdea(services, brand, idea, nowMs);
  const id = nanoid(12);
  await insertPiece(services.db, { id, brandId: brand.id, document, createdBy: personId }, nowMs);
  await services.db.transaction(async (trx) => {
    await savePiecePlan(trx, brand.id, id, { ...noPiecePlan, themeId: idea.themeId }, services.clock.machineNowMs());
    await noteIdeaUses(trx, brand.id, idea.id, [{ kind: 'piece', subjectId: id, name: pieceName(document) }], personId, nowMs);
  });
  return { pieceId: id };
}

async function pieceOfIdea(services: Services, brand: Brand, idea: Idea, nowMs: number): Promise<Piece> {
  if (idea.kind === 'revival') {
    const piece = await findPiece(services.db, brand.id, String(idea.details['pieceId'] ?? ''));
    if (!piece) throw notFound('piece');
    return readPiece({ ...piece.document, title: copyName(pieceName(piece.document)) });
  }
  const templates = await templatesOf(services, brand);
  const { plan } = await getPlan(services.db, brand.id);
  const theme = plan.themes.find(({ id }) => id === idea.themeId);
  const channelIds = theme?.channelIds ? channelsOfTheme(theme, (await listChannels(services.db, brand.id)).map(({ id }) => id)) : [];
  const pictures = await picturesOf(services, brand, idea, nowMs);
  const base = { pictures, template: null, channelIds, words: { caption: idea.text, link: idea.link } } as const;
  if (idea.kind === 'saying') return pieceFromContent(services, brand, templates, { ...base, pictures: [], content: { form: 'quote', roles: { headline: idea.title }, points: [] } });
  if (idea.kind === 'reply') {
    const conversation = await findConversation(services.db, brand.id, String(idea.details['conversationId'] ?? ''));
    const who = conversation?.authorName ?? '';
    return pieceFromContent(services, brand, templates, { ...base, words: {}, content: { form: 'quote', roles: { headline: idea.text, ...(who === '' ? {} : { who, line: who }) }, points: [] } });
  }
  if (sentencesOf(idea.text).length >= ARTICLE_SENTENCES) {
    const { proposals } = await askProposals(services, brand, { source: { name: idea.source || 'the idea', text: `# ${idea.title}\n\n${idea.text}`, link: idea.link }, topic: '', kinds: ['graphic', 'carousel'], themeId: idea.themeId }, { kind: 'all', count: 1 });
    const [best] = proposals;
    const template = best && templates.find(({ key }) => key === best.template);
    if (best && template) {
      const begun = await beginPiece(services, brand, template, []);
      const { link, hashtags, ...words } = best.words;
      return readPieceOr422(() => readPiece({ ...begun, frames: best.frames, words: { shared: { ...begun.words.shared, ...words, ...(link === '' ? {} : { link }), ...(hashtags === '' ? {} : { hashtags }) }, own: {} } }));
    }
  }
  // A prompt asks for something that only a person can tell: it begins the piece, and does not stand on it.
  const content: Content = { form: 'announce', roles: { headline: idea.kind === 'prompt' || idea.kind === 'gap' ? '' : idea.title }, points: [] };
  if (content.roles.headline !== '') return pieceFromContent(services, brand, templates, { ...base, content });
  const template = templates.find(({ key }) => key === (pictures.length > 0 ? 'headland' : 'aside')) ?? null;
  return pieceFromContent(services, brand, templates, { ...base, template, content, title: idea.kind === 'prompt' ? idea.title.slice(0, 120) : '' });
}

/** The picture of an idea: its own, else that of its feed item, fetched now. One that is not there keeps nobody from making the piece. */
async function picturesOf(services: Services, brand: Brand, idea: Idea, nowMs: number): Promise<readonly { readonly id: string; readonly altText: string }[]> {
  if (idea.mediaId !== null) return (await findMediaByIds(services.db, brand.id, [idea.mediaId])).map(({ id, altText }) => ({ id, altText }));
  if (idea.pictureUrl === '') return [];
  try {
    const { id, altText } = await fetchPicture(services, brand, idea.pictureUrl, nowMs);
    return [{ id, altText }];
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    return [];
  }
}

/** Puts an idea into the plan as a placeholder. @throws ProblemError for a moment or a slot that cannot be */
export async function planIdea(services: Services, brand: Brand, idea: Idea, { channelIds, spot }: { readonly channelIds: readonly string[]; readonly spot: Spot }, personId: string, nowMs: number): Promise<{ readonly entryId: string; readonly dueMs: number }> {
  const known = new Set((await listChannels(services.db, brand.id)).map(({ id }) => id));
  if (channelIds.some((id) => !known.has(id))) throw new ProblemError(422, 'unknown-channel', 'One of the channels is not the brand’s.');
  const { wall, dueMs, slotKey } = await momentOfSpot(services, brand, spot, nowMs);
  const entry = await keepEntry(services, brand, { id: nanoid(12), pieceId: null, text: idea.title.slice(0, MAX_PLACEHOLDER), themeId: idea.themeId, campaignId: null, wall, dueMs, zone: brand.zone, slotKey: slotKey ?? null, cuts: channelIds.map((channelId) => ({ channelId, placement: '' })) }, personId);
  await services.db.transaction((trx) => noteIdeaUses(trx, brand.id, idea.id, [{ kind: 'entry', subjectId: entry.id, name: wall }], personId, nowMs));
  return { entryId: entry.id, dueMs };
}

/** Writes an idea into the notes of a theme. @throws ProblemError 404 for a theme that is gone, 409 when somebody changes the plan at this moment */
export async function noteOnTheme(services: Services, brand: Brand, idea: Idea, themeId: string, personId: string, nowMs: number): Promise<void> {
  const { plan, revision } = await getPlan(services.db, brand.id);
  const theme = plan.themes.find(({ id }) => id === themeId);
  if (!theme) throw notFound('theme');
  const line = `– ${idea.title}${idea.link === '' ? '' : ` ${idea.link}`}`;
  const lines = (theme.note ?? '').split('\n').filter((each) => each !== '');
  // Pressed twice, it stands there once.
  const note = (lines.includes(line) ? lines : [...lines, line]).join('\n');
  if (note.length > MAX_THEME_NOTE) throw new ProblemError(422, 'note-full', `The notes of ${theme.name} hold ${MAX_THEME_NOTE.toLocaleString('en-GB')} characters and have no room for this. Remove something from them in Plan, Rota.`);
  const saved = await savePlan(services.db, brand.id, revision, { ...plan, themes: plan.themes.map((each) => (each.id === themeId ? { ...each, note } : each)) }, services.clock.machineNowMs());
  if (saved === null) throw new ProblemError(409, 'stale-revision', 'Somebody else has just changed the plan. Try again.');
  await services.db.transaction((trx) => noteIdeaUses(trx, brand.id, idea.id, [{ kind: 'theme', subjectId: themeId, name: theme.name }], personId, nowMs));
}
