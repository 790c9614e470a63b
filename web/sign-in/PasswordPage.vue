<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import { ownData } from '#contract/own-data';
import { changePassword, readSessions, SHORTEST_PASSWORD } from '#contract/session';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import PageFrame from '../shell/PageFrame.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import { browserName } from '../wording/browser-name.ts';
import { dayAndTime } from '../wording/format.ts';

/** A new password, and an end to what is signed in elsewhere. */
const session = useSession();
const router = useRouter();

const { value: sessions } = useLoaded(() => call(readSessions));
const current = ref('');
const next = ref('');
const again = ref('');
const { busy, problem: refused, attempt } = useDeed();
const changed = ref(false);

const tooShort = computed(() => next.value !== '' && next.value.length < SHORTEST_PASSWORD);
const differs = computed(() => again.value !== '' && again.value !== next.value);
const ready = computed(() => current.value && next.value && !tooShort.value && next.value === again.value);

async function change(): Promise<void> {
  changed.value = false;
  const body = { current: current.value, next: next.value };
  if (!(await attempt(() => call(changePassword, { body })))) return;
  changed.value = true;
  current.value = next.value = again.value = '';
}

async function leaveEverywhere(): Promise<void> {
  changed.value = false;
  if (await attempt(session.signOutEverywhere)) await router.push({ name: 'sign-in' });
}
</script>

<template>
  <PageFrame title="Password">
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
    <form @submit.prevent="change">
      <v-text-field
        v-model="current"
        label="Password you have now"
        type="password"
        autocomplete="current-password"
        hide-details
        required
      />
      <v-text-field
        v-model="next"
        label="New password"
        type="password"
        autocomplete="new-password"
        required
        :hide-details="!tooShort"
        :error-messages="tooShort ? `At least ${SHORTEST_PASSWORD} characters` : []"
      />
      <v-text-field
        v-model="again"
        label="New password once more"
        type="password"
        autocomplete="new-password"
        required
        :hide-details="!differs"
        :error-messages="differs ? 'This is not the same' : []"
      />
      <v-btn type="submit" variant="flat" color="primary" :loading="busy" :disabled="!ready">Change the password</v-btn>
      <p v-if="changed" role="status">Changed. You stay signed in here; everywhere else you are signed out.</p>
    </form>
    <section aria-labelledby="everywhere">
      <h2 id="everywhere">Where you are signed in</h2>
      <ul v-if="sessions" class="sessions">
        <li v-for="one in sessions" :key="one.openedAt + one.browser">
          <strong>{{ browserName(one.browser) }}</strong>
          <span v-if="one.here">this one</span>
          <span class="figures quiet"
            >since {{ dayAndTime(one.openedAt) }}, last seen {{ dayAndTime(one.seenAt) }}</span
          >
        </li>
      </ul>
      <p>
        If you left another computer signed in, or lost a phone: this signs you out of all of them, and of this one.
      </p>
      <v-btn variant="outlined" :disabled="busy" @click="leaveEverywhere">Sign out everywhere</v-btn>
    </section>
    <section aria-labelledby="own-data">
      <h2 id="own-data">All your data</h2>
      <p>Everything that you handed in, said and got back, with files and sounds, as one zip file.</p>
      <v-btn variant="outlined" :href="urlOf(ownData, {})">Download all your data</v-btn>
    </section>
  </PageFrame>
</template>

<style scoped>
form {
  display: flex;
  flex-direction: column;
  align-items: start;
  gap: 12px;
  max-width: 340px;
}
form .v-text-field {
  width: 100%;
}
section {
  margin-top: 36px;
  max-width: 68ch;
}
section p {
  margin: 4px 0 12px;
  color: var(--quiet);
}
.sessions {
  margin: 8px 0 12px;
  list-style: none;
}
.sessions li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  padding: 4px 0;
}
.refused {
  margin-bottom: 12px;
}
</style>
