<script setup lang="ts">
import { newsSentence } from '#core/workflow';
import { markNoticesSeen, readNotices, setNotices, type NewsItem, type NoticeSettings } from '#contract/notices';
import { computed, ref, watch } from 'vue';
import type { RouteLocationRaw } from 'vue-router';
import { call } from '../session/api.ts';
import { useNews } from '../session/news.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime } from '../wording/format.ts';

/** What is new, and how one wants to be told. */
const { value, error, load } = useLoaded(() => call(readNotices));
const store = useNews();
const settings = ref<NoticeSettings>();
const { problem, attempt } = useDeed();
const saved = ref(false);
const seenBefore = ref<string | null>(null);

watch(value, (now) => {
  if (!now) return;
  settings.value ??= now.settings;
  seenBefore.value = now.seenAt;
  void call(markNoticesSeen).then(store.seen, () => undefined);
});

const HOURS = Array.from({ length: 24 }, (_, hour) => ({ value: hour, title: `${String(hour).padStart(2, '0')}:00` }));
/** Hours are those of the place where they are set. */
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
const isNew = ({ at }: NewsItem): boolean => seenBefore.value === null || at > seenBefore.value;
const mailWords = computed(() => {
  const { mail, sends } = value.value ?? {};
  if (!mail) return 'Your school has no mail address of yours; a teacher can enter it with the people of a course.';
  return `It goes to ${mail}, once a day at the most, and says only where to look.${sends ? '' : ' This server does not send mail yet.'}`;
});

const placeOf = ({ kind, submission, assignmentId }: NewsItem): RouteLocationRaw =>
  submission && (kind === 'returned' || kind === 'answered')
    ? { name: 'returned', params: { submission } }
    : { name: 'assignment', params: { assignment: assignmentId } };

async function change(part: Partial<NoticeSettings>): Promise<void> {
  const before = settings.value!;
  settings.value = { ...before, ...part, zone };
  saved.value = false;
  saved.value = await attempt(() => call(setNotices, { body: settings.value! }));
  if (!saved.value) settings.value = before;
}
</script>

<template>
  <PageFrame title="Notices">
    <StateNote v-if="!value || !settings" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <StateNote v-if="value.news.length === 0">Nothing new within two weeks.</StateNote>
      <ul v-else class="rows news">
        <li v-for="item in value.news" :key="item.kind + (item.submission ?? item.assignmentId)">
          <router-link :to="placeOf(item)">
            <component :is="isNew(item) ? 'strong' : 'span'">{{ newsSentence(item) }}</component>
            <v-chip v-if="isNew(item)">new</v-chip>
            <span class="figures quiet when">{{ dayAndTime(item.at) }}</span>
          </router-link>
        </li>
      </ul>
      <section aria-labelledby="by-mail">
        <h2 id="by-mail">By mail</h2>
        <v-checkbox
          :model-value="settings.byMail"
          label="Tell me by mail too"
          hide-details
          @update:model-value="change({ byMail: $event === true })"
        />
        <p class="quiet">{{ mailWords }}</p>
        <div v-if="settings.byMail" class="one-line hours">
          <v-select
            :model-value="settings.quiet.from"
            :items="HOURS"
            label="No mail from"
            @update:model-value="change({ quiet: { ...settings.quiet, from: $event } })"
          />
          <v-select
            :model-value="settings.quiet.to"
            :items="HOURS"
            label="until"
            @update:model-value="change({ quiet: { ...settings.quiet, to: $event } })"
          />
          <span class="quiet">{{ zone.replaceAll('_', ' ') }}</span>
        </div>
        <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
        <p v-else-if="saved" role="status">Saved.</p>
      </section>
    </template>
  </PageFrame>
</template>

<style scoped>
.news {
  max-width: 760px;
}
section {
  max-width: 68ch;
  margin-top: 32px;
}
.hours {
  max-width: 480px;
  margin-top: 12px;
}
</style>
