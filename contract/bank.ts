import { z } from 'zod';
import { Anchor } from './anchor.ts';
import { Id, Instant, LanguageTag, Nothing } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Kind } from './margin-key.ts';
import { NewRecording, Recording } from './recordings.ts';
import { Remark } from './remarks.ts';
import { PlainContent } from './said.ts';
import { NewSound } from './sound.ts';
import { MOST_SAID, Transcript } from './transcripts.ts';

/** The keys that a banked remark can keep. */
export const MOST_PINNED = 9;
/** How many are shown at once. */
export const BANK_PAGE = 50;

/** With whom it is shared: all who teach a course, or a colleague. */
const Shared = z.object({ courses: z.array(Id).max(100), people: z.array(Id).max(100) });

/** What is said of a banked remark beside what it says. */
const BankedAbout = z.object({
  /** In longer words, for finding it. */
  description: z.string().trim().max(2_000),
  kind: Kind,
  /** Title of a criterion, so that it serves other rubrics too; empty where it serves all of them. */
  criterion: z.string().trim().max(200),
  /** How many of its words are said before a name is. */
  gap: z.int().min(1).nullable(),
});

/** What became of a banked remark: its copies are counted, whatever was changed about them since. */
const Usage = z.object({
  uses: z.int(),
  lastUsedAt: Instant.nullable(),
  /** How many students have heard it to the end, and how many have answered. */
  heard: z.int(),
  answered: z.int(),
});

export const BankedRemark = PlainContent.extend(BankedAbout.shape)
  .extend(Usage.shape)
  .extend({
    id: Id,
    /** Of what it says. */
    language: LanguageTag,
    owner: z.object({ id: Id, name: z.string() }),
    /** Empty for whom it is shared with. */
    shared: Shared,
    /** Whether others may have it said in its owner's voice; otherwise they get its words, to be spoken. */
    lendsVoice: z.boolean(),
    pinned: z.int().min(1).max(MOST_PINNED).nullable(),
    recording: Recording.nullable(),
    madeAt: Instant,
    asideAt: Instant.nullable(),
  });
export type BankedRemark = z.infer<typeof BankedRemark>;

export const NewBanked = PlainContent.extend(BankedAbout.shape).extend({
  /** Of what is written; null for one's own. What is spoken has the language of its transcript. */
  language: LanguageTag.nullable().default(null),
  /** A fresh one; its file comes along. */
  recording: NewRecording.nullable().default(null),
  /** The remark that is kept: its recording is copied, with all that is known of it. */
  from: Id.nullable().default(null),
});
export type NewBanked = z.infer<typeof NewBanked>;

export const BankedChange = PlainContent.extend(BankedAbout.shape)
  .extend({ pinned: BankedRemark.shape.pinned, shared: Shared, lendsVoice: z.boolean(), language: LanguageTag })
  .partial();
export type BankedChange = z.infer<typeof BankedChange>;

/** Sending it twice keeps it once: the browser chooses its id. */
export const keepInBank = endpoint({
  method: 'PUT',
  path: '/bank/:banked',
  body: NewBanked,
  upload: { files: 'perhaps', largest: 'recording' },
  answer: BankedRemark,
});
export const readBanked = endpoint({ method: 'GET', path: '/bank/:banked', answer: BankedRemark });
export const changeBanked = endpoint({
  method: 'PATCH',
  path: '/bank/:banked',
  body: BankedChange,
  answer: BankedRemark,
});
export const putBankedAside = endpoint({
  method: 'PUT',
  path: '/bank/:banked/aside',
  body: z.object({ aside: z.boolean() }),
  answer: BankedRemark,
});
/** One takes the place of another: the other's uses are counted as its own, and the other is put aside. */
export const mergeBanked = endpoint({
  method: 'PUT',
  path: '/bank/:banked/merged',
  body: z.object({ into: Id }),
  answer: BankedRemark,
});
/** What a copy says now takes the place of what the bank said; copies on works stay as they are. */
export const takeBetter = endpoint({
  method: 'PUT',
  path: '/bank/:banked/better',
  body: z.object({ remark: Id, recording: Id }),
  answer: BankedRemark,
});
export const readUses = endpoint({
  method: 'GET',
  path: '/bank/:banked/uses',
  answer: z.array(
    z.object({
      remark: Id,
      submission: Id,
      student: z.string(),
      assignment: z.string(),
      usedAt: Instant,
      heardAt: Instant.nullable(),
      answers: z.int(),
      /** It says something else than the bank by now. */
      edited: z.boolean(),
    }),
  ),
});

