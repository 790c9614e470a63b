import { mount, type VueWrapper } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import type { Component } from 'vue';
import { createVuetify } from 'vuetify';
import * as components from 'vuetify/components';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { PLAIN_MARKING } from '#core/grading';
import type { Recording } from '#contract/recordings';
import type { Remark } from '#contract/remarks';
import { NO_WORDS } from '#contract/said';
import type { Feedback } from '#contract/submissions';

setActivePinia(createPinia());

/** Mounts a component as the app does: with Vuetify and its icons. */
export const mountInApp = (
  component: Component,
  props: Record<string, unknown>,
  stubs: Record<string, Component> = {},
  provide: Record<symbol, unknown> = {},
): VueWrapper =>
  mount(component, {
    props,
    attachTo: document.body,
    global: {
      stubs,
      provide,
      plugins: [createVuetify({ components, icons: { defaultSet: 'mdi', aliases, sets: { mdi } } })],
    },
  });

const level = (id: string, points: number) => ({ id, title: id, description: `about ${id}`, points });

export const recordingOf = (change: Partial<Recording> = {}): Recording => ({
  id: 'recording',
  sound: { sha256: 'a'.repeat(64), duration: 10, peaks: [0, 100, 200], picture: null },
  edit: null,
  language: 'en',
  transcript: null,
  translations: [],
  speech: null,
  heard: null,
  madeAt: '2026-01-01T10:00:00Z',
  ...change,
});

export const remarkOf = (change: Partial<Remark> = {}): Remark => ({
  ...NO_WORDS,
  id: 'remark',
  author: { id: 'teacher', name: 'Teacher' },
  kind: 'repair',
  anchor: { type: 'passage', start: 3, end: 9, quote: { exact: 'turned', prefix: '', suffix: '' } },
  recording: recordingOf({ id: change.id ?? 'remark' }),
  file: null,
  takenAt: null,
  dealtAt: null,
  settled: null,
  madeAt: '2026-01-01T10:00:00Z',
  replies: [],
  ...change,
});

export const feedbackOf = (change: Partial<Feedback> = {}): Feedback => ({
  returnedAt: null,
  remarks: [],
  aside: [],
  rubric: [
    {
      id: 'seen',
      title: 'Observation',
      description: 'What was seen',
      levels: [level('weak', 200), level('strong', 1000)],
    },
    { id: 'known', title: 'Evidence', description: 'How it is known', levels: [level('no', 0), level('yes', 750)] },
  ],
  scale: [{ grade: 'Pass', from: 5000 }],
  scores: {},
  questions: [],
  points: {},
  grade: null,
  marking: PLAIN_MARKING,
  minutesLate: 0,
  standing: { flag: null, extendedUntil: null },
  adjustment: null,
  ...{ readyAt: null, returnAt: null, held: null, returns: [], changed: null },
  ...change,
});
