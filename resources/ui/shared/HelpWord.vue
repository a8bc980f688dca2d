<script setup lang="ts">
import { computed } from 'vue'
import { useCatalogue } from './useBuild'
import { useHelp } from './useHelp'

/** A word that says what it is and how to find it out: of a check by its id, of the trade, or with sentences given. */
const props = defineProps<{ check?: string; term?: string; lines?: string[] }>()
const { data: catalogue } = useCatalogue()
const help = useHelp()
const told = computed(() => {
  if (props.lines !== undefined) return props.lines.filter((line) => line !== '')
  const check = catalogue.value?.checks.find((one) => one.id === props.check)
  if (check !== undefined) return [check.title, check.means, check.find]
  const term = catalogue.value?.terms.find((one) => one.word.toLowerCase() === props.term?.toLowerCase())

  return term === undefined ? [] : [term.means, term.find]
})
const show = (event: Event, pin = false) => help.show(event.currentTarget as Element, told.value, pin)
</script>

<template>
  <button
    v-if="told.length"
    type="button"
    class="plain help"
    @mouseenter="show"
    @mouseleave="help.leave()"
    @focus="show"
    @blur="help.hide()"
    @click.stop="show($event, true)"
    @keydown.esc.stop="help.hide()"
  >
    <slot />
  </button>
  <template v-else><slot /></template>
</template>

<style scoped>
.help {
  font: inherit;
  color: inherit;
  text-align: inherit;
  cursor: help;
  text-decoration: underline dotted;
  text-decoration-color: var(--quiet);
  text-underline-offset: 3px;
}
</style>
