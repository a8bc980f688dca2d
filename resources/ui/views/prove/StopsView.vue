<script setup lang="ts">
import { computed } from 'vue'
import { reasonOf, type Stops } from '@/api/client'
import FindingList from '@/shared/FindingList.vue'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'

/** The truth table of the stops: what is still live with which of them pressed, everything commanded on. */
const { roleOf } = useBuild()
const { data: table, isError, error } = useDerived<Stops>('stops', () => 'stops')
const { about } = useFindings()
const held = computed(() => about('stops'))
const nameOf = (pressed: string[]) =>
  pressed.length === 0
    ? 'None pressed'
    : pressed.length === table.value?.stops.length && pressed.length > 1
      ? 'All pressed'
      : `${pressed.map(roleOf).join(' and ')} pressed`
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Stops</h1>
      <span class="quiet">which loads that can hurt stay live, with everything commanded on</span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="table && table.loads.length === 0" class="empty">
      Nothing that can hurt is wired yet: no heater, spindle, arc or motor is fed by a lead. The demo's Linnet shows a
      stop that opens too little.
    </p>
    <template v-else-if="table">
      <FindingList :findings="held" none="No check speaks of the stops yet." />
      <div class="wide">
        <table class="ledger">
          <thead>
            <tr>
              <th>Load that can hurt</th>
              <th v-for="(state, i) in table.states" :key="i" class="num">
                {{ nameOf(state.pressed)
                }}<span v-if="state.pressed.length === 1 && state.pressed[0] === table.main" class="quiet block"
                  >the main one</span
                >
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="load in table.loads" :key="load.ref">
              <td>
                {{ load.role }}<span class="quiet small block">{{ load.family }}</span>
              </td>
              <td
                v-for="(state, i) in table.states"
                :key="i"
                class="num"
                :class="state.loads[load.ref] === 'live' ? (state.pressed.length ? 'danger' : '') : 'quiet'"
              >
                <strong v-if="state.loads[load.ref] === 'live'">live</strong
                ><template v-else>{{ state.loads[load.ref] }}</template>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="small quiet">
        Drawn from the leads: a stop opens its own way through, and a module or relay opens when what commands it is
        dead. “No command” is fed and silent: power off before reaching in. A spindle-only stop that keeps the position
        is good practice beside a main stop that kills everything; never instead of it. Local code and a licensed
        electrician decide.
      </p>
    </template>
  </div>
</template>

<style scoped>
.wide {
  overflow-x: auto;
  margin: 16px 0 8px;
}
table {
  max-width: 900px;
}
.block {
  display: block;
}
td {
  padding-top: 5px;
  padding-bottom: 4px;
}
</style>
