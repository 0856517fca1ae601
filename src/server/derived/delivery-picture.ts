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
}

/** What a delivery sends or has sent, small, from what its post has pinned. */
export function deliveryPicture({ media }: Pick<Services, 'media'>, { pin, channelId, placement }: Pick<Delivery, 'pin' | 'channelId' | 'placement'>, network: string): DerivedFile {
  const payload: Payload = { pin, network, channelId, placement };
  return { path: media.derivedPathOf(pin, nameOf(payload)), job: { key: `${KIND}:${pin}:${channelId}:${placement}`, kind: KIND, lane: 'picture', payload: { ...payload }, maxAttempts: 3 } };
}

const nameOf = ({ channelId, placement }: Payload): string => `${channelId}-${placement}.webp`;

export function deliveryPictureHandler({ db, media, render }: Pick<Services, 'db' | 'media' | 'render'>): JobHandler {
  return {
    async run(job) {
      const payload = job.payload as unknown as Payload;
      const source = cutSourceOf(await readPin(db, payload.pin), payload.network, payload, media);
      const picture = await render.picture({ kind: 'small', source, fitPx: FIT_PX });
      await media.keepDerived(payload.pin, nameOf(payload), picture.bytes);
      return { kind: 'done' };
    },
  };
}
