import sharp from 'sharp';
import { STROKES } from '@/core/parcel/signature';

/** Somebody's hand as a picture (PNG, 1000 × 400): dark on white, for papers. @param strokes a path in a field of 100 × 40 */
export const handPicture = (strokes: string): Promise<Buffer> =>
  sharp(
    Buffer.from(
      `<svg xmlns="http://www.w3.org/2000/svg" width="1000" height="400" viewBox="0 0 100 40"><rect width="100" height="40" fill="#fff"/>
      <path d="${STROKES.test(strokes) ? strokes : ''}" fill="none" stroke="#241a26" stroke-width="1" stroke-linejoin="round"/></svg>`,
    ),
  )
    .png()
    .toBuffer();
