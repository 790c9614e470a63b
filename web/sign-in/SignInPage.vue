<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { SignIn } from '#contract/session';
import { goOn } from '../session/go-on.ts';
import { useSchool } from '../session/school.ts';
import { useSession } from '../session/session.ts';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';

const session = useSession();
const router = useRouter();
const route = useRoute();
const { value: school, error, load } = useLoaded(useSchool().load);

const login = ref('');
const password = ref('');
const { busy, problem: refused, attempt } = useDeed();

const teachers = computed(() => school.value?.samplePeople.filter(({ teaches }) => teaches) ?? []);
const students = computed(() => school.value?.samplePeople.filter(({ teaches }) => !teaches) ?? []);

async function enter(credentials: SignIn): Promise<void> {
  await attempt(async () => {
    await session.signIn(credentials);
    await goOn(router, typeof route.query.to === 'string' ? route.query.to : { name: 'home' });
  });
}
</script>

<template>
  <main class="page">
    <h1>Vivid Margin</h1>
    <StateNote v-if="!school" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="school">{{ school.name }}</p>
      <div class="ways" :class="{ sample: school.samplePeople.length > 0 }">
        <section v-if="school.samplePeople.length > 0" aria-label="People of the sample school">
          <p class="lead">This is a sample school, and everyone in it is made up. Pick who you want to be.</p>
          <h2>Teachers</h2>
          <div class="people">
            <v-btn
              v-for="person in teachers"
              :key="person.id"
              variant="flat"
              color="primary"
              @click="enter({ samplePerson: person.id })"
            >
              {{ person.name }}
            </v-btn>
          </div>
          <h2>Students</h2>
          <div class="people">
            <v-btn
              v-for="person in students"
              :key="person.id"
              size="small"
              variant="outlined"
              @click="enter({ samplePerson: person.id })"
            >
              {{ person.name }}
            </v-btn>
          </div>
        </section>
        <form @submit.prevent="enter({ login, password })">
          <p v-if="school.empty" class="empty">
            Nobody is here yet. Whoever started the server finds the address that sets up the school in what it printed.
          </p>
          <h2>With name and password</h2>
          <v-text-field v-model="login" label="Name" autocomplete="username" required />
          <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" required />
          <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
          <v-btn type="submit" variant="flat" color="primary" :loading="busy" :disabled="!login || !password"
            >Sign in</v-btn
          >
          <router-link class="code" :to="{ name: 'join' }">I have a code and come for the first time</router-link>
        </form>
      </div>
    </template>
  </main>
</template>

<style scoped>
.page {
  width: min(980px, 100%);
  margin: 0 auto;
  padding: 64px 24px;
}
h1 {
  font-family: var(--serif);
  font-weight: 500;
  font-size: 40px;
  line-height: 1.1;
}
.school {
  color: var(--quiet);
  font-size: 18px;
  margin-bottom: 32px;
}
.ways.sample {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 48px;
}
.ways:not(.sample) form {
  max-width: 340px;
}
h2 {
  font-size: 15px;
  font-weight: 650;
  margin: 20px 0 8px;
}
section h2:first-of-type,
form h2 {
  margin-top: 12px;
}
.people {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
form {
  align-self: start;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.empty,
.code {
  color: var(--quiet);
}
@media (max-width: 720px) {
  .ways.sample {
    grid-template-columns: 1fr;
  }
}
</style>
