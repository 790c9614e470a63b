import type { PhotoAnswer, PhotoEdit, PhotoRequest } from './photo.worker.ts';

export type { PhotoEdit };

/** What every browser can open as pixels. */
const PHOTOS = ['image/jpeg', 'image/png', 'image/webp'];

export const isPhoto = ({ type }: Blob): boolean => PHOTOS.includes(type) && typeof OffscreenCanvas === 'function';

/**
 * A photo with a part cut out of it, turned, and with more contrast; it says nothing of where and by whom it was taken.
 * @throws Error where it cannot be opened
 */
export async function editPhoto(file: File, edit: PhotoEdit): Promise<File> {
  const worker = new Worker(new URL('./photo.worker.ts', import.meta.url), { type: 'module' });
  try {
    const answer = await new Promise<PhotoAnswer>((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<PhotoAnswer>) => resolve(data);
      worker.onerror = () => reject(new Error('The photo could not be worked on'));
      worker.postMessage({ file, edit } satisfies PhotoRequest);
    });
    if ('failed' in answer) throw new Error(answer.failed);
    const ending = answer.photo.type === 'image/png' ? 'png' : 'jpg';
    return new File([answer.photo], `${file.name.replace(/\.[^.]*$/u, '')}.${ending}`, { type: answer.photo.type });
  } finally {
    worker.terminate();
  }
}
