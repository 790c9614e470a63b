import { readClass, type ClassStates, type Work } from '#contract/submissions';
import { computed, shallowRef, watch, type ComputedRef, type ShallowRef } from 'vue';
import { call } from '../session/api.ts';
import { useFeedback } from '../feedback/feedback-store.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { placeIn, type Place } from './class-place.ts';

/** The class of the work that is open, and the works beside it, which are loaded ahead. */
export function useClass(work: () => Work | undefined): {
  students: ComputedRef<ClassStates['students']>;
  place: ComputedRef<Place | undefined>;
  load: () => Promise<void>;
} {
  const store = useFeedback();
  const outbox = useOutbox();
  const states: ShallowRef<{ assignment: string; value: ClassStates } | undefined> = shallowRef();

  const current = computed(() =>
    states.value?.assignment === work()?.assignment.id ? states.value?.value : undefined,
  );
  const place = computed(() => {
    const open = work();
    return open && current.value && placeIn(current.value, open.student.id);
  });

  /** Failing is no harm: the strip stays as it was, and is asked for again soon. */
  async function load(): Promise<void> {
    const open = work();
    const value = open && (await call(readClass, { params: { submission: open.id } }).catch(() => undefined));
    if (open && value) states.value = { assignment: open.assignment.id, value };
  }

  watch(
    () => [place.value?.next, place.value?.previous],
    (beside) => beside.forEach((submission) => submission && store.loadAhead(submission)),
  );
  // How far a student is changes with what is said and scored.
  watch(outbox.state, (state, before) => state === 'saved' && before !== 'saved' && void load());

  return { students: computed(() => current.value?.students ?? []), place, load };
}
