import { isWebAddress } from './fields.ts';

/** What a campaign pattern may stand for. */
export interface CampaignValues {
  readonly network: string;
  readonly channel: string;
  readonly piece: string;
}

/** A pattern's placeholders that stand for nothing. */
export function unknownIn(pattern: string): readonly string[] {
  return [...pattern.matchAll(/\{([^{}]*)\}/gu)].map(([, name = '']) => name).filter((name) => !['network', 'channel', 'piece'].includes(name));
}

/**
 * An address of the brand's own site with the parameters of a campaign; other addresses stay as they are, and so do parameters that are there.
 * @param own the brand's link, whose host says which addresses are its own
 * @param pattern a query: `utm_source={network}&utm_campaign={piece}`
 */
export function withCampaign(address: string, own: string, pattern: string, values: CampaignValues): string {
  const [trimmed, site] = [address.trim(), own.trim()];
  if (pattern.trim() === '' || !isWebAddress(trimmed) || !isWebAddress(site)) return address;
  const url = new URL(trimmed);
  const host = new URL(site).hostname.replace(/^www\./u, '');
  if (url.hostname !== host && !url.hostname.endsWith(`.${host}`)) return address;
  for (const [name, value] of new URLSearchParams(pattern.trim().replace(/^\?/u, ''))) {
    const filled = value.replace(/\{(network|channel|piece)\}/gu, (_, key: keyof CampaignValues) => values[key]);
    if (name !== '' && filled !== '' && !url.searchParams.has(name)) url.searchParams.set(name, filled);
  }
  return url.href;
}
