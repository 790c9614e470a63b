<script setup lang="ts">
/** What is photographed stands here, in the window but not seen: pages are drawn only where they could be seen. */
</script>

<template>
  <Teleport to="body">
    <div class="stage" inert aria-hidden="true"><slot /></div>
  </Teleport>
</template>

<style scoped>
.stage {
  position: fixed;
  inset: 0;
  z-index: -1;
  overflow: auto;
  opacity: 0;
  pointer-events: none;
}
</style>
