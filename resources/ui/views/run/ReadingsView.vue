<script setup lang="ts">
import { computed, ref } from 'vue'
import { type Ladder } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { atTime, words } from '@/shared/format'
import { useAct } from '@/shared/useAct'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import VerdictMark from '@/shared/VerdictMark.vue'
import type { Expected, Reading } from './useReadings'

/** Everything that was measured on the machine: what, where, with what, by whom, and whether it fits what is fitted. */
const { id, document: build, roleOf } = useBuild()
const { edit } = useEdit()
const { reason, act } = useAct()
const { data: ladder } = useDerived<Ladder>('ladder', () => 'ladder')
const expected = computed(() => {
  const all = new Map<string, Expected>()
  for (const rung of ladder.value?.rungs ?? []) for (const one of rung.readings) all.set(one.reading ?? '', one)

  return all
})
const only = ref('')
const rows = computed(() =>
  [...(build.value?.readings ?? [])]
    .filter((one) => `${one.what} ${whereOf(one)} ${one.by ?? ''}`.toLowerCase().includes(only.value.toLowerCase()))
    .sort((a, b) => (b.at ?? 0) - (a.at ?? 0)),
)
const whereOf = (one: Reading) =>
  one.need
    ? roleOf(one.need)
    : one.axis
      ? (build.value?.axes?.find((axis) => axis.ref === one.axis)?.name ?? one.axis)
      : (one.scenario ?? 'the machine')
/** On another part than the one that stands there now. */
const isStale = (one: Reading) =>
  one.part !== undefined &&
  one.need !== undefined &&
  build.value?.needs?.find((need) => need.ref === one.need)?.choice !== one.part
const striking = ref<string | null>(null)
const why = ref('')
const strike = (one: Reading) =>
  act(async () => {
    await edit(`Reading ${one.ref} struck`, [
      { section: 'readings', ref: one.ref, set: [{ path: ['struck'], was: one.struck ?? null, to: why.value.trim() }] },
    ])
    striking.value = null
    why.value = ''
  })
const restore = (one: Reading) =>
  act(() =>
    edit(`Reading ${one.ref} counts again`, [
      { section: 'readings', ref: one.ref, set: [{ path: ['struck'], was: one.struck ?? null, to: null }] },
    ]),
  )
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Readings</h1>
      <span class="quiet">the last of each thing counts before the sheet; a struck one stays, and leaves a doubt</span>
      <input v-model="only" class="field only push" aria-label="Show only" placeholder="show only" />
    </div>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <p v-if="rows.length === 0" class="empty">
      Nothing is measured{{ only ? ' that fits' : ' yet' }}. What to measure, and what the meter should show, stands at
      each rung of the power-up.
      <FirstAction path="run/ladder">To the power-up</FirstAction>
    </p>
    <table v-else class="ledger stack" tabindex="0">
      <thead>
        <tr>
          <th>What</th>
          <th>Where</th>
          <th class="num">Read</th>
          <th class="num wide-only">Should be</th>
          <th>Verdict</th>
          <th class="wide-only">With, by, when</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <template v-for="one in rows" :key="one.ref">
          <tr :class="{ struck: one.struck }">
            <td>{{ words(one.what) }}</td>
            <td>{{ whereOf(one) }}</td>
            <td class="num figure">
              {{ one.value }}<span v-if="one.accuracy" class="quiet small"> ± {{ one.accuracy }}</span>
            </td>
            <td class="num figure wide-only">{{ expected.get(one.ref)?.band ?? '' }}</td>
            <td>
              <VerdictMark v-if="expected.has(one.ref)" :verdict="expected.get(one.ref)!.verdict" word />
              <span v-else class="quiet small">{{
                one.struck
                  ? `struck: ${one.struck}`
                  : isStale(one)
                    ? 'of a part that is not there now'
                    : 'an earlier one, or nothing to hold it against'
              }}</span>
            </td>
            <td class="small quiet wide-only">
              {{ [one.instrument, one.by, atTime(one.at)].filter(Boolean).join(', ')
              }}{{ one.simulated ? ' (simulated)' : '' }}<span v-if="one.note" class="block">{{ one.note }}</span
              ><a
                v-if="one.photo"
                class="link block"
                :href="`/api/builds/${id}/photos/${one.photo}`"
                target="_blank"
                rel="noopener"
                >picture</a
              >
            </td>
            <td>
              <button v-if="one.struck" type="button" class="plain link small" @click="restore(one)">
                let it count
              </button>
              <button
                v-else
                type="button"
                class="plain link small"
                :aria-label="`strike reading ${one.ref}`"
                @click="striking = striking === one.ref ? null : one.ref"
              >
                strike
              </button>
            </td>
          </tr>
          <tr v-if="striking === one.ref">
            <td colspan="7">
              <form class="fields" @submit.prevent="strike(one)">
                <input
                  v-model="why"
                  class="field"
                  aria-label="Why it does not count"
                  placeholder="why it does not count"
                />
                <v-btn type="submit" size="small" color="primary" variant="flat" :disabled="why.trim().length < 4"
                  >Strike it</v-btn
                >
              </form>
            </td>
          </tr>
        </template>
      </tbody>
    </table>
    <p class="small quiet">
      A reading of one of several pieces says nothing of the others, and changes no sheet. Where they are to be taken
      stands at the <router-link class="link" :to="`/builds/${id}/run/ladder`">power-up</router-link>.
    </p>
  </div>
</template>

<style scoped>
.struck td {
  text-decoration: line-through;
  color: var(--quiet);
}
.struck td:nth-child(5),
.struck td:last-child {
  text-decoration: none;
}
.block {
  display: block;
}
</style>
