<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Channel, type PortMove, type Ports } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import EditCell from '@/shared/EditCell.vue'
import FindingList from '@/shared/FindingList.vue'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { nextRef } from '@/shared/refs'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import { channelFields, usePortSpecs } from '@/shared/usePortSpecs'
import VerdictMark from '@/shared/VerdictMark.vue'

/** Every channel of every board, what hangs on it or could, and where all would go on another board. */
const { document: build, roleOf, needs, parts } = useBuild()
const { data: ports, isError, error } = useDerived<Ports>('ports', () => 'ports')
const { about, worstOfNeed } = useFindings()
const { edit } = useEdit()
const { valueOf, store } = usePortSpecs()
const notices = useNotices()
const panel = usePanel()
const swap = ref('')
const uses = ['motor', 'heater', 'fan', 'light', 'thermistor', 'switch', 'probe', 'signal']
const groups = computed(() =>
  uses
    .map((use) => ({ use, channels: (ports.value?.channels ?? []).filter((one) => one.use === use) }))
    .filter((one) => one.channels.length > 0),
)
const verdict = computed(() => about('channels')[0])
/** What is said of fans on the wrong output, and of signals nobody understands. */
const jobs = computed(() => about('channel use').filter((finding) => finding.verdict !== 'holds'))
const boards = computed(() => [...new Set((ports.value?.channels ?? []).map((one) => one.board))])
const swaps = computed(() =>
  boards.value.flatMap((board) =>
    (needs.value.get(board)?.candidates ?? [])
      .filter((part) => part !== needs.value.get(board)?.choice)
      .map((part) => ({ value: `${board}/${part}`, title: parts.value.get(part)?.name ?? part })),
  ),
)
const { data: moves, isFetching } = useDerived<PortMove[]>('ports', () =>
  swap.value === '' ? '' : `ports/${swap.value}`,
)
const partOf = (channel: Channel) => parts.value.get(needs.value.get(channel.board)?.choice ?? '')
const portOf = (load: string) => {
  const need = needs.value.get(load)
  const family = need?.family ?? ''

  return ['thermistor', 'limit_switch', 'sensor', 'probe'].includes(family)
    ? 'signal'
    : ['switching_module', 'motor_driver', 'servo_motor'].includes(family)
      ? 'control'
      : family === 'relay'
        ? 'coil'
        : 'power'
}

/** Columns nobody filled stand folded, until they are asked for. */
const all = ref(false)
const fields = computed(() =>
  channelFields
    .slice(1)
    .filter(
      (field) =>
        all.value ||
        (ports.value?.channels ?? []).some(
          (channel) =>
            channel.stated && partOf(channel) && (valueOf(partOf(channel)!, channel.port, field.key) ?? '') !== '',
        ),
    ),
)
const folded = computed(() => channelFields.length - 1 - fields.value.length)

