/** Pictures as people upload them, made into ones that are safe to serve. */
import sharp from 'sharp';

export const pictureSize = async (bytes: Buffer): Promise<{ width: number; height: number }> => {
  const { width, height } = await sharp(bytes).metadata();
  return { width, height };
};

const MOST_PIXELS = 60_000_000;

/** Whatever else a picture's file carried is left behind: it is drawn anew, turned as its camera said, within `most` pixels. */
export async function cleanPicture(bytes: Buffer, form: 'png' | 'jpeg', most: number): Promise<Buffer> {
  const image = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
    .rotate()
    .resize({ width: most, height: most, fit: 'inside', withoutEnlargement: true });
  return form === 'png'
    ? image.png().toBuffer()
    : image.flatten({ background: '#ffffff' }).jpeg({ quality: 88 }).toBuffer();
}
