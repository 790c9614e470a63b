import { readNotes, type Note, type NotePlace } from '#contract/notes';
import { createGlobalState } from '@vueuse/core';
import { shallowRef } from 'vue';
import { call } from '../session/api.ts';

/** For so long an answer is not asked for again by another part of the same page. */
const FRESH_MILLISECONDS = 3000;

/** The notes of each course, as the server has them: several parts of a page show some of them. */
export const useNoteStore = createGlobalState(() => {
  const courses = shallowRef<ReadonlyMap<string, Note[]>>(new Map());
  const asked = new Map<string, Promise<void>>();

  function load(course: string): Promise<void> {
    // Where the server cannot be asked, what is known stays.
    const loading = call(readNotes, { params: { course } })
      .then(
        (notes) => void (courses.value = new Map(courses.value).set(course, notes)),
        () => undefined,
      )
      .finally(() => setTimeout(() => asked.get(course) === loading && asked.delete(course), FRESH_MILLISECONDS));
    asked.set(course, loading);
    return loading;
  }
  return {
    load,
    ensure: (course: string): Promise<void> => asked.get(course) ?? load(course),
    of: (course: string): readonly Note[] => courses.value.get(course) ?? [],
  };
});

export const samePlace = (a: NotePlace, b: NotePlace): boolean =>
  a.place === b.place &&
  ('assignment' in a ? a.assignment : '') === ('assignment' in b ? b.assignment : '') &&
  ('question' in a ? a.question : '') === ('question' in b ? b.question : '');
