import { notThere } from '../../../core/cut/why-not-there.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import type { ViewProps } from '../view-props.ts';

/** The channels that the piece does not go to, each with its reason and the way out. */
export function NotThere({ brand, brandData, piece }: Pick<ViewProps, 'brand' | 'brandData' | 'piece'>) {
  const left = notThere(piece, brandData.channels, brandData.sheets);
  if (left.length === 0) return null;
  return (
    <details className="mt-3 text-sm">
      <summary className="cursor-pointer text-quiet">
        {left.length} {left.length === 1 ? 'channel does' : 'channels do'} not get this piece
      </summary>
      <ul className="mt-1 space-y-1">
        {left.map(({ channelId, reason, way }) => {
          const sheet = brandData.sheets.find(({ key }) => key === brandData.channels.find(({ id }) => id === channelId)?.network);
          return (
            <li key={channelId} className="flex items-center gap-2">
              {sheet && <ChannelBadge badge={sheet.badge} size={15} />}
              <span>{reason}</span>
              {way === 'channels' && (
                <a href={`/b/${brand.slug}/send/channels`} className="font-medium text-house underline">
                  Open Channels
                </a>
              )}
            </li>
          );
        })}
      </ul>
    </details>
  );
}
