import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import type { MediaItem } from './media-address.ts';
import { sampleMedia } from './sample-media.ts';

const photo = { ...testPicture().facts, leastLuminance: [10], mostLuminance: [230] };
const item = (id: string, more: Partial<MediaItem> = {}): MediaItem => ({ id, recording: null, tags: [], facts: photo, focal: photo.focal, widthPx: 2400, heightPx: 1600, altText: '', focalBy: 'proposal', ...more }) as unknown as MediaItem;

describe('the pictures that templates are shown with', () => {
  it('are the best photographs, whatever came in last', () => {
    const latest = [item('logo', { tags: ['mark'] }), item('clip', { recording: { kind: 'clip', durationMs: 1, hasSound: false } as MediaItem['recording'] }), item('thumb', { widthPx: 60, heightPx: 60 }), item('plain'), item('field', { facts: { ...photo, leastLuminance: [120], mostLuminance: [130] } }), item('described', { altText: 'A loaf' })];
    expect(sampleMedia(latest).pictures.photos).toEqual(['described', 'plain', 'thumb', 'logo']);
  });

  it('are the latest of equals, and cut-outs beside them, but no mark', () => {
    const clear = { ...photo, clearShare: 0.6 };
    const { items, pictures } = sampleMedia([item('new'), item('cut', { facts: clear }), item('mark', { facts: clear, tags: ['mark'] }), item('old')]);
    expect(pictures).toEqual({ photos: ['new', 'old'], clear: [], cutOuts: ['cut'] });
    expect(items.map(({ id }) => id)).toEqual(['new', 'old', 'cut']);
  });

  it('leave words room beside their subject before they are the latest', () => {
    const filled = item('hut', { facts: { ...photo, outline: null, things: [{ x: 0.2, y: 0.1, width: 0.7, height: 0.7 }] } });
    const misty = item('mist', { facts: { ...photo, leastLuminance: [100], mostLuminance: [190] } });
    expect(sampleMedia([filled, misty, item('kite')]).pictures.photos).toEqual(['kite', 'hut', 'mist']);
  });

  it('tell which photographs have a subject that stands clear', () => {
    const clear = item('kite', { facts: { ...photo, outline: [[0, 0, 9, 0, 9, 9]] } });
    expect(sampleMedia([item('new'), clear, item('pattern', { facts: { ...photo, outline: null } })]).pictures.clear).toEqual(['kite']);
  });

  it('are what there is where there is nothing better', () => {
    expect(sampleMedia([item('thumb', { widthPx: 60, heightPx: 60 })]).pictures.photos).toEqual(['thumb']);
  });
});
