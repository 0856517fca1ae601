import sharp from 'sharp';
import { FACTS_RASTER_PX, takePictureFacts, type PictureFacts, type Raster } from '../../core/crop/picture-facts.ts';
import { OUTLINE_RASTER_PX, subjectOutline } from '../../core/crop/subject-outline.ts';

/** Takes the facts of a picture from small copies of its file, or of the bytes of one. */
export async function readPictureFacts(file: string | Buffer): Promise<PictureFacts> {
  const facts = takePictureFacts(await smallCopy(file, FACTS_RASTER_PX));
  return { ...facts, outline: subjectOutline(await smallCopy(file, OUTLINE_RASTER_PX), facts.focal) };
}

async function smallCopy(file: string | Buffer, longSidePx: number): Promise<Raster> {
  const { data, info } = await sharp(file).resize(longSidePx, longSidePx, { fit: 'inside' }).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { widthPx: info.width, heightPx: info.height, rgba: data };
}
