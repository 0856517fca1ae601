import { Hono, type Context } from 'hono';
import type { Details, Part } from './details.ts';
import { DroppedConnection, type Faults } from './faults.ts';
import type { NetworkRules } from './rules.ts';
import { readShown, type Post } from './entry.ts';
import type { Account, StandinStore } from './store.ts';

type Asked = Context<{ Variables: { account: Account } }>;
type Verdict = { readonly kind: 'new' } | { readonly kind: 'there' } | { readonly kind: 'refused'; readonly reason: string };

/** What comes behind a post that is public: the further parts of a thread, and its first comment. Asked for twice, each is there once. */
export function followUpsApi(rules: NetworkRules, store: StandinStore, faults: Faults): Hono<{ Variables: { account: Account } }> {
  const api = new Hono<{ Variables: { account: Account } }>();
  const postOf = (context: Asked): Post | null => {
    const post = store.findPost(rules.key, context.req.param('id') ?? '');
    return post && post.handle === context.get('account').handle && store.isReady(post.id, Date.now()) ? post : null;
  };
  const answer = (context: Asked, verdict: Verdict, add: () => void): Response => {
    if (verdict.kind === 'refused') return context.json({ reason: verdict.reason }, 422);
    if (verdict.kind === 'new') add();
    if (faults.strike(rules.key, ['drop-after-publish'])) throw new DroppedConnection();
    return context.json({}, verdict.kind === 'new' ? 201 : 200);
  };

  api.post('/posts/:id/parts', async (context) => {
    const post = postOf(context);
    if (!post) return context.json({ reason: 'There is no such post.' }, 422);
    const { place, text, media } = (await context.req.json().catch(() => ({}))) as Readonly<Record<string, unknown>>;
    const part: Part = { text: String(text ?? ''), media: readShown(media) };
    const isOwn = part.media.every(({ mediaId }) => store.findMedia(mediaId)?.handle === post.handle);
    const { thread = [] } = JSON.parse(post.details) as Details;
    return answer(context, isOwn ? partVerdict(rules, thread, Number(place), part) : { kind: 'refused', reason: 'There is no such picture.' }, () => store.addPart(post, part));
  });
  api.post('/posts/:id/comment', async (context) => {
    const post = postOf(context);
    if (!post) return context.json({ reason: 'There is no such post.' }, 422);
    const { text } = (await context.req.json().catch(() => ({}))) as Readonly<Record<string, unknown>>;
    return answer(context, commentVerdict(rules, post, String(text ?? '')), () => store.addFirstComment(post, String(text)));
  });
  return api;
}

function partVerdict(rules: NetworkRules, thread: readonly Part[], place: number, part: Part): Verdict {
  const most = rules.details.thread ?? 0;
  if (most === 0) return { kind: 'refused', reason: `${rules.name} knows no thread.` };
  if (place >= 1 && place <= thread.length) return thread[place - 1]?.text === part.text ? { kind: 'there' } : { kind: 'refused', reason: `Part ${place} is there, with another text.` };
  if (place !== thread.length + 1) return { kind: 'refused', reason: `The next part is number ${thread.length + 1}.` };
  if (place + 1 > most) return { kind: 'refused', reason: `A thread has at most ${most} posts.` };
  const length = rules.countText(part.text);
  if (part.text.trim() === '' || length > rules.maxText) return { kind: 'refused', reason: `The text has ${length} characters; it needs 1 to ${rules.maxText}.` };
  return { kind: 'new' };
}

function commentVerdict(rules: NetworkRules, { firstComment }: Pick<Post, 'firstComment'>, text: string): Verdict {
  const most = rules.extra.firstComment?.max ?? 0;
  if (most === 0) return { kind: 'refused', reason: `Programs write no comments on ${rules.name}.` };
  if (text.trim() === '' || text.length > most) return { kind: 'refused', reason: `A comment has 1 to ${most} characters.` };
  if (firstComment !== '') return firstComment === text ? { kind: 'there' } : { kind: 'refused', reason: 'There is another first comment.' };
  return { kind: 'new' };
}
