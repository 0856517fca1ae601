import type { VideoFormatName } from '../../contract/video-contracts.ts';

/** Media types of what videos are exported as. */
export const videoMimes: Readonly<Record<VideoFormatName, string>> = { mp4: 'video/mp4', webm: 'video/webm', webp: 'image/webp', gif: 'image/gif', jpg: 'image/jpeg' };
