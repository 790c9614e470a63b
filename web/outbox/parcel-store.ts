import type { Parcel } from './outbox.ts';
import { browserStore } from './browser-store.ts';

let memoryKey = 0;

/** Parcels in the browser's storage. Where it is full or switched off, a parcel lives in this page only, under a negative key. */
export const parcelStore = {
  async all(): Promise<Parcel[]> {
    return browserStore()
      .then((store) => store.getAll('parcels'))
      .catch(() => []);
  },
  async add(parcel: Omit<Parcel, 'key'>): Promise<Parcel> {
    const key = await browserStore()
      .then((store) => store.add('parcels', parcel as Parcel))
      .catch(() => --memoryKey);
    return { ...parcel, key };
  },
  /** Whether it still has to be sent; another tab may have done so. */
  async has({ key }: Parcel): Promise<boolean> {
    return key < 0 || (await (await browserStore()).count('parcels', key)) > 0;
  },
  async put(parcel: Parcel): Promise<void> {
    if (parcel.key > 0) await (await browserStore()).put('parcels', parcel);
  },
  async delete({ key }: Parcel): Promise<void> {
    if (key > 0) await (await browserStore()).delete('parcels', key);
  },
};
