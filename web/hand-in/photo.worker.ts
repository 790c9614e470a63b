/// <reference lib="webworker" />
import { stretchContrast } from '#core/photo';

export interface PhotoEdit {
  /** Quarters clockwise. */
  turns: number;
  contrast: boolean;
  /** What is left of it as it is turned, in pixels; all where it is absent. */
  part?: { x: number; y: number; width: number; height: number };
}

export interface PhotoRequest {
  file: Blob;
  edit: PhotoEdit;
}

export type PhotoAnswer = { photo: Blob } | { failed: string };

const QUALITY = 0.9;

async function edited({ file, edit: { turns, contrast, part } }: PhotoRequest): Promise<Blob> {
  const whole = await createImageBitmap(file, { imageOrientation: 'from-image' });
  const [across, down] = turns % 2 === 1 ? [whole.height, whole.width] : [whole.width, whole.height];
  const { x, y, width, height } = part ?? { x: 0, y: 0, width: across, height: down };
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d', { willReadFrequently: contrast });
  if (!context) throw new Error('This browser cannot draw the photo');
  context.translate(across / 2 - x, down / 2 - y);
  context.rotate((turns * Math.PI) / 2);
  context.drawImage(whole, -whole.width / 2, -whole.height / 2);
  whole.close();
  if (contrast) {
    const pixels = context.getImageData(0, 0, canvas.width, canvas.height);
    if (stretchContrast(pixels.data)) context.putImageData(pixels, 0, 0);
  }
  // What was kept without loss stays so.
  return canvas.convertToBlob({ type: file.type === 'image/png' ? 'image/png' : 'image/jpeg', quality: QUALITY });
}

self.onmessage = async ({ data }: MessageEvent<PhotoRequest>): Promise<void> => {
  try {
    self.postMessage({ photo: await edited(data) } satisfies PhotoAnswer);
  } catch (error) {
    self.postMessage({ failed: String(error) } satisfies PhotoAnswer);
  }
};