export const BANK_ORDERS = ['best', 'name', 'newest', 'used', 'lastUsed'] as const;
const Filters = z.object({
  kind: Kind.nullable().default(null),
  criterion: z.string().max(200).nullable().default(null),
  language: LanguageTag.nullable().default(null),
  tag: z.string().max(40).nullable().default(null),
  /** Whose. */
  owner: Id.nullable().default(null),
  /** Only those that nobody said, and nobody kept, in the last year. */
  unused: z.boolean().default(false),
  /** Those that were put aside instead of those that were not. */
  aside: z.boolean().default(false),
});
export const BankSearch = Filters.extend({
  query: z.string().max(500),
  order: z.enum(BANK_ORDERS).default('best'),
  offset: z.int().min(0).max(1_000_000).default(0),
});
export type BankSearch = z.infer<typeof BankSearch>;
export const BankFound = z.object({ remarks: z.array(BankedRemark), total: z.int() });
export type BankFound = z.infer<typeof BankFound>;

export const findInBank = endpoint({ method: 'POST', path: '/bank/find', body: BankSearch, answer: BankFound });
/** What there is to filter by. */
export const readBankFilters = endpoint({
  method: 'GET',
  path: '/bank/filters',
  answer: z.object({
    total: z.int(),
    aside: z.int(),
    unused: z.int(),
    kinds: z.array(z.string()),
    criteria: z.array(z.string()),
    languages: z.array(z.string()),
    tags: z.array(z.string()),
    owners: z.array(z.object({ id: Id, name: z.string() })),
  }),
});
/** With whom one can share: other teachers of the school. */
export const readColleagues = endpoint({
  method: 'GET',
  path: '/bank/colleagues',
  answer: z.array(z.object({ id: Id, name: z.string() })),
});

/** A passage with what stands around it. */
const Around = z.object({
  before: z.string().max(1_000),
  passage: z.string().max(5_000),
  after: z.string().max(1_000),
});
export type Around = z.infer<typeof Around>;

/** Why a remark is suggested; see core/bank. */
export const Reason = z.discriminatedUnion('why', [
  z.object({ why: z.literal('like'), uses: z.int() }),
  z.object({ why: z.literal('label'), label: z.string(), says: z.string() }),
  z.object({ why: z.literal('kind') }),
  z.object({ why: z.literal('criterion') }),
  z.object({ why: z.literal('often'), uses: z.int() }),
]);
export type Reason = z.infer<typeof Reason>;

export const suggestFromBank = endpoint({
  method: 'POST',
  path: '/submissions/:submission/bank',
  body: Around.extend({ kind: Kind.nullable(), criterion: z.string().max(200).nullable() }),
  answer: z.object({
    /** The criterion that the passage is most likely about. */
    criterion: z.string().nullable(),
    suggestions: z.array(z.object({ remark: BankedRemark, reasons: z.array(Reason) })),
  }),
});

/** A banked remark on a work: a copy of it, with a greeting spliced in where one is sent along. */
export const Drop = z.object({
  banked: Id,
  anchor: Anchor,
  kind: Kind,
  criterion: Id.nullable(),
  around: Around,
  /** The id of the copied recording. */
  recording: Id,
  greeted: z.object({ sound: NewSound, transcript: Transcript.nullable() }).nullable().default(null),
});
export type Drop = z.infer<typeof Drop>;

export const dropBanked = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/banked/:remark',
  body: Drop,
  upload: { files: 'perhaps', largest: 'recording' },
  answer: Remark,
});

/** Whether nearly the same is in the bank, and how often the person has said nearly the same on works. */
export const findAlike = endpoint({
  method: 'POST',
  path: '/bank/alike',
  body: z.object({ text: z.string().max(MOST_SAID), language: LanguageTag, except: Id.nullable().default(null) }),
  answer: z.object({ banked: z.array(BankedRemark), said: z.int() }),
});

/** A few words to one student, in the order of names. */
export const Greeting = z.object({ student: Id, name: z.string(), recording: Recording.nullable() });
export type Greeting = z.infer<typeof Greeting>;

export const readGreetings = endpoint({
  method: 'GET',
  path: '/courses/:course/greetings',
  answer: z.array(Greeting),
});
export const keepGreeting = endpoint({
  method: 'PUT',
  path: '/courses/:course/greetings/:student',
  body: z.object({ recording: NewRecording }),
  upload: { files: 'one', largest: 'recording' },
  answer: Greeting,
});
export const removeGreeting = endpoint({
  method: 'DELETE',
  path: '/courses/:course/greetings/:student',
  answer: Nothing,
});
