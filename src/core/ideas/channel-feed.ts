/** A channel of one's own can be read like a feed: what somebody posts there by hand. Its address in the list of feeds is no address of the web. */
const PREFIX = 'channel:';

export function channelFeedAddress(channelId: string): string {
  return `${PREFIX}${channelId}`;
}

/** The channel that a feed is; null when it is one of the web. */
export function channelOfFeed(address: string): string | null {
  return address.startsWith(PREFIX) ? address.slice(PREFIX.length) : null;
}
