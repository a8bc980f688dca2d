<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { Problem, reasonOf } from '@/api/client'
import { asKept, written } from './decimals'
import FigureText from './FigureText.vue'
import { useMayChange } from './roles'
import { pointerUp } from './usePointer'

/**
 * A value edited where it stands. Enter stores, Escape leaves it as it was; what the server refuses stays typed, with
 * the reason under it.
 */
const props = defineProps<{
  label: string
  value: string | number | null | undefined
  /** What counts, and shows, where nothing is stored. */
  otherwise?: string | number
  save: (text: string, was: unknown, sure?: boolean) => Promise<unknown>
  /** A question about what was typed, to be answered before it is stored. */
  ask?: (text: string) => Promise<string | null>
  options?: { value: string; title: string }[]
  unit?: string
  figure?: boolean
  long?: boolean
  placeholder?: string
}>()

const may = useMayChange()
const editing = ref(false)
const typed = ref('')
const reason = ref('')
const busy = ref(false)
const clash = ref<{ now: unknown } | null>(null)
const question = ref('')
/** A bare number takes this unit, which stands beside it while it is typed. */
const taken = computed(() =>
  props.unit !== undefined && props.unit !== '' && /^[\d.,\s]+$/.test(typed.value.trim()) ? props.unit : '',
)
const field = ref<HTMLElement | null>(null)
const back = ref<HTMLButtonElement | null>(null)

/** As it is kept; of a figure, what is shown and typed is in the person's own manner. */
const held = computed(() => String(props.value ?? props.otherwise ?? ''))
const own = (text: string) => (props.figure ? written(text) : text)
const shown = computed(() => {
  const text = own(held.value)

  return props.options?.find((option) => option.value === text)?.title ?? text
})

async function begin(): Promise<void> {
  typed.value = own(held.value)
  reason.value = ''
  clash.value = null
  question.value = ''
  editing.value = true
  await nextTick()
  field.value?.focus()
  if (field.value instanceof HTMLInputElement) {
    field.value.select()
  }
}

async function finish(refocus = true): Promise<void> {
  // Whoever presses on something else has not let go yet: a cell that closes under the pointer moves what is pressed.
  await pointerUp()
  editing.value = false
  await nextTick()
  // Back to where one was, unless the next cell has been gone to already.
  if (refocus && (document.activeElement === null || document.activeElement === document.body)) {
    back.value?.focus()
  }
}

async function store(force = false, sure = false): Promise<void> {
  let text = props.figure ? asKept(typed.value.trim()) : typed.value.trim()
  if (busy.value || (text === held.value && !force)) {
    await finish()

    return
  }
  if (taken.value !== '') {
    text = `${text} ${taken.value}`
  }
  busy.value = true
  question.value = ''
  try {
    const asked = sure || text === '' ? null : await props.ask?.(text)
    if (asked) {
      question.value = asked
      await nextTick()
      field.value?.focus()

      return
    }
    await props.save(text, force && clash.value !== null ? clash.value.now : (props.value ?? null), sure)
    await finish()
  } catch (error) {
    reason.value = reasonOf(error)
    clash.value =
      error instanceof Problem && error.body.clashes?.[0] !== undefined ? { now: error.body.clashes[0].now } : null
    await nextTick()
    field.value?.focus()
  } finally {
    busy.value = false
  }
}

function leave(event: FocusEvent): void {
  if (
    !(
      event.relatedTarget instanceof HTMLElement &&
      event.relatedTarget.closest('.edit-cell') === (event.currentTarget as HTMLElement)
    ) &&
    reason.value === '' &&
    question.value === ''
  ) {
    if (props.options === undefined) void store()
    else void finish(false)
  }
}
</script>

<template>
  <span v-if="!may">
    <slot>
      <span v-if="shown === ''" class="quiet">–</span>
      <FigureText v-else-if="props.figure" :value="shown" />
      <template v-else>{{ shown }}</template>
    </slot>
  </span>
  <button
    v-else-if="!editing"
    ref="back"
    type="button"
    class="plain cell"
    :aria-label="`${props.label}: ${shown === '' ? (props.placeholder ?? 'not given') : shown}. Edit`"
    @click.stop="begin"
  >
    <slot>
      <span v-if="shown === ''" class="quiet">{{ own(props.placeholder ?? '–') }}</span>
      <FigureText v-else-if="props.figure" :value="shown" />
      <span v-else>{{ shown }}</span>
    </slot>
  </button>
  <span v-else class="edit-cell" @focusout="leave" @click.stop>
    <select
      v-if="props.options"
      ref="field"
      v-model="typed"
      :aria-label="props.label"
      @change="store()"
      @keydown.esc.stop="finish()"
    >
      <option value="">–</option>
      <option v-for="option in props.options" :key="option.value" :value="option.value">{{ option.title }}</option>
    </select>
    <textarea
      v-else-if="props.long"
      ref="field"
      v-model="typed"
      rows="4"
      :aria-label="props.label"
      :aria-invalid="reason !== ''"
      @keydown.ctrl.enter="store()"
      @keydown.esc.stop="finish()"
    />
    <input
      v-else
      ref="field"
      v-model="typed"
      type="text"
      :aria-label="props.label"
      :aria-invalid="reason !== ''"
      :placeholder="props.unit"
      @input="question = ''"
      @keydown.enter.prevent="store()"
      @keydown.esc.stop="finish()"
    />
    <span v-if="taken" class="taken quiet">{{ taken }}</span>
    <span v-if="question" class="reason unproven" role="alert">
      {{ question }}
      <button type="button" class="plain link" @click="store(false, true)">It is right, keep it</button> ·
      <button type="button" class="plain link" @click="finish()">Leave it as it was</button>
    </span>
    <span v-if="reason" class="reason danger" role="alert">
      {{ reason }}
      <template v-if="clash !== null">
        It is now “{{ clash.now ?? 'nothing' }}”.
        <button type="button" class="plain link" @click="store(true)">Keep mine</button> ·
        <button type="button" class="plain link" @click="finish()">Take theirs</button>
      </template>
    </span>
  </span>
</template>

<style scoped>
.cell {
  padding: 2px 0;
  min-width: 28px;
  max-width: 100%;
  border-bottom: 1px dotted transparent;
  overflow-wrap: break-word;
}
.cell:hover {
  border-bottom-color: var(--live);
}
.edit-cell {
  position: relative;
  display: inline-block;
  min-width: 7em;
  max-width: 100%;
}
input,
select,
textarea {
  width: 100%;
  min-width: 6em;
  height: 26px;
  padding: 0 6px;
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--live);
  border-radius: 2px;
}
.taken {
  position: absolute;
  right: 8px;
  top: 3px;
  pointer-events: none;
}
textarea {
  height: auto;
  padding: 4px 6px;
  min-width: 18em;
}
.reason {
  display: block;
  max-width: 32em;
  font-size: 13px;
  white-space: normal;
  text-align: left;
  padding: 3px 0;
}
</style>
