import type { Delivery } from '../db/delivery-repository.ts';
import { readPin } from '../documents/pins.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { cutSourceOf } from '../render/cut-source.ts';
import type { Services } from '../services.ts';
import type { DerivedFile } from './derived-file.ts';

const KIND = 'delivery-picture';
const FIT_PX = 640;

interface Payload {
  readonly pin: string;
  readonly network: string;
  readonly channelId: string;
  readonly placement: string;
  /** Which slide of a carousel. */
  readonly slide: number;
}

/** What a delivery sends or has sent, small, from what its post has pinned: its first slide, or another one. */
export function deliveryPicture({ media }: Pick<Services, 'media'>, { pin, network, channelId, placement }: Pick<Delivery, 'pin' | 'network' | 'channelId' | 'placement'>, slide = 0): DerivedFile {
  const payload: Payload = { pin, network, channelId, placement, slide };
  return { path: media.derivedPathOf(pin, nameOf(payload)), job: { key: `${KIND}:${pin}:${nameOf(payload)}`, kind: KIND, lane: 'picture', payload: { ...payload }, maxAttempts: 3 } };
}

const nameOf = ({ channelId, placement, slide }: Payload): string => `${channelId}-${placement}${slide === 0 ? '' : `-${slide}`}.webp`;

export function deliveryPictureHandler({ db, media, render }: Pick<Services, 'db' | 'media' | 'render'>): JobHandler {
  return {
    async run(job) {
      const payload = job.payload as unknown as Payload;
      const source = cutSourceOf(await readPin(db, payload.pin), payload.network, payload, media);
      const picture = await render.picture({ kind: 'small', source, fitPx: FIT_PX, only: payload.slide });
      await media.keepDerived(payload.pin, nameOf(payload), picture.bytes);
      return { kind: 'done' };
    },
  };
}
