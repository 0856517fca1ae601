import { describe, expect, it } from 'vitest';
import { shippedSheets } from '../network/shipped-sheets.ts';
import { notThere } from './why-not-there.ts';

const channel = (network: string, more: { readonly kind?: string; readonly state?: 'ended' } = {}) => ({ id: network, name: `${network} @kites`, network, ...more });
const reasonsOf = (kind: 'graphic' | 'carousel' | 'video', cuts: readonly string[], channels: readonly ReturnType<typeof channel>[]) => notThere({ kind, cuts: cuts.map((channelId) => ({ channelId, placement: 'x' })) }, channels, shippedSheets);

describe('why a piece does not go to a channel', () => {
  it('is nothing where it goes', () => {
    expect(reasonsOf('graphic', ['petalry'], [channel('petalry')])).toEqual([]);
  });

  it('is the kind of piece, with another kind as the way out', () => {
    expect(reasonsOf('video', [], [channel('kerbside')])).toEqual([{ channelId: 'kerbside', reason: 'Kerbside takes no videos. Make a graphic of its best moment instead.', way: 'none' }]);
    expect(reasonsOf('graphic', [], [channel('whirlo')])).toMatchObject([{ reason: 'Whirlo takes no single pictures. Make a video of it instead.' }]);
  });

  it('is a cut that is missing, mended in Look', () => {
    expect(reasonsOf('graphic', [], [channel('quipline')])).toMatchObject([{ reason: 'This piece has no cut for quipline @kites. Add one in Look.', way: 'look' }]);
  });

  it('is an access that has ended, whatever else holds', () => {
    expect(reasonsOf('graphic', ['petalry'], [channel('petalry', { state: 'ended' })])).toMatchObject([{ reason: 'The access to petalry @kites has ended. Connect it again in Send > Channels.', way: 'channels' }]);
  });
});
