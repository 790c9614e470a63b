<script setup lang="ts">
import { openSchool } from '#contract/joining';
import { ref } from 'vue';
import { call } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import { ownZone } from '../wording/local-time.ts';
import ComeIn from './ComeIn.vue';
import PasswordFields from './PasswordFields.vue';
import ZoneField from './ZoneField.vue';

/** Names a new school and makes its first teacher. */
const props = defineProps<{ code: string }>();

const session = useSession();
const school = ref('');
const name = ref('');
const zone = ref(ownZone());
const password = ref('');

async function open(): Promise<string> {
  const body = {
    ...{ code: props.code, school: school.value.trim(), zone: zone.value },
    ...{ name: name.value.trim(), password: password.value },
  };
  const { person, login } = await call(openSchool, { body });
  session.enter(person);
  return login;
}
</script>

<template>
  <ComeIn
    title="Set up your school"
    :code="code"
    label="Open the school"
    :ready="school.trim() !== '' && name.trim() !== '' && password !== ''"
    :come-in="open"
  >
    <p class="quiet">
      You are its first teacher and look after its people; others come in by your invitation. Everything can be changed
      later.
    </p>
    <v-text-field v-model="school" label="Name of the school" maxlength="200" autocomplete="organization" />
    <ZoneField v-model="zone" />
    <v-text-field v-model="name" label="Your name, as students see it" maxlength="200" autocomplete="name" />
    <PasswordFields v-model="password" />
  </ComeIn>
</template>
