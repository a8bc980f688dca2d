<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Documents, PaperDocument } from '@/api/client'
import { useAct } from '@/shared/useAct'
import { useBuild, useEdit } from '@/shared/useBuild'

/** What one document covers, states and gets wrong. */
const props = defineProps<{ paper: PaperDocument; says: Documents['says'] }>()
const { document: build } = useBuild()
const { set } = useEdit()
const { reason, act } = useAct()
type List = 'covers' | 'says' | 'corrections'
const page = ref({ step: '', pages: '' })
const stated = ref({ what: '', says: '', need: '', step: '' })
const wrong = ref({ says: '', right: '', why: '', step: '' })
const steps = computed(() => build.value?.steps ?? [])
const titleOf = (step: string | undefined) => steps.value.find((one) => one.ref === step)?.title ?? step ?? ''
const filled = (row: Record<string, string>) =>
  Object.fromEntries(Object.entries(row).filter(([, text]) => text !== ''))
const write = (key: List, what: string, rows: unknown[]) =>
  act(() =>
    set(
      `${what} of “${props.paper.title}”`,
      'documents',
      props.paper.ref,
      [key],
      props.paper[key] ?? null,
      rows.length ? rows : null,
    ),
  )
const add = async (key: List, what: string, row: Record<string, string>) => {
  await write(key, what, [...(props.paper[key] ?? []), filled(row)])
  if (reason.value === '') for (const member of Object.keys(row)) row[member] = ''
}
const drop = (key: List, what: string, at: number) =>
  write(
    key,
    what,
    (props.paper[key] ?? []).filter((_, i) => i !== at),
  )
const pass = (at: number) =>
  write(
    'covers',
    'Pages',
    (props.paper.covers ?? []).map((one, i) => {
      const { superseded, ...rest } = one

      return i !== at ? one : superseded ? rest : { ...rest, superseded: true }
    }),
  )
</script>

<template>
  <section class="lists" :aria-label="`What ${paper.title} says`">
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <div>
      <h3>Steps it speaks of</h3>
      <p v-for="(one, i) in paper.covers" :key="i" class="small">
        <span :class="{ over: one.superseded }">{{ titleOf(one.step) }}{{ one.pages ? `, ${one.pages}` : '' }}</span>
        <button type="button" class="plain link small" @click="pass(i)">
          {{ one.superseded ? 'holds again' : 'pass over' }}
        </button>
        <button
          type="button"
          class="plain link small"
          :aria-label="`remove ${titleOf(one.step)}`"
          @click="drop('covers', 'Pages', i)"
        >
          remove
        </button>
      </p>
      <form @submit.prevent="add('covers', 'Pages', page)">
        <select v-model="page.step" class="field" aria-label="Step it speaks of">
          <option value="">step …</option>
          <option v-for="step in steps" :key="step.ref" :value="step.ref">{{ step.title }}</option>
        </select>
        <input v-model="page.pages" class="field" aria-label="Pages" placeholder="p. 12–14" size="9" />
        <v-btn type="submit" size="small" :disabled="page.step === ''">Add</v-btn>
      </form>
    </div>
    <div>
      <h3>Counts and lengths it gives</h3>
      <p v-for="(one, i) in paper.says" :key="i" class="small">
        {{ one.what }}: {{ one.says }}
        <span v-if="says[i]" :class="{ fails: says[i]!.verdict === 'other', quiet: says[i]!.verdict === 'same' }">{{
          says[i]!.verdict === 'same' ? 'as here' : says[i]!.own ? `here ${says[i]!.own}` : 'not to be worked out'
        }}</span>
        <button
          type="button"
          class="plain link small"
          :aria-label="`remove ${one.what}`"
          @click="drop('says', 'Figures', i)"
        >
          remove
        </button>
      </p>
      <form @submit.prevent="add('says', 'Figures', stated)">
        <input v-model="stated.what" class="field" aria-label="What it counts or measures" placeholder="belt cut to" />
        <input v-model="stated.says" class="field" aria-label="What it says" placeholder="1230 mm" size="8" />
        <select v-model="stated.need" class="field" aria-label="Of which part">
          <option value="">of …</option>
          <option v-for="need in build?.needs" :key="need.ref" :value="need.ref">{{ need.role }}</option>
        </select>
        <select v-model="stated.step" class="field" aria-label="At which step">
          <option value="">at …</option>
          <option v-for="step in steps" :key="step.ref" :value="step.ref">{{ step.title }}</option>
        </select>
        <v-btn type="submit" size="small" :disabled="!stated.what || !stated.says">Add</v-btn>
      </form>
    </div>
    <div>
      <h3>Where it is wrong, or this build does otherwise</h3>
      <p v-for="(one, i) in paper.corrections" :key="i" class="small">
        <s>{{ one.says }}</s> {{ one.right }}<span v-if="one.why" class="quiet">, since {{ one.why }}</span>
        <span class="quiet"
          >{{ one.step ? ` at “${titleOf(one.step)}”` : '' }}{{ one.sent ? `, sent ${one.sent}` : '' }}</span
        >
        <button
          type="button"
          class="plain link small"
          :aria-label="`remove ${one.says}`"
          @click="drop('corrections', 'Corrections', i)"
        >
          remove
        </button>
      </p>
      <form @submit.prevent="add('corrections', 'Corrections', wrong)">
        <input v-model="wrong.says" class="field" aria-label="What it says wrong" placeholder="plug it into J4" />
        <input v-model="wrong.right" class="field" aria-label="What is right" placeholder="J5; J4 is the second fan" />
        <input v-model="wrong.why" class="field" aria-label="Why" placeholder="the board is a later revision" />
        <select v-model="wrong.step" class="field" aria-label="At which step it is wrong">
          <option value="">at …</option>
          <option v-for="step in steps" :key="step.ref" :value="step.ref">{{ step.title }}</option>
        </select>
        <v-btn type="submit" size="small" :disabled="!wrong.says || !wrong.right">Add</v-btn>
      </form>
    </div>
  </section>
</template>

<style scoped>
.lists {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(280px, 1fr));
  gap: 8px 32px;
  padding: 8px 0 12px;
}
h3 {
  margin: 8px 0 2px;
}
p {
  margin: 2px 0;
}
.over {
  text-decoration: line-through;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 6px;
}
select.field {
  max-width: 180px;
}
</style>
