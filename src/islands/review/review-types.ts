import type { AnswerOf } from '../../contract/contract.ts';
import type { readOutsideReview } from '../../contract/review-contracts.ts';
import type { RemarkPlace } from '../../core/post/remark-place.ts';

/** A post as those who judge it see it, with an account or without. */
export type ShownReview = Omit<AnswerOf<typeof readOutsideReview>, 'brandName' | 'name' | 'endsMs'>;
export type ReviewCut = ShownReview['cuts'][number];
export type ShownRemark = ShownReview['remarks'][number];

/** What a person can do with remarks; null where they may not. */
export interface RemarkActions {
  readonly add: (remark: { readonly text: string; readonly place: RemarkPlace | null; readonly answerTo: string | null }) => Promise<unknown>;
  readonly resolve: ((id: string, isResolved: boolean) => Promise<unknown>) | null;
}

/** Where the picture of a cut's slide comes from. */
export type PictureSource = (deliveryId: string, slide: number) => string | Promise<string>;

/** Fetches the video of a cut; null while it is being made. */
export type VideoSource = (deliveryId: string) => Promise<Blob | null>;

/** Reads the answer to a request for a video. @throws Error with what is wrong */
export async function videoIn(response: Response): Promise<Blob | null> {
  if (response.status === 503) return null;
  if (!response.ok) throw new Error(((await response.json().catch(() => ({}))) as { readonly title?: string }).title ?? 'The video cannot be shown.');
  return response.blob();
}

/** Open remarks that are not answers, numbered as they stand on the cuts. */
export function numbered(remarks: readonly ShownRemark[]): readonly { readonly remark: ShownRemark; readonly number: number }[] {
  return remarks.filter(({ answerTo }) => answerTo === null).map((remark, index) => ({ remark, number: index + 1 }));
}
