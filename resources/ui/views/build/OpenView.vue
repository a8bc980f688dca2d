<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type OpenItem } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { useWaiting } from '@/offline/useWaiting'
import { day, today } from '@/shared/format'
import { freshRef } from '@/shared/refs'
import { useAct } from '@/shared/useAct'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'

/** Everything that is not as it is meant to stay, in one list, with what releases it. */
const { id, document: build } = useBuild()
const { edit, remove } = useEdit()
const { reason, act } = useAct()
const waiting = useWaiting()
const fresh = ref({ asks: '', of: '' })
const questions = computed(() =>
  [...(build.value?.questions ?? [])].sort((a, b) => Number(a.answer !== undefined) - Number(b.answer !== undefined)),
)
const asked = computed(() => [...new Set(questions.value.map((one) => one.of))])
const { data: items, isError, error } = useDerived<OpenItem[]>('open-items', () => 'open-items')
const which = ref('all')
const kinds = computed(() => [...new Set((items.value ?? []).map((item) => item.kind))])
const shown = computed(() => (items.value ?? []).filter((item) => which.value === 'all' || item.kind === which.value))
const count = (kind: string) => (items.value ?? []).filter((item) => item.kind === kind).length
/** Where each is put right. */
const places: Record<string, (ref: string) => string> = {
  faults: () => 'build/faults',
  steps: (ref) => `build/bench/${ref}`,
  accepted: () => 'prove/fit',
  settings: () => 'prove/settings',
  leads: () => 'prove/leads',
  prints: () => 'buy/prints',
  needs: () => 'choose/parts',
  purchases: () => 'buy/arrivals',
  documents: () => 'build/documents',
  questions: () => 'build/open',
}
const ask = () =>
  act(async () => {
    await edit(`Question to ${fresh.value.of}`, [
      {
        section: 'questions',
        create: { ref: freshRef('Q', build.value?.questions, waiting.cut), ...fresh.value, asked: today() },
      },
    ])
    fresh.value = { asks: '', of: fresh.value.of }
  })
const answer = (name: string) => (text: string, was: unknown) =>
  edit(`An answer from ${questions.value.find((one) => one.ref === name)?.of}`, [
    {
      section: 'questions',
      ref: name,
      set: [
        { path: ['answer'], was: was ?? null, to: text === '' ? null : text },
        { path: ['answered'], to: text === '' ? null : today() },
      ],
    },
  ])
const placeOf = (item: OpenItem) => `/builds/${id.value}/${places[item.section]?.(item.ref) ?? 'prove/fit'}`
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Open items</h1>
      <span v-if="items?.length" class="quiet">{{ items.length }}, each until what releases it is there</span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="items && items.length === 0" class="empty">
      Nothing is loose, temporary, waived, claimed or left out, and no fault is open. That is not to say it is safe.
    </p>
    <template v-else-if="items">
      <span class="choices kinds" role="group" aria-label="Which items"
        ><button type="button" class="plain" :aria-pressed="which === 'all'" @click="which = 'all'">
          all <span class="quiet">{{ items.length }}</span></button
        ><button
          v-for="kind in kinds"
          :key="kind"
          type="button"
          class="plain"
          :aria-pressed="which === kind"
          @click="which = kind"
        >
          {{ kind }} <span class="quiet">{{ count(kind) }}</span>
        </button></span
      >
      <table class="ledger stack" tabindex="0">
        <thead>
          <tr>
            <th>Kind</th>
            <th>What</th>
            <th>Until</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in shown" :key="`${item.section}/${item.ref}/${item.kind}`">
            <td :class="item.kind === 'danger' ? 'danger' : 'quiet'" class="small kind">{{ item.kind }}</td>
            <td>
              <router-link class="link" :to="placeOf(item)">{{ item.what }}</router-link>
            </td>
            <td class="small">{{ item.release }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <h2>Questions asked</h2>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <table v-if="questions.length" class="ledger stack">
      <thead>
        <tr>
          <th>Question</th>
          <th>Of whom</th>
          <th>Asked</th>
          <th>Answer</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in questions" :key="one.ref">
          <td>{{ one.asks }}</td>
          <td>{{ one.of }}</td>
          <td class="small">{{ day(one.asked) }}</td>
          <td>
            <EditCell
              long
              :label="`Answer to: ${one.asks}`"
              :value="one.answer"
              placeholder="none yet"
              :save="answer(one.ref)"
            /><span v-if="one.answered" class="quiet small">{{ day(one.answered) }}</span>
          </td>
          <td>
            <button
              type="button"
              class="plain link small"
              :aria-label="`Delete the question: ${one.asks}`"
              @click="remove(`Delete a question to ${one.of}`, 'The question', 'questions', one.ref)"
            >
              delete
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="asking" @submit.prevent="ask()">
      <input
        v-model="fresh.asks"
        class="field"
        aria-label="What to ask"
        placeholder="Does the hub seat take a 6 mm pin?"
      />
      <input v-model="fresh.of" class="field" aria-label="Of whom" placeholder="the kit's maker" list="asked" />
      <datalist id="asked">
        <option v-for="one in asked" :key="one" :value="one" />
      </datalist>
      <v-btn type="submit" size="small" :disabled="!fresh.asks.trim() || !fresh.of.trim()">Note the question</v-btn>
    </form>
  </div>
</template>

<style scoped>
.kinds {
  flex-wrap: wrap;
  margin-bottom: 8px;
}
h2 {
  margin: 20px 0 4px;
}
.asking {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
.asking .field:first-child {
  flex: 1 1 260px;
}
.kind {
  white-space: nowrap;
}
</style>
