<script setup lang="ts">
import { useBuild } from './useBuild'

/** Needs that belong together, each to be removed, and one more to be added. */
const props = defineProps<{
  /** What the field that adds one is called: "A motor for X". */
  label: string
  /** What they belong to, as it is named: "X". */
  of: string
  held: readonly string[] | undefined
  options: readonly { value: string; title: string }[]
}>()
const emit = defineEmits<{ change: [needs: string[]] }>()
const { roleOf } = useBuild()

function add(event: Event): void {
  const field = event.target as HTMLSelectElement
  emit('change', [...(props.held ?? []), field.value])
  field.value = ''
}
</script>

<template>
  <span v-for="need in props.held" :key="need" class="chip"
    >{{ roleOf(need) }}
    <button
      type="button"
      class="plain quiet"
      :aria-label="`remove ${roleOf(need)} from ${props.of}`"
      @click="
        emit(
          'change',
          (props.held ?? []).filter((one) => one !== need),
        )
      "
    >
      remove
    </button></span
  >
  <select class="field" :aria-label="props.label" @change="add">
    <option value="">add …</option>
    <option
      v-for="one in props.options.filter((one) => !(props.held ?? []).includes(one.value))"
      :key="one.value"
      :value="one.value"
    >
      {{ one.title }}
    </option>
  </select>
</template>

<style scoped>
.chip {
  margin-right: 12px;
  font-size: 13px;
}
.field {
  height: 24px;
  font-size: 13px;
  max-width: 130px;
}
</style>
