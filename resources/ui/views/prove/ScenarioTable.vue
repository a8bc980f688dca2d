<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Scenario } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { freeRef, refFrom } from '@/shared/refs'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'

/** What runs in each scenario, as shares of its rating, edited where it stands. */
const { document: build, roleOf } = useBuild()
const { set, edit, remove } = useEdit()
const { data: catalogue } = useCatalogue()
const fresh = ref('')
const reason = ref('')
const added = ref<string[]>([])

const scenarios = computed(() => build.value?.scenarios ?? [])
const powered = computed(
  () =>
    new Set(
      (catalogue.value?.families ?? [])
        .filter((family) => family.ports.some((port) => port.draws))
        .map((family) => family.key),
    ),
)
const alwaysOn = computed(
  () => new Set((catalogue.value?.families ?? []).filter((family) => family.always_on).map((family) => family.key)),
)
const all = computed(() => (build.value?.needs ?? []).filter((need) => powered.value.has(need.family)))
const listed = computed(() => [
  ...new Set([...scenarios.value.flatMap((one) => Object.keys(one.loads ?? {})), ...added.value]),
])
const others = computed(() =>
  (build.value?.needs ?? []).filter((need) => powered.value.has(need.family) && !listed.value.includes(need.ref)),
)

const store = (scenario: Scenario, what: string, path: string[]) => (text: string, was: unknown) =>
  set(
    `${what} in ${scenario.name}`,
    'scenarios',
    scenario.ref,
    path,
    was,
    text === '' ? null : path[0] === 'runs_per_year' && /^\d+$/.test(text) ? Number(text) : text,
  )

/** Loads of the build that do not run in a scenario: nobody has named them, or at nought. */
const off = (scenario: Scenario) =>
  all.value.filter((need) => {
    const share = scenario.loads?.[need.ref] ?? (alwaysOn.value.has(need.family) ? '1' : '0')

    return /^0( |%|$)/.test(share)
  })

/** It starts with everything on: what does not run in it is taken out by hand, and is said. */
async function add(): Promise<void> {
  const free = freeRef(refFrom(fresh.value, 'scenario'), (ref) => scenarios.value.some((one) => one.ref === ref))
  const loads = Object.fromEntries(all.value.map((need) => [need.ref, '100 %']))
  try {
    await edit(`Add scenario ${fresh.value}`, [
      { section: 'scenarios', create: { ref: free, name: fresh.value, loads } },
    ])
    fresh.value = ''
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <section class="mt-7">
    <div class="view-head">
      <h2>Scenarios</h2>
      <form class="push" @submit.prevent="add()">
        <input v-model="fresh" aria-label="Name of a new scenario" placeholder="New scenario" /><v-btn
          type="submit"
          size="small"
          color="primary"
          :disabled="fresh.trim() === ''"
          >Add</v-btn
        >
      </form>
    </div>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <p class="quiet">
      Everything on at once is always judged{{
        scenarios.length === 0 ? '; none of your own yet.' : ', beside your own.'
      }}
    </p>
    <div v-if="scenarios.length > 0" class="scroll" tabindex="0" aria-label="Scenarios">
      <table class="ledger">
        <thead>
          <tr>
            <th>Load</th>
            <th v-for="one in scenarios" :key="one.ref" class="num">
              {{ one.name }}<br /><button type="button" class="plain link small" @click="remove(one)">delete</button>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="need in listed" :key="need">
            <td>{{ roleOf(need) }}</td>
            <td v-for="one in scenarios" :key="one.ref" class="num">
              <EditCell
                figure
                :label="`${roleOf(need)} in ${one.name}`"
                :value="one.loads?.[need]"
                unit="%"
                placeholder="off"
                :save="store(one, roleOf(need), ['loads', need])"
              />
            </td>
          </tr>
          <tr>
            <td>
              <select
                aria-label="Add a load to the scenarios"
                @change="
                  added.push(($event.target as HTMLSelectElement).value)
                  ;($event.target as HTMLSelectElement).value = ''
                "
              >
                <option value="">Add a load …</option>
                <option v-for="need in others" :key="need.ref" :value="need.ref">{{ need.role }}</option>
              </select>
            </td>
            <td v-for="one in scenarios" :key="one.ref" />
          </tr>
          <tr>
            <td class="quiet">Off in it</td>
            <td
              v-for="one in scenarios"
              :key="one.ref"
              class="num small"
              :title="
                off(one)
                  .map((need) => need.role)
                  .join(', ')
              "
            >
              {{ off(one).length === 0 ? 'nothing' : `${off(one).length} of ${all.length}` }}
            </td>
          </tr>
          <tr>
            <td class="quiet">One run lasts</td>
            <td v-for="one in scenarios" :key="one.ref" class="num">
              <EditCell
                figure
                :label="`Duration of ${one.name}`"
                :value="one.duration"
                unit="h"
                :save="store(one, 'Duration', ['duration'])"
              />
            </td>
          </tr>
          <tr>
            <td class="quiet">Read at the wall</td>
            <td v-for="one in scenarios" :key="one.ref" class="num">
              <EditCell
                figure
                :label="`Power read at the wall in ${one.name}`"
                :value="one.measured"
                unit="W"
                :save="store(one, 'Power at the wall', ['measured'])"
              />
            </td>
          </tr>
          <tr>
            <td class="quiet">Runs a year</td>
            <td v-for="one in scenarios" :key="one.ref" class="num">
              <EditCell
                figure
                :label="`Runs a year of ${one.name}`"
                :value="one.runs_per_year"
                :save="store(one, 'Runs a year', ['runs_per_year'])"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="quiet small">
      Boards, drivers and hosts are never off unless a scenario says 0 %. A heater that runs part of the time still
      draws its full current while it is on.
    </p>
  </section>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
input,
select {
  font: inherit;
  font-size: 13px;
  height: 28px;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 0 6px;
}
</style>