/** A proposal becomes a lead; so it is pinned, and judged like any other. */
async function wire(channel: Channel): Promise<void> {
  const [from, to] =
    channel.use === 'thermistor' || channel.use === 'switch' || channel.use === 'probe'
      ? [`${channel.load}.${portOf(channel.load!)}`, channel.ref]
      : [channel.ref, `${channel.load}.${portOf(channel.load!)}`]
  try {
    await edit(`${roleOf(channel.load!)} on ${channel.port}`, [
      { section: 'leads', create: { ref: nextRef('W', build.value?.leads), from, to } },
    ])
    notices.say(`A lead from ${from} to ${to}; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
const table = computed(() => groups.value.flatMap((group) => group.channels))
const short = (ref: string | null) => ref?.split('.').slice(1).join('.') ?? null
const printed = () => window.print()
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Ports</h1>
      <button
        v-if="verdict"
        type="button"
        class="plain says"
        @click="panel.show({ kind: 'working', key: verdict.key })"
      >
        <VerdictMark :verdict="verdict.verdict" word /> {{ verdict.headline }}
      </button>
      <span class="push noprint"
        ><v-btn v-if="folded > 0 || all" :aria-pressed="all" @click="all = !all">{{
          all ? 'Hide empty columns' : `Show ${folded} empty ${folded === 1 ? 'column' : 'columns'}`
        }}</v-btn
        ><v-btn @click="printed()">Print</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="ports && table.length === 0" class="empty">
      No board tells its channels yet. Give it ports with a use, or how many outputs and inputs it has, on its sheet
      under Parts.
      <FirstAction path="choose/parts">To the parts</FirstAction>
    </p>
    <template v-else-if="ports">
      <section v-if="ports.unplaced.length" class="aside" aria-label="Without a channel">
        <p>
          <strong>{{ ports.unplaced.map((one) => one.role).join(', ') }}</strong>
          {{ ports.unplaced.length === 1 ? 'gets' : 'get' }} no channel. In the way of each other:
          {{ ports.blocked.map(roleOf).join(', ') }}, for
          {{
            ports.contested.length === 0
              ? 'no channel that suits'
              : ports.contested.map((one) => short(one)).join(', ')
          }}.
        </p>
        <ul>
          <li v-for="cure in ports.cures" :key="cure">{{ cure }}</li>
        </ul>
      </section>
      <table class="ledger">
        <thead>
          <tr>
            <th>Channel</th>
            <th v-if="boards.length > 1">On</th>
            <th>Connected to</th>
            <th />
            <th class="num">Volts</th>
            <th v-for="field in fields" :key="field.key">
              {{ field.title.charAt(0).toUpperCase() + field.title.slice(1) }}
            </th>
          </tr>
        </thead>
        <tbody v-for="group in groups" :key="group.use">
          <tr class="grouped">
            <th :colspan="4 + (boards.length > 1 ? 1 : 0) + fields.length">
              {{ group.use }}
              <span class="quiet small">{{ ports.spare[group.use] ?? 0 }} left of {{ group.channels.length }}</span>
            </th>
          </tr>
          <tr v-for="channel in group.channels" :key="channel.ref">
            <td class="figure">
              {{ channel.port }}<span v-if="!channel.stated" class="quiet small"> counted only</span>
            </td>
            <td v-if="boards.length > 1" class="quiet">{{ roleOf(channel.board) }}</td>
            <td>
              <button
                v-if="channel.load"
                type="button"
                class="plain"
                @click="panel.show({ kind: 'part', ref: channel.load })"
              >
                <VerdictMark
                  v-if="worstOfNeed.get(channel.load)"
                  :verdict="worstOfNeed.get(channel.load)!.verdict"
                  :size="12"
                />
                {{ roleOf(channel.load) }}</button
              ><span v-else-if="channel.reserved" class="quiet">to be left free</span
              ><span v-else-if="channel.support && channel.support !== 'today'" class="unproven">{{
                channel.support
              }}</span>
            </td>
            <td class="small">
              <span v-if="channel.how === 'wired'" class="quiet">wired</span
              ><template v-else-if="channel.how === 'proposed'"
                ><span class="live">proposed</span>
                <button
                  v-if="channel.stated"
                  type="button"
                  class="plain link noprint"
                  :aria-label="`Wire ${roleOf(channel.load!)} to ${channel.port}`"
                  @click="wire(channel)"
                >
                  wire it
                </button></template
              >
            </td>
            <td class="num figure">
              {{ channel.volts ?? '' }}<span v-if="channel.volts !== null" class="unit">V</span>
            </td>
            <td v-for="field in fields" :key="field.key" class="small">
              <EditCell
                v-if="channel.stated && partOf(channel)"
                :label="`${field.title} of ${channel.port}`"
                :value="valueOf(partOf(channel)!, channel.port, field.key)"
                :options="field.options"
                :save="store(partOf(channel)!, channel.port, field)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <FindingList v-if="jobs.length" named :findings="jobs" none="" />
      <p v-if="!ports.exact" class="unproven small">
        There are more ways to set selectors and shared pins than were tried; a better one may exist.
      </p>
      <section v-if="swaps.length" class="mt-6">
        <h2>If the board is changed</h2>
        <p>
          <select v-model="swap" class="field" aria-label="Another board">
            <option value="">choose a candidate …</option>
            <option v-for="one in swaps" :key="one.value" :value="one.value">{{ one.title }}</option>
          </select>
        </p>
        <p v-if="swap && isFetching" class="quiet small" role="status">Working it out …</p>
        <table v-else-if="swap && moves" class="ledger moves">
          <thead>
            <tr>
              <th>Load</th>
              <th>Old port</th>
              <th>New port</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="move in moves" :key="move.need">
              <td>{{ move.role }}</td>
              <td class="figure">{{ short(move.before) ?? '–' }}</td>
              <td class="figure" :class="{ fails: move.after === null }">{{ short(move.after) ?? 'none' }}</td>
            </tr>
          </tbody>
        </table>
        <p v-if="swap && moves" class="quiet small">
          Proved again after the change: thermistor tables, currents, directions, heater tuning. Everything keeps its
          place on paper only until it is tried.
        </p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.says {
  max-width: 70ch;
  font-size: 14px;
}
.moves {
  max-width: 560px;
}
h2 {
  margin-bottom: 4px;
}
.aside ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
@media (max-width: 700px) {
  table.ledger {
    display: block;
    overflow-x: auto;
  }
}
@media print {
  .noprint {
    display: none;
  }
}
</style>
