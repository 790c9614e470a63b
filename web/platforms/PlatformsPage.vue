<script setup lang="ts">
import { addPlatform, readPlatforms, removePlatform, type NewPlatform, type Platform } from '#contract/platforms';
import { reactive, ref } from 'vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** For the school's steward: learning platforms that people come from. */
const { value, error, load } = useLoaded(() => call(readPlatforms));

const EMPTY: NewPlatform = {
  ...{ name: '', issuer: '', clientId: '', authAddress: '', tokenAddress: '', keysAddress: '', trustsMail: false },
  deployment: '',
};
const FIELDS = [
  { key: 'name', label: 'What you call it' },
  { key: 'issuer', label: 'Issuer (platform id)' },
  { key: 'clientId', label: 'Client id' },
  { key: 'authAddress', label: 'Address for sign-in (OIDC authentication)' },
  { key: 'tokenAddress', label: 'Address for access tokens' },
  { key: 'keysAddress', label: 'Address of its keys (JWKS)' },
] as const;

const draft = reactive<NewPlatform>({ ...EMPTY });
const { busy, problem, attempt } = useDeed();
/** The one that is asked about. */
const leaving = ref<string>();

const go = (deed: () => Promise<unknown>): Promise<boolean> =>
  attempt(async () => {
    await deed();
    await load();
  });
const add = (): Promise<boolean> =>
  go(async () => {
    await call(addPlatform, { body: draft });
    Object.assign(draft, EMPTY);
  });
const remove = ({ id }: Platform): Promise<boolean> => go(() => call(removePlatform, { params: { platform: id } }));
</script>

<template>
  <PageFrame title="Learning platforms">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="quiet wide">
        People come from a learning platform with one press (LTI 1.3), teachers take over its class list, and send it
        grades when they decide to. Enter here what the platform tells you, and there what stands below.
      </p>
      <h2>What to enter there</h2>
      <dl>
        <dt>Sign-in begins at (login initiation)</dt>
        <dd>{{ value.ours.login }}</dd>
        <dt>Opens at (redirect and target)</dt>
        <dd>{{ value.ours.launch }}</dd>
        <dt>Our keys (JWKS)</dt>
        <dd>{{ value.ours.keys }}</dd>
      </dl>
      <h2>Platforms of this school</h2>
      <StateNote v-if="value.platforms.length === 0">None is entered yet.</StateNote>
      <ul v-else>
        <li v-for="one in value.platforms" :key="one.id">
          <div>
            <strong>{{ one.name }}</strong>
            <span class="quiet address"
              >{{ one.issuer }},
              {{ one.trustsMail ? 'mail addresses are trusted' : 'mail addresses are not trusted' }}</span
            >
            <a v-if="one.standIn" :href="one.issuer" target="_blank" rel="noopener">Open it</a>
          </div>
          <template v-if="leaving === one.id">
            <span>Nobody comes in from there any more. People and grades stay.</span>
            <v-btn size="small" variant="flat" color="primary" :loading="busy" @click="remove(one)">Take it out</v-btn>
            <v-btn size="small" @click="leaving = undefined">Leave it</v-btn>
          </template>
          <v-btn v-else size="small" variant="outlined" @click="leaving = one.id">Take out {{ one.name }} …</v-btn>
        </li>
      </ul>
      <h2>Enter a platform</h2>
      <form @submit.prevent="add">
        <v-text-field
          v-for="{ key, label } in FIELDS"
          :key="key"
          v-model="draft[key]"
          :label="label"
          density="compact"
          hide-details
          required
        />
        <v-text-field
          v-model="draft.deployment"
          label="Deployment id"
          hint="If you leave this empty, the deployment of the first launch is kept."
          density="compact"
          persistent-hint
        />
        <v-checkbox
          v-model="draft.trustsMail"
          density="compact"
          hide-details
          label="Whoever has a mail address there is who has it here"
        />
        <p class="quiet wide">
          Select this only if people can’t choose their own address on the platform. Students are then recognised by
          their address; teachers always link their account themselves.
        </p>
        <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
        <v-btn type="submit" variant="flat" color="primary" :loading="busy">Enter it</v-btn>
      </form>
    </template>
  </PageFrame>
</template>

<style scoped>
h2 {
  margin: 22px 0 8px;
}
.wide {
  max-width: 68ch;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 20px;
}
dd {
  overflow-wrap: anywhere;
}
dt {
  color: var(--quiet);
}
ul {
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  padding: 8px 0;
  border-bottom: 1px solid var(--hairline);
}
li > div {
  margin-inline-end: auto;
}
.address {
  margin-inline: 10px;
}
form {
  display: grid;
  gap: 10px;
  justify-items: start;
  max-width: 560px;
}
form > :deep(.v-input) {
  width: 100%;
}
@media (width < 700px) {
  dl {
    grid-template-columns: 1fr;
  }
}
</style>
