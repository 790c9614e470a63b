<script setup lang="ts">
import { join } from '#contract/joining';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import ComeIn from './ComeIn.vue';
import PasswordFields from './PasswordFields.vue';

/** The first visit of somebody who has a code: on a join slip, or that of their course. */
const props = defineProps<{ code?: string }>();

const session = useSession();
const router = useRouter();
const typed = ref('');
const name = ref('');
const password = ref('');

async function come(): Promise<string> {
  const { person, login } = await call(join, {
    body: { code: props.code!, password: password.value, ...(name.value.trim() && { name: name.value.trim() }) },
  });
  session.enter(person);
  return login;
}
</script>

<template>
  <main v-if="!code" class="page">
    <h1>Come in with a code</h1>
    <form @submit.prevent="router.push({ name: 'join', params: { code: typed.trim() } })">
      <v-text-field v-model="typed" label="The code on your slip" maxlength="60" autocomplete="off" />
      <v-btn type="submit" variant="flat" color="primary" :disabled="typed.trim() === ''">Go on</v-btn>
    </form>
  </main>
  <ComeIn
    v-else
    v-slot="{ opened }"
    title="Welcome"
    :code="code"
    label="Come in"
    :ready="password !== ''"
    :come-in="come"
  >
    <p v-if="opened.school" class="quiet">{{ opened.school }}</p>
    <template v-if="opened.opens === 'person'">
      <p>
        This is for <strong>{{ opened.name }}</strong>. You will sign in as <strong>{{ opened.login }}</strong>. If that
        is not you, give the slip back to your teacher.
      </p>
    </template>
    <template v-else>
      <p>
        You are coming into <strong>{{ opened.course }}</strong>.
      </p>
      <v-text-field v-model="name" label="Your name, as your teacher knows it" maxlength="200" autocomplete="name" />
    </template>
    <PasswordFields v-model="password" />
  </ComeIn>
</template>

<style scoped>
.page {
  width: min(520px, 100%);
  margin: 0 auto;
  padding: 64px 24px;
}
h1 {
  margin-bottom: 16px;
  font-family: var(--serif);
  font-weight: 500;
  font-size: 36px;
}
form {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
