<script setup lang="ts">
/** For how many days a link or token is good. */
defineProps<{ label: string; most: number; reason: string | undefined }>()
const days = defineModel<number>({ required: true })
</script>

<template>
  <label class="small"
    ><input v-model.number="days" class="field days" type="number" min="1" :max="most" :aria-label="label" />
    days</label
  >
  <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
</template>

<style scoped>
.days {
  width: 76px;
}
</style>
