import { computed, type ComputedRef } from 'vue';
import { aboutOf } from '../recorder/take-kind.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import { ANSWER_TAKE } from './answer-take.ts';

/** Whether an answer to this remark is being spoken. */
export function useSpeakingReply(remark: () => string): ComputedRef<boolean> {
  const { purpose } = useRecorder();
  return computed(() => aboutOf(ANSWER_TAKE, purpose.value)?.remark === remark());
}
