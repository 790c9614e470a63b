import { kept } from './browser-store.ts';
import type { Parcel } from './parcel.ts';
import { plain } from './plain.ts';

let memoryKey = 0;

/** Parcels in the browser's storage. Where it is full or switched off, a parcel lives in this page only, under a negative key. */
export const parcelStore = {
  /** As they were kept, maybe by an earlier version. */
  of: (person: string): Promise<unknown[]> =>
    kept<unknown[]>((store) => store.getAllFromIndex('parcels', 'person', person), []),
  async add(parts: Omit<Parcel, 'key'>): Promise<Parcel> {
    const parcel = plain(parts);
    const key = await kept((store) => store.add('parcels', parcel), 0);
    return { ...parcel, key: key || --memoryKey };
  },
  /** Whether it still has to be sent; another tab may have done so. */
  has: async ({ key }: Parcel): Promise<boolean> =>
    key < 0 || kept(async (store) => (await store.count('parcels', key)) > 0, true),
  async put(parcel: Parcel): Promise<void> {
    if (parcel.key > 0) await kept((store) => store.put('parcels', plain(parcel)), 0);
  },
  async delete({ key }: Parcel): Promise<void> {
    if (key > 0) await kept((store) => store.delete('parcels', key), undefined);
  },
};

/** Whether it lives in this page only. */
export const isInMemory = ({ key }: Pick<Parcel, 'key'>): boolean => key < 0;
