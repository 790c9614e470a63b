import { readCourses, type CourseSummary } from '#contract/courses';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { call } from './api.ts';
import { useSession } from './session.ts';

/** The courses of the person who is signed in. */
export const useCourses = defineStore('courses', () => {
  const session = useSession();
  const courses = shallowRef<CourseSummary[]>([]);
  /** Whether it is known which they are. */
  const known = ref(false);
  let owner: string | undefined;

  /** Loads them unless they are here already. Where that fails they are asked for again the next time. */
  async function ensure(): Promise<void> {
    const person = session.person?.id;
    if (person === undefined || owner === person) return;
    owner = person;
    known.value = false;
    courses.value = [];
    try {
      courses.value = await call(readCourses);
      known.value = true;
    } catch {
      owner = undefined;
    }
  }

  /** There is one more, or one is called something else. */
  async function refresh(): Promise<void> {
    owner = undefined;
    await ensure();
  }

  return { courses, known, ensure, refresh };
});
