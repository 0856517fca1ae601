import { sequenceOf, type FollowUp } from '../../core/post/follow-ups.ts';
import { toMs } from '../../core/video/timeline.ts';
import type { OutgoingFollowUp, OutgoingPost, RemoteMedia } from '../connectors/connector.ts';
import type { Delivery } from '../db/delivery-repository.ts';
import { videoMimes } from '../video/video-mimes.ts';
import type { OutgoingPlan, VideoParts } from './outgoing-files.ts';

type Worded = Pick<Delivery, 'placement' | 'words'>;

/** A post with what follows it, in this order. */
export interface Outgoing {
  readonly post: OutgoingPost;
  readonly followUps: readonly FollowUp[];
  /** Each as the connector takes it. */
  readonly follows: readonly OutgoingFollowUp[];
}

/** A delivery as its connector publishes it, once its files are with the network. @throws RangeError when nothing was uploaded */
export function outgoingOf(delivery: Worded, remoteMedia: readonly string[], { frames, video }: OutgoingPlan): Outgoing {
  const whole = video ? ofVideo(delivery, remoteMedia, video) : ofPictures(delivery, remoteMedia, frames);
  const { words, pictures, followUps } = sequenceOf(whole.words, whole.media.length);
  const [first, ...more] = whole.media;
  const shown = ([from, to]: FollowUp['pictures']): readonly RemoteMedia[] => whole.media.slice(from, to);
  return {
    post: { ...whole, words, media: [first, ...more.slice(0, pictures - 1)] },
    followUps,
    follows: followUps.map(({ kind, text, pictures: span }, index) => ({ kind, place: index + 1, text, media: shown(span) })),
  };
}

function ofVideo({ placement, words }: Worded, [video, ...along]: readonly string[], { cover, coverIsFile, subtitles }: VideoParts): OutgoingPost {
  if (video === undefined) throw new RangeError('A post without a video cannot be published');
  const coverId = coverIsFile ? along[0] : undefined;
  const subtitlesId = subtitles ? along[coverIsFile ? 1 : 0] : undefined;
  const coverAtMs = cover?.kind === 'frame' && !coverIsFile ? Math.round(toMs(cover.frame)) : undefined;
  return { placement, words, media: [{ id: video, altText: words.altText ?? '', mime: videoMimes.mp4 }], along: { ...(coverId === undefined ? {} : { coverId }), ...(coverAtMs === undefined ? {} : { coverAtMs }), ...(subtitlesId === undefined ? {} : { subtitlesId }) } };
}

function ofPictures({ placement, words }: Worded, remoteMedia: readonly string[], frames: OutgoingPlan['frames']): OutgoingPost {
  // A carousel's own alt text says what its first slide shows, where that has none.
  const [first, ...more] = remoteMedia.map((id, index) => ({ id, altText: (frames[index]?.altText ?? '').trim() || (index === 0 ? (words.altText ?? '') : '') }));
  if (!first) throw new RangeError('A post without a picture cannot be published');
  return { placement, words, media: [first, ...more] };
}
