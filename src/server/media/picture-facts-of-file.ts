import sharp from 'sharp';
import { FACTS_RASTER_PX, takePictureFacts, type FocalPoint, type PictureFacts, type Raster } from '../../core/crop/picture-facts.ts';
import { thingsIn } from '../../core/crop/things.ts';
import { OUTLINE_RASTER_PX, subjectOutline, type SubjectOutline } from '../../core/crop/subject-outline.ts';

/** Takes the facts of a picture from small copies of its file, or of the bytes of one. */
export async function readPictureFacts(file: string | Buffer): Promise<PictureFacts> {
  const facts = takePictureFacts(await smallCopy(file, FACTS_RASTER_PX));
  return { ...facts, outline: await readSubjectOutline(file, facts.focal) };
}

/** What tells a picture's subject from the rest of it. */
export type SubjectFacts = Required<Pick<PictureFacts, 'outline' | 'things'>>;

/** Looks again for the subject of a picture whose other facts are known. */
export async function readSubjectFacts(file: string, focal: FocalPoint): Promise<SubjectFacts> {
  return { outline: await readSubjectOutline(file, focal), things: thingsIn(await smallCopy(file, FACTS_RASTER_PX)) };
}

/** The outline of what stands before its ground around a focal point; null where there is none. */
async function readSubjectOutline(file: string | Buffer, focal: FocalPoint): Promise<SubjectOutline | null> {
  return subjectOutline(await smallCopy(file, OUTLINE_RASTER_PX), focal);
}

async function smallCopy(file: string | Buffer, longSidePx: number): Promise<Raster> {
  const { data, info } = await sharp(file).resize(longSidePx, longSidePx, { fit: 'inside' }).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { widthPx: info.width, heightPx: info.height, rgba: data };
}
