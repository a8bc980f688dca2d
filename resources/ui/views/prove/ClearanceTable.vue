<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type BuildDocument } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit, useEvidence } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'

type Clearance = NonNullable<BuildDocument['clearances']>[number]

/** Pairs that must never meet: where each is with every axis at nought, and which axes carry it. */
const { document: build } = useBuild()
const { set, edit, remove } = useEdit()
const { findings } = useFindings()
const notices = useNotices()
const panel = usePanel()
const fresh = ref({ one: '', other: '' })
const reason = ref('')
const clearances = computed(() => build.value?.clearances ?? [])
const axes = computed(() => build.value?.axes ?? [])
const evidence = useEvidence()
const rounds = ['x', 'y', 'z'].map((one) => ({ value: one, title: one }))
const verdictOf = (ref: string) => findings.value.find((finding) => finding.key === `M11/${ref}`)
const save = (entry: Clearance, what: string, path: (string | number)[]) => (text: string, was: unknown) =>
  set(`${what} of ${entry.name}`, 'clearances', entry.ref, path, was, text === '' ? null : text)
function carry(entry: Clearance, side: 0 | 1, axis: string, on: boolean): void {
  const held = entry.between[side]?.moves
  const now = on ? [...(held ?? []), axis] : (held ?? []).filter((one) => one !== axis)
  set(
    `What carries ${entry.between[side]?.what}`,
    'clearances',
    entry.ref,
    ['between', side, 'moves'],
    held ?? null,
    now.length ? now : null,
  ).catch(notices.problem)
}
function prefer(entry: Clearance, on: boolean): void {
  set(
    `Least gap of ${entry.name}, a preference`,
    'clearances',
    entry.ref,
    ['preference'],
    entry.preference ?? null,
    on ? true : null,
  ).catch(notices.problem)
}
async function add(): Promise<void> {
  try {
    await edit(`${fresh.value.one} and ${fresh.value.other} never meet`, [
      {
        section: 'clearances',
        create: {
          ref: nextRef('C', clearances.value),
          name: `${fresh.value.one} and ${fresh.value.other}`,
          between: [{ what: fresh.value.one }, { what: fresh.value.other }],
        },
      },
    ])
    fresh.value = { one: '', other: '' }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <section>
    <h2>What must never meet</h2>
    <p v-if="clearances.length === 0" class="quiet small">
      No pair is named. Name a bolt head and a lead screw, a longer motor and its neighbour, a lead at the end of its
      chain: each is judged over the whole travel.
    </p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th>Verdict</th>
          <th>Thing</th>
          <th>Along x</th>
          <th>Along y</th>
          <th>Along z</th>
          <th>Clearance wanted</th>
          <th>Moves with</th>
          <th class="num">Least gap</th>
          <th>Rests on</th>
          <th />
        </tr>
      </thead>
      <tbody v-for="entry in clearances" :key="entry.ref">
        <tr v-for="side in [0, 1] as const" :key="side">
          <td v-if="side === 0" rowspan="2">
            <button
              v-if="verdictOf(entry.ref)"
              type="button"
              class="plain"
              :title="verdictOf(entry.ref)!.headline"
              @click="panel.show({ kind: 'working', key: `M11/${entry.ref}` })"
            >
              <VerdictMark :verdict="verdictOf(entry.ref)!.verdict" word />
            </button>
          </td>
          <td>
            <EditCell
              :label="`Thing ${side + 1} of ${entry.name}`"
              :value="entry.between[side]?.what"
              :save="save(entry, 'Thing', ['between', side, 'what'])"
            />
          </td>
          <td v-for="along in ['x', 'y', 'z'] as const" :key="along">
            <EditCell
              figure
              :label="`${entry.between[side]?.what} along ${along}`"
              :value="entry.between[side]?.[along]"
              placeholder="anywhere"
              :save="save(entry, `Place along ${along}`, ['between', side, along])"
            />
          </td>
          <td class="small">
            <EditCell
              :label="`Direction ${entry.between[side]?.what} is round about`"
              :value="entry.between[side]?.round"
              :options="rounds"
              placeholder="a box"
              :save="save(entry, 'Shape', ['between', side, 'round'])"
            />
          </td>
          <td class="small">
            <label v-for="axis in axes" :key="axis.ref" class="axis"
              ><input
                type="checkbox"
                :checked="entry.between[side]?.moves?.includes(axis.ref)"
                :aria-label="`${axis.name} carries ${entry.between[side]?.what}`"
                @change="carry(entry, side, axis.ref, ($event.target as HTMLInputElement).checked)"
              />
              {{ axis.name }}</label
            >
          </td>
          <template v-if="side === 0"
            ><td rowspan="2" class="num">
              <EditCell
                figure
                :label="`Least gap of ${entry.name}`"
                :value="entry.least"
                unit="mm"
                :save="save(entry, 'Least gap', ['least'])"
              />
              <label v-if="entry.least" class="axis small"
                ><input
                  type="checkbox"
                  :checked="entry.preference"
                  :aria-label="`The least gap of ${entry.name} is only preferred`"
                  @change="prefer(entry, ($event.target as HTMLInputElement).checked)"
                />
                only preferred</label
              >
            </td>
            <td rowspan="2" class="small">
              <EditCell
                :label="`What ${entry.name} rests on`"
                :value="entry.evidence"
                :options="evidence"
                placeholder="assumed"
                :save="save(entry, 'Evidence', ['evidence'])"
              />
            </td>
            <td rowspan="2">
              <button
                type="button"
                class="plain link small"
                :aria-label="`Delete ${entry.name}`"
                @click="remove(`Delete clearance ${entry.name}`, entry.name, 'clearances', entry.ref)"
              >
                delete
              </button>
            </td></template
          >
        </tr>
      </tbody>
    </table>
    <form class="fields" @submit.prevent="add()">
      <input v-model="fresh.one" class="field" aria-label="One thing" placeholder="Bolt head" /><span>and</span
      ><input v-model="fresh.other" class="field" aria-label="Other thing" placeholder="Lead screw" /><v-btn
        type="submit"
        size="small"
        :disabled="fresh.one === '' || fresh.other === ''"
        >Add pair</v-btn
      ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
    </form>
  </section>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
}
.axis {
  margin-right: 10px;
  white-space: nowrap;
}
@media (max-width: 700px) {
  table.ledger {
    display: block;
    overflow-x: auto;
  }
}
</style>
