import sharp from 'sharp';
import { FACTS_RASTER_PX, takePictureFacts, type FocalPoint, type PictureFacts, type Raster } from '../../core/crop/picture-facts.ts';
import { OUTLINE_RASTER_PX, subjectOutline, type SubjectOutline } from '../../core/crop/subject-outline.ts';

/** Takes the facts of a picture from small copies of its file, or of the bytes of one. */
export async function readPictureFacts(file: string | Buffer): Promise<PictureFacts> {
  const facts = takePictureFacts(await smallCopy(file, FACTS_RASTER_PX));
  return { ...facts, outline: await readSubjectOutline(file, facts.focal) };
}

/** The outline of what stands before its ground around a focal point; null where there is none. */
export async function readSubjectOutline(file: string | Buffer, focal: FocalPoint): Promise<SubjectOutline | null> {
  return subjectOutline(await smallCopy(file, OUTLINE_RASTER_PX), focal);
}

async function smallCopy(file: string | Buffer, longSidePx: number): Promise<Raster> {
  const { data, info } = await sharp(file).resize(longSidePx, longSidePx, { fit: 'inside' }).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { widthPx: info.width, heightPx: info.height, rgba: data };
}
