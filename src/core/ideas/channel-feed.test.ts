import { expect, it } from 'vitest';
import { channelFeedAddress, channelOfFeed } from './channel-feed.ts';

it('tells a channel that is followed from a feed of the web', () => {
  expect(channelOfFeed(channelFeedAddress('Qx_1-z'))).toBe('Qx_1-z');
  expect(channelOfFeed('https://channel.example/feed')).toBeNull();
  expect(channelOfFeed('')).toBeNull();
});
