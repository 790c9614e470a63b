<script setup lang="ts">
import { computed } from 'vue';
import { useRouter } from 'vue-router';

/** A mark in a drawing that leads to the work behind it. */
const props = defineProps<{ submission: string; name: string }>();
const router = useRouter();
const to = computed(() => ({ name: 'desk', params: { submission: props.submission } }));
</script>

<template>
  <a :href="router.resolve(to).href" :aria-label="name" @click.exact.prevent="router.push(to)">
    <title>{{ name }}</title>
    <slot />
  </a>
</template>
