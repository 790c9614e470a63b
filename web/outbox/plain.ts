import { toRaw } from 'vue';

/** A value as the browser's storage can keep it: without what makes it reactive, at whatever depth. Bytes stay what they are. */
export function plain<T>(value: T): T {
  const raw = toRaw(value);
  if (Array.isArray(raw)) return raw.map(plain) as T;
  if (typeof raw !== 'object' || raw === null || ![Object.prototype, null].includes(Object.getPrototypeOf(raw) as null))
    return raw;
  return Object.fromEntries(Object.entries(raw).map(([name, one]) => [name, plain(one)])) as T;
}
