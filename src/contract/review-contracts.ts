import { array, boolean, number, object, string } from 'yup';
import type { SendSettings } from '../core/post/send-settings.ts';
import { sendSettingsSchema } from '../core/post/send-settings.ts';
import { remarkPlaceSchema, type RemarkPlace } from '../core/post/remark-place.ts';
import { postStates, type PostState } from '../core/post/post-state.ts';
import type { PieceKind } from '../core/piece/piece.ts';
import type { NetworkSheet } from '../core/network/network-sheet.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf, documentOrNull } from './contract.ts';

const postParams = brandParams.shape({ post: string().max(40).required() });
const MAX_REMARK = 2_000;
/** A link for somebody outside lasts at most two weeks. */
const MAX_LINK_HOURS = 336;

const summarySchema = object({
  postId: string().required(),
  pieceId: string().required(),
  pieceName: string().required(),
  makerName: string().required(),
  channels: number().required(),
  dueMs: number().required(),
  needed: number().required(),
  approvedBy: array(string().required()).required(),
  sentBackBy: string().nullable().defined(),
  /** Approved before it was changed. */
  hasChanged: boolean().required(),
  /** A cut to show. */
  deliveryId: string().required(),
});

export const listReviews = contract({
  method: 'GET',
  path: '/api/brands/{brand}/reviews',
  summary: 'Posts that wait for approval: by the caller, or by others',
  params: brandParams,
  answer: object({ mine: array(summarySchema.required()).required(), others: array(summarySchema.required()).required() }),
});

const cutSchema = object({
  deliveryId: string().required(),
  channelName: string().required(),
  network: string().required(),
  badge: documentOrNull<NetworkSheet['badge']>('The sign of its network'),
  placementName: string().required(),
  widthPx: number().required(),
  heightPx: number().required(),
  slides: number().required(),
  fields: array(object({ key: string().required(), label: string().required(), text: string().defined() }).required()).required(),
  findings: array(object({ severity: string<'stops' | 'warns'>().oneOf(['stops', 'warns']).required(), sentence: string().required() }).required()).required(),
});

const remarkSchema = object({
  id: string().required(),
  answerTo: string().nullable().defined(),
  name: string().required(),
  isMine: boolean().required(),
  text: string().required(),
  place: documentOrNull<RemarkPlace>('Where it is'),
  isResolved: boolean().required(),
  atMs: number().required(),
});

/** What somebody who judges a post sees of it. */
const reviewShape = {
  postId: string().required(),
  pieceId: string().required(),
  pieceName: string().required(),
  kind: string<PieceKind>().oneOf(['graphic', 'carousel', 'video']).required(),
  state: string<PostState>().oneOf([...postStates]).required(),
  makerName: string().required(),
  dueMs: number().required(),
  zone: string().required(),
  needed: number().required(),
  approvedBy: array(string().required()).required(),
  sentBackBy: string().nullable().defined(),
  /** Names what is seen; a verdict says which content it is about. */
  seen: string().required(),
  cuts: array(cutSchema.required()).required(),
  remarks: array(remarkSchema.required()).required(),
  history: array(object({ name: string().required(), verdict: string<'approve' | 'changes'>().oneOf(['approve', 'changes']).required(), note: string().defined(), isValid: boolean().required(), atMs: number().required() }).required()).required(),
  /** What differs from what was approved last. */
  changes: array(object({ place: string().required(), before: string().defined(), now: string().defined() }).required()).required(),
};

export const getReview = contract({
  method: 'GET',
  path: '/api/brands/{brand}/posts/{post}/review',
  summary: 'A post exactly as it would go out, with remarks, verdicts, and what has changed since it was approved',
  params: postParams,
  answer: object({
    ...reviewShape,
    mayApprove: boolean().required(),
    /** Why the caller may not approve it, where they have the role. */
    whyNot: string().nullable().defined(),
    pieceChanged: boolean().required(),
    links: array(object({ id: string().required(), name: string().required(), endsMs: number().required() }).required()).required(),
  }),
});

