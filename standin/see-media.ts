import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { DOCUMENT_MIME, SUBTITLES_MIME, VIDEO_MIME, type NetworkRules, type SeenMedia } from './rules.ts';

const MAX_SUBTITLE_BYTES = 1024 * 1024;

/** How large a file of a kind may be; 0 where none is taken. */
export function mostBytesOf(rules: NetworkRules, mime: string): number {
  if (mime === DOCUMENT_MIME) return rules.maxDocumentBytes;
  if (mime === VIDEO_MIME) return rules.maxVideoBytes;
  if (mime === SUBTITLES_MIME) return MAX_SUBTITLE_BYTES;
  return rules.mimes.includes(mime) ? rules.maxImageBytes : 0;
}

/** What a file is, by its bytes; null for what is neither picture, document nor video. */
export async function seeMedia(bytes: Uint8Array): Promise<SeenMedia | null> {
  if (Buffer.from(bytes.subarray(0, 5)).toString('latin1') === '%PDF-') {
    const { PDFDocument } = await import('pdf-lib');
    const document = await PDFDocument.load(bytes).catch(() => null);
    const size = document && document.getPageCount() > 0 ? document.getPage(0).getSize() : null;
    // Points become pixels of a page seen at its usual size.
    return document && size ? { mime: DOCUMENT_MIME, widthPx: Math.round(size.width / 0.75), heightPx: Math.round(size.height / 0.75), pages: document.getPageCount(), seconds: 0 } : null;
  }
  if (Buffer.from(bytes.subarray(0, 6)).toString('latin1') === 'WEBVTT') return { mime: SUBTITLES_MIME, widthPx: 0, heightPx: 0, pages: 1, seconds: 0 };
  if (Buffer.from(bytes.subarray(4, 8)).toString('latin1') === 'ftyp') return seeVideo(bytes);
  const seen = await sharp(bytes).metadata().catch(() => null);
  return seen ? { mime: `image/${seen.format}`, widthPx: seen.width, heightPx: seen.height, pages: 1, seconds: 0 } : null;
}

/** A video that every player can play: H.264 in 4:2:0, with sound in AAC. */
async function seeVideo(bytes: Uint8Array): Promise<SeenMedia | null> {
  const folder = mkdtempSync(join(tmpdir(), 'standin-video-'));
  try {
    const path = join(folder, 'video.mp4');
    writeFileSync(path, bytes);
    const { stdout } = await promisify(execFile)('ffprobe', ['-loglevel', 'error', '-show_streams', '-show_format', '-of', 'json', path]);
    const { streams, format } = JSON.parse(stdout) as { streams: readonly { codec_type: string; codec_name: string; pix_fmt?: string; width?: number; height?: number }[]; format: { duration?: string } };
    const video = streams.find((stream) => stream.codec_type === 'video');
    const plays = video?.codec_name === 'h264' && video.pix_fmt === 'yuv420p' && streams.some((stream) => stream.codec_type === 'audio' && stream.codec_name === 'aac');
    return plays ? { mime: VIDEO_MIME, widthPx: video.width ?? 0, heightPx: video.height ?? 0, pages: 1, seconds: Number(format.duration ?? 0) } : null;
  } catch {
    return null;
  } finally {
    rmSync(folder, { recursive: true });
  }
}
