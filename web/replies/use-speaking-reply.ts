import { computed, type ComputedRef } from 'vue';
import { useRecorder } from '../recorder/use-recorder.ts';

/** Whether an answer to this remark is being spoken. */
export function useSpeakingReply(remark: () => string): ComputedRef<boolean> {
  const { purpose } = useRecorder();
  return computed(() => purpose.value?.type === 'reply' && purpose.value.remark === remark());
}
