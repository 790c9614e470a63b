import { readReport, type StudentReport } from '#contract/gradebook';
import { readMembers } from '#contract/roster';
import { onScopeDispose, ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue';
import { call, sentenceOf } from '../session/api.ts';

export interface Reports {
  /** Those that are there, in the order of the class. */
  reports: ShallowRef<StudentReport[]>;
  /** How many there will be; undefined as long as nobody knows. */
  total: Ref<number | undefined>;
  error: Ref<string | null>;
  /** Asks for those that are not there yet. */
  load(): Promise<void>;
}

/** Reports of one student, or of everybody in the course: asked for one after another, so that nobody else waits. */
export function useReports(course: () => string, student: () => string | undefined): Reports {
  const reports = shallowRef<StudentReport[]>([]);
  const total = ref<number>();
  const error = ref<string | null>(null);
  const known = new Map<string, StudentReport>();
  let asked = 0;

  async function load(): Promise<void> {
    const mine = ++asked;
    error.value = null;
    try {
      const students = await wanted();
      if (mine !== asked) return;
      total.value = students.length;
      for (const one of students) {
        const report = known.get(one) ?? (await call(readReport, { params: { course: course(), student: one } }));
        if (mine !== asked) return;
        known.set(one, report);
        reports.value = students.flatMap((id) => known.get(id) ?? []);
      }
    } catch (failure) {
      if (mine === asked) error.value = sentenceOf(failure);
    }
  }

  async function wanted(): Promise<string[]> {
    const one = student();
    if (one !== undefined) return [one];
    const { members } = await call(readMembers, { params: { course: course() } });
    return members.flatMap(({ id, teaches, left }) => (teaches || left ? [] : [id]));
  }

  watch(
    [course, student],
    () => {
      known.clear();
      reports.value = [];
      total.value = undefined;
      return load();
    },
    { immediate: true },
  );
  onScopeDispose(() => void asked++);
  return { reports, total, error, load };
}
