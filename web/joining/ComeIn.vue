<script setup lang="ts">
import { lookAtCode } from '#contract/joining';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** Behind a code: who one is, a password, and how one signs in from now on. */
const props = defineProps<{
  title: string;
  code: string;
  /** Of the button. */
  label: string;
  ready: boolean;
  /** Answers what one types to sign in from now on. */
  comeIn: () => Promise<string>;
}>();

const router = useRouter();
const {
  value: opened,
  error,
  load,
} = useLoaded(
  () => call(lookAtCode, { body: { code: props.code } }),
  () => props.code,
);
const { busy, problem: refused, attempt } = useDeed();
const login = ref<string>();

async function enter(): Promise<void> {
  await attempt(async () => {
    login.value = await props.comeIn();
  });
}
</script>

<template>
  <main class="page">
    <h1>{{ title }}</h1>
    <div v-if="login" role="status" class="in">
      <p>
        You are in. From now on you sign in as <strong>{{ login }}</strong> with the password that you chose. Write the
        name down if you may forget it.
      </p>
      <v-btn variant="flat" color="primary" autofocus @click="router.push({ name: 'home' })">Go on</v-btn>
    </div>
    <StateNote v-else-if="!opened" :busy="!error" :error="error" @retry="load" />
    <form v-else @submit.prevent="enter">
      <slot :opened="opened" />
      <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
      <v-btn type="submit" variant="flat" color="primary" :loading="busy" :disabled="!ready">{{ label }}</v-btn>
    </form>
    <p v-if="!login" class="quiet">
      <router-link :to="{ name: 'sign-in' }">I have a name and a password already</router-link>
    </p>
  </main>
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
  line-height: 1.15;
}
form,
.in {
  display: flex;
  flex-direction: column;
  gap: 12px;
  align-items: start;
}
form :deep(.v-text-field) {
  width: min(360px, 100%);
}
.quiet {
  margin-top: 24px;
}
</style>
