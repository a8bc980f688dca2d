<script setup lang="ts">
import { useBuildId } from './useBuild'

/** The first thing to do on an empty page, as a button that leads to where it is done. */
const { path } = defineProps<{ path: string }>()
const id = useBuildId()
</script>

<template>
  <v-btn class="first" color="primary" variant="flat" :to="`/builds/${id}/${path}`"><slot /></v-btn>
</template>

<style scoped>
.first {
  display: flex;
  width: fit-content;
  margin-top: 14px;
}
</style>
