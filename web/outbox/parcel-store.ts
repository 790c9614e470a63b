import { browserStore } from './browser-store.ts';
import type { Parcel } from './parcel.ts';

let memoryKey = 0;

/** Parcels in the browser's storage. Where it is full or switched off, a parcel lives in this page only, under a negative key. */
export const parcelStore = {
  /** As they were kept, maybe by an earlier version. */
  async of(person: string): Promise<unknown[]> {
    return browserStore()
      .then((store) => store.getAllFromIndex('parcels', 'person', person))
      .catch(() => []);
  },
  async add(parcel: Omit<Parcel, 'key'>): Promise<Parcel> {
    const key = await browserStore()
      .then((store) => store.add('parcels', parcel))
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
