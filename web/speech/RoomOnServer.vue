<script setup lang="ts">
import { readUploadUse } from '#contract/uploads';
import { computedAsync } from '@vueuse/core';
import { call } from '../session/api.ts';
import { byteSize } from '../wording/format.ts';

/** How much more can be kept, before somebody has to make room. */
const use = computedAsync(() => call(readUploadUse).catch(() => undefined));
</script>

<template>
  <section v-if="use" aria-labelledby="room">
    <h2 id="room">Room for recordings</h2>
    <p>You have sent {{ byteSize(use.sent) }} in the last 24 hours; {{ byteSize(use.most) }} is the most for a day.</p>
    <p v-if="use.room">
      The server has {{ byteSize(use.room.free) }} left. When only {{ byteSize(use.room.reserve) }} are left, it keeps
      nothing new until somebody makes room; all that it has can still be read and heard.
    </p>
  </section>
</template>
