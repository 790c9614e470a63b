import { pathOf, urlOf } from '#contract/endpoint';
import { readOwnWork } from '#contract/assignments';
import { readCourses } from '#contract/courses';
import { recordingSound } from '#contract/recordings';
import { readSession } from '#contract/session';
import { readFeedback, readWork, type Feedback } from '#contract/submissions';
import { useTimeoutFn } from '@vueuse/core';
import { watch } from 'vue';
import { forgetWork, keepHere, ofWork } from './kept.ts';

/** Only once the page has what it needs itself. */
const LATER_MILLISECONDS = 3000;

/** Keeps a returned work in this browser while it is open, to be heard again without a network. */
export function useKeptHere(
  submission: () => string,
  /** Null where it is known that there is none: the work was taken back. */
  feedback: () => Feedback | null | undefined,
): void {
  const keep = useTimeoutFn(
    () => {
      const returned = feedback();
      if (returned === null) void forgetWork(submission());
      if (!returned?.returnedAt) return;
      const params = { submission: submission() };
      const ways = [readSession, readOwnWork, readCourses].map(({ path }) => `/api${path}`);
      const work = [readWork, readFeedback].map(({ path }) => `/api${pathOf(path, params)}`);
      const sounds = returned.remarks
        .flatMap(({ recording, replies }) => [recording, ...replies.map((reply) => reply.recording)])
        .flatMap((one) => (one ? [urlOf(recordingSound, { recording: one.id, sha256: one.sound.sha256 })] : []));
      // Whatever else of this work the page has asked for: its pictures, its files, its earlier remarks.
      const asked = performance
        .getEntriesByType('resource')
        .map(({ name }) => new URL(name).pathname)
        .filter((path) => path.startsWith(ofWork(params.submission)) && !work.includes(path));
      void keepHere([...ways, ...work], [...new Set([...asked, ...sounds])]);
    },
    LATER_MILLISECONDS,
    { immediate: false },
  );
  watch(
    () => [submission(), feedback() === null, feedback()?.returnedAt],
    () => keep.start(),
    { immediate: true },
  );
}
