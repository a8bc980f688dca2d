<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { useCatalogue } from './useBuild'
import { useHelp } from './useHelp'

/**
 * A word that says what it is and how to find it out: of a check by its id, of the trade, or with sentences given.
 * Inside something that is pressed it is told while that has the focus, and the press stays that one's.
 */
const props = defineProps<{ check?: string; term?: string; lines?: string[]; inside?: boolean }>()
const { data: catalogue } = useCatalogue()
const help = useHelp()
const word = ref<HTMLElement | null>(null)
const told = computed(() => {
  if (props.lines !== undefined) return props.lines.filter((line) => line !== '')
  const check = catalogue.value?.checks.find((one) => one.id === props.check)
  if (check !== undefined) return [check.title, check.means, check.find]
  const term = catalogue.value?.terms.find((one) => one.word.toLowerCase() === props.term?.toLowerCase())

  return term === undefined ? [] : [term.means, term.find]
})
const show = (event: Event, pin = false) => help.show(event.currentTarget as Element, told.value, pin)
const beside = (): void => {
  if (word.value !== null) help.show(word.value, told.value)
}
const hide = () => help.hide()
let pressed: HTMLElement | null = null
const events = { focusin: beside, mouseenter: beside, focusout: hide, mouseleave: hide }
onMounted(() => {
  pressed = props.inside ? (word.value?.parentElement?.closest<HTMLElement>('button, a, label') ?? null) : null
  for (const [event, does] of Object.entries(events)) pressed?.addEventListener(event, does)
})
onBeforeUnmount(() => {
  for (const [event, does] of Object.entries(events)) pressed?.removeEventListener(event, does)
})
</script>

<template>
  <span v-if="props.inside" ref="word"><slot /></span>
  <button
    v-else-if="told.length"
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
