import { describe, expect, it } from 'vitest';
import { fitted, sizeInHeader } from './shrink';

const jpeg = (...segments: number[][]) => Uint8Array.from([0xff, 0xd8, ...segments.flat(), 0, 0, 0, 0, 0, 0, 0, 0]);

describe('a photo before it is sent', () => {
  it('says its size in its header', () => {
    const frame = [0xff, 0xc2, 0, 17, 8, 0x0b, 0xb8, 0x0f, 0xa0]; // 4000 × 3000
    const exif = [0xff, 0xe1, 0, 6, 1, 2, 3, 4];
    const huffman = [0xff, 0xc4, 0, 4, 0, 0];
    expect(sizeInHeader(jpeg(exif, huffman, [0xff], frame))).toEqual({ wide: 4000, high: 3000 });
    const png = new Uint8Array(33);
    png.set([
      0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52, 0, 0, 0x27, 0x10, 0, 0, 1, 0,
    ]);
    expect(sizeInHeader(png)).toEqual({ wide: 10000, high: 256 });
    for (const none of [[], [1, 2, 3, 4], [0xff, 0xd8, 0xff]])
      expect(sizeInHeader(Uint8Array.from(none))).toBeUndefined();
    expect(sizeInHeader(jpeg(exif))).toBeUndefined();
  });
  it('keeps its shape', () => {
    expect(fitted({ wide: 4000, high: 3000 })).toEqual({ wide: 1400, high: 1050 });
    expect(fitted({ wide: 1, high: 9000 })).toEqual({ wide: 1, high: 1400 });
    expect(fitted({ wide: 640, high: 480 })).toEqual({ wide: 640, high: 480 });
  });
});