const verdictBody = () => ({
  verdict: string<'approve' | 'changes'>().oneOf(['approve', 'changes']).required(),
  note: string().trim().max(MAX_REMARK).defined().when('verdict', { is: 'changes', then: (schema) => schema.min(1, 'Say what should change') }),
  seen: string().max(64).required(),
});
const standing = () => object({ approvedBy: array(string().required()).required(), isApproved: boolean().required(), sentBackBy: string().nullable().defined() });

export const judgePost = contract({ method: 'POST', path: '/api/brands/{brand}/posts/{post}/verdicts', summary: 'Approve a post, or ask for changes; it counts for exactly what was seen', params: postParams, body: object(verdictBody()).noUnknown(), answer: standing() });

export const reviewAgain = contract({ method: 'POST', path: '/api/brands/{brand}/posts/{post}/review-again', summary: 'Take over the piece as it is now into a post that waits for approval, and ask again', params: postParams, body: object({}).noUnknown() });

const remarkBody = () => ({ text: string().trim().min(1, 'Write something').max(MAX_REMARK).required('Write something'), place: remarkPlaceSchema.nullable().default(undefined), answerTo: string().max(40).nullable() });

export const addRemark = contract({ method: 'POST', path: '/api/brands/{brand}/posts/{post}/remarks', summary: 'Remark on a post: as a whole, on a spot of a cut, a moment of a video, or a field of the words', params: postParams, body: object(remarkBody()).noUnknown(), status: 204 });

export const resolveRemark = contract({ method: 'POST', path: '/api/brands/{brand}/posts/{post}/remarks/{remark}', summary: 'Resolve a remark, or open it again', params: postParams.shape({ remark: string().max(40).required() }), body: object({ isResolved: boolean().required() }).noUnknown() });

export const makeReviewLink = contract({
  method: 'POST',
  path: '/api/brands/{brand}/posts/{post}/review-links',
  summary: 'A link by which somebody without an account can look at this post, remark on it, and judge it; it ends',
  params: postParams,
  body: object({ name: string().trim().min(2, 'Say who gets the link').max(60).required('Say who gets the link'), hours: number().integer().min(1).max(MAX_LINK_HOURS).required() }).noUnknown(),
  answer: object({ id: string().required(), path: string().required(), endsMs: number().required() }),
  status: 201,
});

export const endReviewLink = contract({ method: 'DELETE', path: '/api/brands/{brand}/posts/{post}/review-links/{link}', summary: 'End a link at once', params: postParams.shape({ link: string().max(40).required() }) });

const settings = () => documentOf<SendSettings>('How the brand sends');
export const getSettings = contract({ method: 'GET', path: '/api/brands/{brand}/send-settings', summary: 'How many people approve, by brand and by theme; and how late a missed post may still go out', params: brandParams, answer: object({ settings: settings() }) });
export const keepSettings = contract({ method: 'POST', path: '/api/brands/{brand}/send-settings', summary: 'Change how the brand sends; posts that are scheduled already keep what they were scheduled with', params: brandParams, body: sendSettingsSchema, answer: object({ settings: settings() }) });

const secret = () => string().matches(/^cfr_[\w-]{20,80}$/, 'This link is not complete').required('This link is not complete');

export const readOutsideReview = contract({ method: 'POST', path: '/api/review/read', summary: 'The post that a link for somebody outside leads to', body: object({ secret: secret() }).noUnknown(), answer: object({ ...reviewShape, brandName: string().required(), name: string().required(), endsMs: number().required() }) });
export const judgeOutside = contract({ method: 'POST', path: '/api/review/verdicts', summary: 'Judge a post by a link', body: object({ secret: secret(), ...verdictBody() }).noUnknown(), answer: standing() });
export const remarkOutside = contract({ method: 'POST', path: '/api/review/remarks', summary: 'Remark on a post by a link', body: object({ secret: secret(), ...remarkBody() }).noUnknown(), status: 204 });
export const videoOutside = contract({ method: 'POST', path: '/api/review/video', summary: 'The video of a cut of a post, by a link; 503 while it is being made', body: object({ secret: secret(), deliveryId: string().max(40).required() }).noUnknown(), answer: 'picture' });
export const pictureOutside = contract({ method: 'POST', path: '/api/review/picture', summary: 'A cut of a post, by a link', body: object({ secret: secret(), deliveryId: string().max(40).required(), slide: number().integer().min(0).max(400).required() }).noUnknown(), answer: 'picture' });
