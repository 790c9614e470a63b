<script setup lang="ts">
import { mdiPlay } from '@mdi/js';
import { computed } from 'vue';
import { usePlayer } from '../player/player.ts';
import { recordingUrl } from '../player/media-url.ts';
import HoldButton from './HoldButton.vue';
import type { GreetingHere } from './use-greeting.ts';

/** Whether what is dropped begins with a few words to this student, and the way to say them. */
const props = defineProps<{ greeting: GreetingHere; name: string }>();

const player = usePlayer();
const first = computed(() => props.name.split(' ')[0]!);
const { wanted, recording, speaking } = props.greeting;
</script>

<template>
  <section class="greeting" aria-label="Greeting">
    <p v-if="!greeting.possible" class="quiet">This browser cannot put a greeting before a recording.</p>
    <template v-else>
      <div class="row">
        <v-checkbox v-model="wanted" :disabled="!recording" :label="`Begin with your greeting to ${first}`" />
        <v-btn
          v-if="recording"
          :icon="mdiPlay"
          size="28"
          :aria-label="`Play your greeting to ${first}`"
          @click="player.toggle(recording.id, recordingUrl(recording))"
        />
      </div>
      <HoldButton
        class="hold"
        :speaking="speaking"
        :label="`Hold and greet ${first}${recording ? ' anew' : ''}`"
        @speak="greeting.speak"
        @hush="greeting.hush"
      />
    </template>
  </section>
</template>

<style scoped>
.greeting {
  margin-top: 12px;
  padding-top: 8px;
  border-top: 1px solid var(--hairline);
  font-size: 13px;
}
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.hold {
  width: 100%;
}
</style>
