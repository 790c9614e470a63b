import { WHOLE_QUEUE, type QueueFilter } from '#core/workflow';
import { createGlobalState, useLocalStorage } from '@vueuse/core';

/** What is shown of the queue, on the first page and where the desk leads on to. */
export const useQueueFilter = createGlobalState(() => useLocalStorage<QueueFilter>('queue-filter', { ...WHOLE_QUEUE }));
