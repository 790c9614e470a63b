<script setup lang="ts">
import { SHORTEST_PASSWORD } from '#contract/session';
import { computed, ref, watch } from 'vue';

/** A password that somebody chooses, typed twice. */
const password = defineModel<string>({ required: true });

const first = ref('');
const again = ref('');
const tooShort = computed(() => first.value !== '' && first.value.length < SHORTEST_PASSWORD);
const differs = computed(() => again.value !== '' && again.value !== first.value);
watch([first, again], () => {
  password.value = !tooShort.value && first.value === again.value ? first.value : '';
});
</script>

<template>
  <v-text-field
    v-model="first"
    label="Choose a password"
    type="password"
    autocomplete="new-password"
    required
    :error-messages="tooShort ? `At least ${SHORTEST_PASSWORD} characters` : []"
  />
  <v-text-field
    v-model="again"
    label="The password once more"
    type="password"
    autocomplete="new-password"
    required
    :error-messages="differs ? 'This is not the same' : []"
  />
</template>
