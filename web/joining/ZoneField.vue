<script setup lang="ts">
/** In which time zone a school's days are. */
const zone = defineModel<string>({ required: true });

const items = [...new Set(['UTC', zone.value, ...Intl.supportedValuesOf('timeZone')])].map((value) => ({
  value,
  title: value.replaceAll('_', ' '),
}));
</script>

<template>
  <v-autocomplete
    v-model="zone"
    :items="items"
    label="Time zone"
    density="default"
    hide-no-data
    aria-describedby="zone-hint"
  />
  <p id="zone-hint" class="fine">
    For due dates in exported files, and for the quiet hours of people who haven’t signed in yet.
  </p>
</template>
