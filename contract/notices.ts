import { NEWS_KINDS } from '#core/workflow';
import { z } from 'zod';
import { Id, Instant, Zone } from './basics.ts';
import { endpoint } from './endpoint.ts';

const Hour = z.int().min(0).max(23);

export const NoticeSettings = z.object({
  byMail: z.boolean(),
  quiet: z.object({ from: Hour, to: Hour }),
  /** In which these hours are. */
  zone: Zone,
});
export type NoticeSettings = z.infer<typeof NoticeSettings>;

export const NewsItem = z.object({
  kind: z.enum(NEWS_KINDS),
  assignment: z.string(),
  /** A student's own work; null for a teacher. */
  submission: Id.nullable(),
  assignmentId: Id,
  count: z.int(),
  at: Instant,
});
export type NewsItem = z.infer<typeof NewsItem>;

export const Notices = z.object({
  settings: NoticeSettings,
  /** Where mail goes; null where the school has no address. */
  mail: z.string().nullable(),
  /** Whether this server sends mail at all. */
  sends: z.boolean(),
  /** What is new within two weeks, the latest first. */
  news: z.array(NewsItem),
  /** Until when it has been seen. */
  seenAt: Instant.nullable(),
});
export type Notices = z.infer<typeof Notices>;

export const readNotices = endpoint({ method: 'GET', path: '/notices', answer: Notices });
export const setNotices = endpoint({ method: 'PUT', path: '/notices', body: NoticeSettings, answer: NoticeSettings });
export const markNoticesSeen = endpoint({
  method: 'POST',
  path: '/notices/seen',
  answer: z.object({ seenAt: Instant }),
});
