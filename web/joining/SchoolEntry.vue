<script setup lang="ts">
import { changeSchool, type School } from '#contract/school';
import { ref } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import ZoneField from './ZoneField.vue';

/** What was said of the school at set-up. */
const props = defineProps<{ school: School }>();
const emit = defineEmits<{ changed: [] }>();

const name = ref(props.school.name);
const zone = ref(props.school.zone);
const { busy, problem, attempt } = useDeed();

const save = () =>
  attempt(async () => {
    await call(changeSchool, { body: { name: name.value.trim(), zone: zone.value } });
    emit('changed');
  });
</script>

<template>
  <form class="school" @submit.prevent="save">
    <v-text-field v-model="name" label="Name of the school" maxlength="200" />
    <ZoneField v-model="zone" />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <v-btn type="submit" variant="outlined" :loading="busy" :disabled="name.trim() === ''">Save school</v-btn>
  </form>
</template>

<style scoped>
.school {
  display: grid;
  gap: 10px;
  justify-items: start;
  margin-top: 14px;
  max-width: 420px;
}
.school > :deep(.v-input) {
  width: 100%;
}
</style>
