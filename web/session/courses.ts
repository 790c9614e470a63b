import { readCourses, type CourseSummary } from '#contract/courses';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { call } from './api.ts';
import { useSession } from './session.ts';

/** The courses of the person who is signed in. */
export const useCourses = defineStore('courses', () => {
  const session = useSession();
  const courses = shallowRef<CourseSummary[]>([]);
  let owner: string | undefined;

  /** Loads them unless they are here already. Where that fails they are asked for again the next time. */
  async function ensure(): Promise<void> {
    const person = session.person?.id;
    if (person === undefined || owner === person) return;
    owner = person;
    courses.value = [];
    courses.value = await call(readCourses).catch(() => {
      owner = undefined;
      return [];
    });
  }

  return { courses, ensure };
});
