import { z } from 'zod';

export const Id = z.uuid();
export const Instant = z.iso.datetime({ offset: true });
export const Sha256 = z.string().regex(/^[0-9a-f]{64}$/);
export const LanguageTag = z.string().regex(/^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$/, 'is no BCP 47 language tag');

function isZone(name: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: name });
    return true;
  } catch {
    return false;
  }
}

/** A time zone of the IANA database, e.g. `Europe/Lisbon`. */
export const Zone = z.string().max(60).refine(isZone, 'There is no such time zone');

/** Seconds of sound. Under a tenth of a second nothing can have been said; three hours are far beyond a remark. */
export const Duration = z.number().min(0.1).max(10_800);

/** Pages of the web: nothing that runs when it is clicked. */
export const WebLink = z
  .url({ protocol: /^https?$/, error: 'is not a web address; it begins with https://' })
  .max(2000);

/** Whole hundredths of a point or of a per cent. */
export const Hundredths = z.int();

/** Somebody may teach in one course and learn in another. */
export const Person = z.object({ id: Id, name: z.string(), teaches: z.boolean(), learns: z.boolean() });
export type Person = z.infer<typeof Person>;

export const Nothing = z.object({});
