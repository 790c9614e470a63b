<script setup lang="ts">
import KeyTable from '../shell/KeyTable.vue';
import SidePanel from '../shell/SidePanel.vue';
import { COMMANDS } from './commands.ts';

defineEmits<{ close: [] }>();
</script>

<template>
  <SidePanel title="Keys" @close="$emit('close')"><KeyTable :commands="COMMANDS" /></SidePanel>
</template>
