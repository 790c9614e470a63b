<script setup lang="ts">
import { linkArrival, newFromArrival, readArrival } from '#contract/platforms';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import { goOn } from '../session/go-on.ts';
import { useCourses } from '../session/courses.ts';
import { useSession } from '../session/session.ts';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** Somebody has come from a learning platform and says whether they have an account here. Nobody else decides that. */
const { value, error, load } = useLoaded(() => call(readArrival));
const session = useSession();
const courses = useCourses();
const router = useRouter();
const { busy, problem, attempt } = useDeed();

const go = (way: typeof linkArrival | typeof newFromArrival): Promise<boolean> =>
  attempt(async () => {
    const { to } = await call(way);
    await session.load();
    await courses.refresh();
    await goOn(router, to);
  });

/** Signed in as somebody else, in this browser. */
const another = (): Promise<boolean> =>
  attempt(async () => {
    await session.signOut();
    await router.push({ name: 'sign-in', query: { to: '/arrived' } });
  });
</script>

<template>
  <main class="page">
    <h1>Do you have an account here?</h1>
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p>
        You opened “{{ value.title }}” on {{ value.platform }} as <strong>{{ value.name }}</strong><template
          v-if="value.mail"
        >
          ({{ value.mail }})</template
        >.
        <template v-if="value.known">Someone here has the same email address.</template>
      </p>
      <section v-if="session.person" aria-labelledby="linking">
        <h2 id="linking">You are signed in as {{ session.person.name }}</h2>
        <p>
          Link this account, and from then on {{ value.platform }} opens it. Link it only if
          <strong>{{ value.name }}</strong> on {{ value.platform }} is you.
        </p>
        <div class="row">
          <v-btn variant="flat" color="primary" :loading="busy" @click="go(linkArrival)">Link my account</v-btn>
          <v-btn :disabled="busy" @click="another">Sign in as someone else</v-btn>
        </div>
      </section>
      <section v-else aria-labelledby="linking">
        <h2 id="linking">I have an account</h2>
        <p>Sign in once to link it.</p>
        <v-btn variant="flat" color="primary" :to="{ name: 'sign-in', query: { to: '/arrived' } }">Sign in</v-btn>
      </section>
      <section aria-labelledby="fresh">
        <h2 id="fresh">I’m new here</h2>
        <p>You get an account of your own, which you open from {{ value.platform }}.</p>
        <v-btn variant="outlined" :disabled="busy" @click="go(newFromArrival)">Create a new account</v-btn>
      </section>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    </template>
  </main>
</template>

<style scoped>
.page {
  max-width: 620px;
  margin: 0 auto;
  padding: 64px 24px;
}
h1 {
  margin-bottom: 16px;
  font-family: var(--serif);
  font-weight: 500;
  font-size: 32px;
  line-height: 1.15;
}
section {
  margin-top: 28px;
}
h2 {
  font-size: 17px;
  font-weight: 650;
}
section p {
  margin-bottom: 10px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
