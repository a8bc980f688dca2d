<script setup lang="ts">
import { computed } from 'vue'
import { written } from './decimals'

/** A magnitude with its unit in a quieter weight, thin-spaced: "24 V". */
const props = defineProps<{ value: string | number | null | undefined; unit?: string }>()
const parts = computed(() => {
  const text = props.value === null || props.value === undefined ? '' : written(String(props.value))
  const found = /^([+−-]?[\d.,'/\s]*\d)[\s\u00a0]?(.*)$/u.exec(text)

  return found === null || props.unit !== undefined
    ? { size: text, unit: props.unit ?? '' }
    : { size: found[1], unit: found[2] }
})
</script>

<template>
  <span v-if="parts.size === ''" class="quiet">–</span>
  <span v-else class="figure"
    >{{ parts.size }}<span v-if="parts.unit" class="unit close">&nbsp;{{ parts.unit }}</span></span
  >
</template>
