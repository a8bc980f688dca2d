<script setup lang="ts">
import { computed, nextTick, ref } from 'vue'
import { Problem, reasonOf } from '@/api/client'
import { asKept, written } from '@/shared/decimals'
import { useMayChange } from '@/shared/roles'

/** What a supplier asks for shipping, by the value of the goods: a row a step, each with its own fields. */
interface Step {
  from: string
  cost: string
}
const { name, currency, steps, save } = defineProps<{
  name: string
  currency: string
  steps: Step[] | null | undefined
  save: (steps: Step[] | null) => Promise<unknown>
}>()
const may = useMayChange()
const rows = ref<Step[] | null>(null)
const reason = ref('')
const busy = ref(false)
const form = ref<HTMLFormElement | null>(null)
const says = computed(() =>
  (steps ?? [])
    .map((one) => (Number(one.from) === 0 ? written(one.cost) : `from ${written(one.from)}: ${written(one.cost)}`))
    .join('; '),
)
async function begin(): Promise<void> {
  rows.value = (steps ?? []).map((one) => ({ from: written(one.from), cost: written(one.cost) }))
  if (rows.value.length === 0) add()
  reason.value = ''
  await nextTick()
  form.value?.querySelector<HTMLInputElement>('input')?.focus()
}
function add(): void {
  rows.value?.push({ from: rows.value.length === 0 ? '0' : '', cost: '' })
}
async function keep(): Promise<void> {
  const kept = rows
    .value!.filter((one) => one.cost.trim() !== '' || one.from.trim() !== '')
    .filter((one) => one.cost.trim() !== '' || rows.value!.length > 1)
    .map((one) => ({ from: asKept(one.from.trim()) || '0', cost: asKept(one.cost.trim()) }))
  busy.value = true
  try {
    await save(kept.length === 0 ? null : kept)
    rows.value = null
  } catch (error) {
    reason.value = error instanceof Problem && error.body.errors?.[0] ? error.body.errors[0].reason : reasonOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form v-if="rows" ref="form" class="steps" @submit.prevent="keep()">
    <p v-for="(row, at) in rows" :key="at">
      from
      <input
        v-model="row.from"
        inputmode="decimal"
        size="6"
        :aria-label="`Goods of ${name} from, ${currency}, step ${at + 1}`"
      />
      costs
      <input
        v-model="row.cost"
        inputmode="decimal"
        size="6"
        :aria-label="`Shipping of ${name}, ${currency}, step ${at + 1}`"
      />
      <button
        type="button"
        class="plain link"
        :aria-label="`Take out step ${at + 1} of ${name}`"
        @click="rows.splice(at, 1)"
      >
        take out
      </button>
    </p>
    <p>
      <button type="button" class="plain link" @click="add()">one more step</button>
      <v-btn type="submit" size="x-small" color="primary" :loading="busy">Keep</v-btn>
      <v-btn size="x-small" @click="rows = null">Leave it</v-btn>
    </p>
    <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
  </form>
  <button v-else-if="may" type="button" class="plain value" :aria-label="`Shipping of ${name}`" @click="begin()">
    <template v-if="says">{{ says }}</template>
    <span v-else class="quiet">not known</span>
  </button>
  <span v-else>{{ says || 'not known' }}</span>
</template>

<style scoped>
.steps p {
  display: flex;
  gap: 6px;
  align-items: center;
  padding: 1px 0;
  margin: 0;
}
input {
  width: 70px;
  height: 26px;
  padding: 0 4px;
  font: inherit;
  color: var(--ink);
  text-align: right;
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.value {
  text-align: left;
}
</style>
