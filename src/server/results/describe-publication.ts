import { describePost } from '../../core/results/describe-post.ts';
import { findDelivery } from '../db/delivery-repository.ts';
import { findPost } from '../db/post-repository.ts';
import { describe, type Publication } from '../db/publication-repository.ts';
import { planFiles } from '../dispatch/outgoing-files.ts';
import { readPin } from '../documents/pins.ts';
import type { Services } from '../services.ts';

/** Writes down what a post of ours was, so that posts can be compared: once, from what it was pinned as. */
export async function describePublication({ db, media }: Pick<Services, 'db' | 'media'>, publication: Publication): Promise<void> {
  if (publication.format !== null || publication.deliveryId === null) return;
  const delivery = await findDelivery(db, publication.brandId, publication.deliveryId);
  const post = delivery && (await findPost(db, publication.brandId, delivery.postId));
  if (!delivery || !post) return;
  const plan = planFiles({ media }, await readPin(db, delivery.pin), delivery);
  const { format, traits } = describePost(delivery.words, plan.frames, plan.video ? 'video' : plan.asDocument ? 'document' : 'pictures');
  await describe(db, publication.id, { format, themeId: post.themeId, campaignId: post.campaignId, templateKey: plan.snapshot.piece.template.key, madeBy: post.createdBy, traits });
}
