/** Pictures as dots, for formats that take no vectors. */
import sharp from 'sharp';
import type { GivenFiles } from './given-files';

/** A picture in dots, with its size in points. */
export interface Raster {
  png: Buffer;
  width: number;
  height: number;
}

/** Dots a point. */
const sharpness = 2;

/** A drawing in SVG, so many points wide and no higher than so many. */
export async function rasterOf(
  svg: string,
  ratio: number,
  most: { width: number; height: number },
): Promise<Raster> {
  const width = Math.round(Math.min(most.width, most.height * ratio));
  const height = Math.max(1, Math.round(width / ratio));
  // Its own size is that of what it draws, which may be a house.
  const size = ` width="${String(width * sharpness)}" height="${String(height * sharpness)}"`;
  const png = await sharp(Buffer.from(svg.replace(/ width="[^"]*" height="[^"]*"/, size)))
    .resize(width * sharpness, height * sharpness, { fit: 'fill' })
    .flatten({ background: '#ffffff' })
    .png()
    .toBuffer();
  return { png, width, height };
}

/** A picture of the store, inside a box of points. */
export async function pictureRaster(
  { bytes }: GivenFiles[string],
  most: { width: number; height: number },
): Promise<Raster | null> {
  const made = await sharp(bytes, { limitInputPixels: 60_000_000 })
    .resize(most.width * sharpness, most.height * sharpness, { fit: 'inside', withoutEnlargement: true })
    .png()
    .toBuffer({ resolveWithObject: true })
    .catch(() => null);
  return (
    made && {
      png: made.data,
      width: Math.round(made.info.width / sharpness),
      height: Math.round(made.info.height / sharpness),
    }
  );
}
