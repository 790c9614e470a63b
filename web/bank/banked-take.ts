import { z } from 'zod';
import type { TakeKind } from '../recorder/take-kind.ts';

/** A remark that is spoken right into the bank. */
export const BANKED_TAKE: TakeKind<object> = { type: 'banked', about: z.object({}) };
export const BANK_PLACE = 'bank';
