<script setup lang="ts">
import { useSession } from '../session/session.ts';
import PageNotice from './PageNotice.vue';

/** In another tab of this browser somebody else has signed in. This page speaks for nobody else. */
const session = useSession();
const reload = (): void => location.reload();
</script>

<template>
  <PageNotice v-if="session.other && session.person" button="Reload" @press="reload"
    >Someone else is signed in in this browser now. What you make here as {{ session.person.name }} stays on this device
    and is sent when {{ session.person.name }} signs in again.</PageNotice
  >
</template>
