// A photo made small in the browser before it is sent: upright, and without where and when it was
// taken. The program does the same again with whatever comes.

/** The longer edge of what is sent, in pixels, and the most a photo may have by its header. */
export const longest = 1400;
export const mostPixels = 50_000_000;

export interface Size {
  wide: number;
  high: number;
}

/** How large a JPEG or PNG file says it is; undefined where its beginning does not say. */
export function sizeInHeader(bytes: Uint8Array): Size | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length >= 24 && view.getUint32(0) === 0x89504e47)
    return { wide: view.getUint32(16), high: view.getUint32(20) };
  if (bytes.length < 4 || view.getUint16(0) !== 0xffd8) return undefined;
  for (let at = 2; at + 9 <= bytes.length && bytes[at] === 0xff;) {
    const kind = bytes[at + 1]!;
    if (kind === 0xff) {
      at += 1; // a fill byte
      continue;
    }
    // The frame headers; among them are the tables of Huffman (C4), JPEG (C8) and arithmetic coding (CC).
    if (kind >= 0xc0 && kind <= 0xcf && kind !== 0xc4 && kind !== 0xc8 && kind !== 0xcc)
      return { wide: view.getUint16(at + 7), high: view.getUint16(at + 5) };
    at += 2 + view.getUint16(at + 2);
  }
  return undefined;
}

/** How large a photo is sent. */
export function fitted({ wide, high }: Size): Size {
  const by = Math.min(1, longest / Math.max(wide, high));
  return { wide: Math.max(1, Math.round(wide * by)), high: Math.max(1, Math.round(high * by)) };
}

/** The file made small. One that this browser cannot read goes as it is: the program says what is wrong with it. */
export async function shrunk(file: Blob): Promise<Blob> {
  const says = sizeInHeader(new Uint8Array(await file.slice(0, 1 << 20).arrayBuffer()));
  if (says && says.wide * says.high > mostPixels)
    throw new Error(`Its header says ${says.wide} × ${says.high} pixels: more than 50 megapixels are not taken.`);
  let whole: ImageBitmap;
  try {
    whole = await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    return file;
  }
  const size = fitted({ wide: whole.width, high: whole.height });
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [size.wide, size.high];
  const to = canvas.getContext('2d');
  if (!to) return file;
  to.fillStyle = '#fff';
  to.fillRect(0, 0, size.wide, size.high);
  to.drawImage(whole, 0, 0, size.wide, size.high);
  whole.close();
  return await new Promise((done) => canvas.toBlob((small) => done(small ?? file), 'image/jpeg', 0.85));
}
