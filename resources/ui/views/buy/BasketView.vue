<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, reasonOf, type Change, type EditResult, type Order, type Spare } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { freeRef, refFrom, uuid } from '@/shared/refs'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import RateAsk from './RateAsk.vue'

/** How many of each part are wanted, what there is of it already, and what has to be looked at before it is ordered. */
const { id, needs, parts } = useBuild()
const { edit, absorb } = useEdit()
const notices = useNotices()
const { data: spare } = useDerived<Spare[]>('stock', () => 'stock')
const { data: order, isError, error } = useDerived<Order>('order', () => 'order')
const panel = usePanel()
const words = ref('')
const which = ref<'order' | 'doubt' | 'all'>('order')
const lines = computed(() => order.value?.wanted ?? [])
const shown = computed(() => {
  const wanted = words.value.toLowerCase()

  return lines.value.filter(
    (line) =>
      (which.value === 'all' || (which.value === 'order' ? line.order > 0 : line.doubts.length > 0)) &&
      `${line.name} ${line.roles.join(' ')}`.toLowerCase().includes(wanted),
  )
})
const counts = computed(() => ({
  order: lines.value.filter((line) => line.order > 0).length,
  doubt: lines.value.filter((line) => line.doubts.length > 0).length,
  all: lines.value.length,
}))
const forLeads = (goods: Good[]) => goods.map((good) => `${good.pieces > 1 ? `${good.pieces} × ` : ''}${good.what}`)
const toPrint = computed(() => lines.value.filter((line) => line.print > 0))
const titles = { order: 'to order', doubt: 'to look at again', all: 'all' } as const

/** Pieces another build of the workshop has over: both builds are changed, or neither. */
async function take(one: Spare): Promise<void> {
  try {
    absorb(
      await api.post<EditResult>(`/api/builds/${id.value}/stock`, {
        key: uuid(),
        part: one.part,
        from: one.from,
        there: one.there,
        pieces: one.take,
      }),
    )
    notices.say(`${one.take} × ${one.name} are here now, and gone from ${one.build}.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
type Good = Order['for_leads'][number]
/** What leads are made of becomes a place of the build, to be ordered with the rest. */
async function list(goods: Good[]): Promise<void> {
  const changes: Change[] = []
  const taken = new Set([...needs.value.keys(), ...parts.value.keys()])
  for (const good of goods) {
    const ref = freeRef(refFrom(good.what, 'good'), (one) => taken.has(one))
    taken.add(ref)
    if (good.part === null) {
      changes.push({ section: 'parts', create: { ref, family: good.family, name: good.what } })
    }
    const part = good.part ?? ref
    changes.push({
      section: 'needs',
      create: {
        ref,
        role: good.what,
        family: good.family,
        quantity: good.pieces,
        candidates: [part],
        choice: part,
      },
    })
  }
  try {
    await edit(`${goods.length} things for the leads`, changes)
    notices.say(`${goods.length} things for the leads are on the list; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  }
}

function open(part: string): void {
  const need = [...needs.value.values()].find((one) => one.choice === part)
  if (need !== undefined) panel.show({ kind: 'part', ref: need.ref })
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>What to order</h1>
      <span v-if="order" class="quiet">what the build needs, with spares, less what is owned, here or on its way</span>
      <span v-if="counts.order" class="push"
        ><v-btn color="primary" variant="flat" :to="`/builds/${id}/buy/split`">Where to buy it</v-btn></span
      >
    </div>
    <RateAsk />
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="order && lines.length === 0 && order.undecided.length === 0" class="empty">
      There is nothing to order before there are parts.
      <FirstAction path="choose/parts?add">Add a part</FirstAction>
    </p>
    <template v-else-if="order">
      <div class="fields">
        <input
          v-model="words"
          class="field"
          type="search"
          aria-label="Show only parts with these words"
          placeholder="Show only …"
        />
        <span class="choices" role="group" aria-label="Which lines"
          ><button
            v-for="(title, key) in titles"
            :key="key"
            type="button"
            class="plain"
            :aria-pressed="which === key"
            @click="which = key"
          >
            {{ title }} <span class="quiet">{{ counts[key] }}</span>
          </button></span
        >
      </div>
      <p v-if="order.undecided.length" class="unproven">
        Not chosen yet, so not on the list: {{ order.undecided.slice(0, 5).join(', ')
        }}{{ order.undecided.length > 5 ? ` and ${order.undecided.length - 5} more` : '' }}.
      </p>
      <div v-if="order.safety.length" class="aside">
        For safety, and not said to be at hand: {{ order.safety.join('; ') }}.
        <router-link class="link" :to="`/builds/${id}/scope/brief`">Say what is at hand</router-link>
      </div>
      <div v-if="toPrint.length" class="aside">
        {{ toPrint.reduce((sum, line) => sum + line.print, 0) }} pieces of {{ toPrint.length }}
        {{ toPrint.length === 1 ? 'part' : 'parts' }} are printed, since nobody offers them.
        <router-link class="link" :to="`/builds/${id}/buy/prints`">Prints</router-link>
      </div>
      <div v-if="order.for_leads.length" class="aside">
        For the leads, and on no list: {{ forLeads(order.for_leads).slice(0, 6).join('; ')
        }}{{ order.for_leads.length > 6 ? ` and ${order.for_leads.length - 6} more` : '' }}.
        <button type="button" class="plain link" @click="list(order.for_leads)">Put them on the list</button>
      </div>
      <div v-for="one in spare" :key="`${one.from}/${one.there}`" class="aside">
        {{ one.build }} has {{ one.over }} × {{ one.name }} over.
        <button type="button" class="plain link" @click="take(one)">Take {{ one.take }} from {{ one.build }}</button>
      </div>
      <p v-if="shown.length === 0" class="empty">
        {{ counts.order === 0 ? 'All that is needed is here or on its way.' : 'No line is like that.' }}
      </p>
      <table v-else class="ledger stack" tabindex="0">
        <thead>
          <tr>
            <th>Part</th>
            <th class="num">Needed</th>
            <th class="num wide-only">Spare</th>
            <th class="num wide-only">Owned</th>
            <th class="num wide-only">Here</th>
            <th class="num wide-only">On its way</th>
            <th class="num">To order</th>
            <th>Look again</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in shown" :key="line.part">
            <td class="part">
              <button type="button" class="plain" @click="open(line.part)">{{ line.name }}</button><span
                class="quiet small block wide-only"
                >{{ line.roles.slice(0, 3).join(', ')
                }}{{ line.roles.length > 3 ? ` and ${line.roles.length - 3} more` : '' }}</span
              >
            </td>
            <td class="num figure">{{ line.needed }}</td>
            <td class="num figure wide-only">{{ line.spare || '' }}</td>
            <td class="num figure wide-only">{{ line.owned || '' }}</td>
            <td class="num figure wide-only">{{ line.here || '' }}</td>
            <td class="num figure wide-only">{{ line.coming || '' }}</td>
            <td class="num figure">
              <strong>{{ line.order || '' }}</strong><span v-if="line.over" class="quiet small block"
                >{{ line.over }} over</span
              ><span v-if="line.print" class="quiet small block">{{ line.print }} to print</span>
            </td>
            <td class="small tight under">{{ line.doubts.join('; ') }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </div>
</template>

<style scoped>
.block {
  display: block;
}
.part {
  max-width: 420px;
}
</style>
