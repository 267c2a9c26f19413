import { attachmentHash, type EntryOf } from '@/core/kit';

export type NotePhoto = NonNullable<EntryOf<'noted'>['photos']>[number];

/** Longer side of a stored photo, pixels: a solder joint is still seen, a kit file stays small. */
const LONGEST = 1600;
const QUALITY = 0.82;

/** A photo as it is kept: made smaller, its bytes by their hash. Rejects where the browser cannot read the picture. */
export async function keepPhoto(file: File): Promise<{ photo: NotePhoto; bytes: string }> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    if (/\.hei[cf]$/i.test(file.name) || /^image\/hei[cf]/.test(file.type))
      throw new Error(
        `${file.name} is a HEIC picture, which this browser cannot open. Send it from the phone as JPEG (camera settings, “most compatible”), or open it in the phone's gallery and share a copy or a screenshot.`,
      );
    throw new Error(`${file.name} is no picture that this browser can read. Save it as JPEG or PNG.`);
  }
  const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(bitmap.width * scale)), Math.max(1, Math.round(bitmap.height * scale)));
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  const bytes = toBase64(await (await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY })).arrayBuffer());
  return { photo: { name: file.name.slice(0, 120), hash: attachmentHash(bytes), type: 'image/jpeg' }, bytes };
}

function toBase64(buffer: ArrayBuffer): string {
  let text = '';
  for (const byte of new Uint8Array(buffer)) text += String.fromCharCode(byte);
  return btoa(text);
}
