import { expect, it } from 'vitest';
import { runCampaign } from '../trouble/campaign.ts';

it('posts go out once, in time and with a reason when they do not, whatever goes wrong on the way', { tags: 'long' }, async () => {
  const result = await runCampaign({ deliveries: 150, seed: 7, hasTrouble: true, say: () => undefined });
  expect(result).toMatchObject({ doubled: 0, lost: 0, early: 0, unexplained: 0 });
  expect(result.sent).toBeGreaterThan(result.deliveries / 2);
});
