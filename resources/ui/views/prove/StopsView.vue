<script setup lang="ts">
import { computed } from 'vue'
import { reasonOf, type Stops } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import FindingList from '@/shared/FindingList.vue'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'

type State = Stops['states'][number]

/** The truth table of the stops: a row for each thing that may happen, a column for each load that can hurt. */
const { roleOf } = useBuild()
const { data: table, isError, error } = useDerived<Stops>('stops', () => 'stops')
const { about } = useFindings()
const held = computed(() => about('stops'))
const groups = computed(() =>
  (['motion', 'spindle', 'torch', 'heat'] as const)
    .map((hazard) => ({ hazard, loads: (table.value?.loads ?? []).filter((load) => load.hazard === hazard) }))
    .filter((group) => group.loads.length > 0),
)
const loads = computed(() => groups.value.flatMap((group) => group.loads))

function says(state: State): string {
  const of = state.of.map(roleOf).join(' and ')
  switch (state.kind) {
    case 'rest':
      return 'Running, nothing pressed'
    case 'pressed':
      return state.of.length > 1 && state.of.length === table.value?.stops.length ? 'All pressed' : `${of} pressed`
    case 'released':
      return `${of} released again`
    case 'broken':
      return `A wire at ${of} broken`
    case 'welded':
      return `${roleOf(table.value?.main ?? '')} pressed, contact of ${of} welded`
    case 'fault':
      return `${of} in fault`
    default:
      return 'Power lost and back'
  }
}
/** Live where it should have stopped: a stop pressed, or nobody there to start it. */
const alarms = (state: State, load: string) =>
  state.loads[load] === 'live' && !['rest', 'fault', 'broken'].includes(state.kind) && state.kind !== 'released'
const pressedLike = (state: State) =>
  table.value?.states.find((other) => other.kind === 'pressed' && other.of.join() === state.of.join())
const starts = (state: State, load: string) =>
  state.kind === 'released' && state.loads[load] === 'live' && pressedLike(state)?.loads[load] !== 'live'
const word = (value: boolean | null, yes: string, no: string) => (value === null ? '—' : value ? yes : no)
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Stops</h1>
      <span class="quiet">what stays live when something happens, with everything commanded on</span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="table && table.loads.length === 0" class="empty">
      Nothing that can hurt is wired yet: no heater, spindle, arc or motor is fed by a lead.
      <FirstAction path="prove/leads?propose">Wire what can hurt</FirstAction>
    </p>
    <template v-else-if="table">
      <FindingList :findings="held" none="No check speaks of the stops yet." />
      <div class="wide" tabindex="0" role="region" aria-label="What stays live">
        <table class="ledger">
          <thead>
            <tr>
              <td></td>
              <th v-for="group in groups" :key="group.hazard" :colspan="group.loads.length" class="group">
                {{ group.hazard }}
              </th>
              <td colspan="3"></td>
            </tr>
            <tr>
              <th>What happens</th>
              <th v-for="load in loads" :key="load.ref" class="load">{{ load.role }}</th>
              <th class="load">Board</th>
              <th class="load">Position</th>
              <th>Supplies left live</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(state, i) in table.states" :key="i">
              <th scope="row">
                {{ says(state)
                }}<span
                  v-if="state.kind === 'pressed' && state.of.length === 1 && state.of[0] === table.main"
                  class="quiet small block"
                  >the main one</span
                >
              </th>
              <td
                v-for="load in loads"
                :key="load.ref"
                :class="alarms(state, load.ref) || starts(state, load.ref) ? 'danger' : 'quiet'"
              >
                <strong v-if="alarms(state, load.ref)">live</strong
                ><strong v-else-if="starts(state, load.ref)">starts</strong
                ><template v-else>{{ state.loads[load.ref] }}</template>
              </td>
              <td class="quiet">{{ word(state.board, 'runs', 'down') }}</td>
              <td class="quiet">{{ word(state.position, 'kept', 'lost') }}</td>
              <td class="quiet small supplies">{{ state.supplies.join(', ') || 'none' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="small quiet">
        Solved from the leads: a stop opens its own way through, and a module or relay opens when what commands it is
        dead. What remembers stays off until it is reset: a stop with a reset of its own, a safety relay, a contactor
        that holds itself, and a board that was without power and waits for its program. “No command” is fed and silent:
        power off before reaching in. A spindle-only stop that keeps the position is good practice beside a main stop
        that kills everything; never instead of it. Local code and a licensed electrician decide.
      </p>
    </template>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
  margin: 16px 0 8px;
}
.block {
  display: block;
}
th.group {
  text-align: left;
  border-left: 1px solid var(--rule);
  padding-left: 8px;
}
th.load {
  max-width: 96px;
  font-weight: 500;
  vertical-align: bottom;
}
tbody th {
  border-bottom: 1px solid var(--rule);
  box-shadow: none;
  font-weight: 500;
  text-align: left;
  min-width: 190px;
}
td {
  white-space: nowrap;
  padding-top: 5px;
  padding-bottom: 4px;
}
td.supplies {
  white-space: normal;
}
</style>
