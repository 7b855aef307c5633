import { nth } from '#core/lists/there.ts';
const HEADER_BYTES = 54;

/** A picture as an uncompressed BMP file: browsers read it without any work to write it. @param rgb red, green and blue of each pixel, row by row */
export function bitmapFile({
  width,
  height,
  rgb,
}: {
  width: number;
  height: number;
  rgb: Uint8Array;
}): Uint8Array<ArrayBuffer> {
  const stride = (width * 3 + 3) & ~3;
  const file = new Uint8Array(HEADER_BYTES + stride * height);
  const view = new DataView(file.buffer);
  view.setUint16(0, 0x424d);
  view.setUint32(2, file.length, true);
  view.setUint32(10, HEADER_BYTES, true);
  view.setUint32(14, 40, true);
  view.setInt32(18, width, true);
  // Rows from the top: a negative height.
  view.setInt32(22, -height, true);
  view.setUint16(26, 1, true);
  view.setUint16(28, 24, true);
  for (let j = 0; j < height; j += 1) {
    for (let i = 0, o = HEADER_BYTES + j * stride, p = 3 * j * width; i < width; i += 1, o += 3, p += 3) {
      file[o] = nth(rgb, p + 2);
      file[o + 1] = nth(rgb, p + 1);
      file[o + 2] = nth(rgb, p);
    }
  }
  return file;
}
