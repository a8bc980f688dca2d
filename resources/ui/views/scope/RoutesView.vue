<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { reasonOf, type Routes } from '@/api/client'
import { money, percent } from '@/shared/format'
import { freeRef, refFrom } from '@/shared/refs'
import { useDecide } from '@/shared/useDecide'
import { useLook } from '@/shared/useLook'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'
import { usePanel } from '@/shared/usePanel'
import RouteLines from './RouteLines.vue'
import SchoolList from './SchoolList.vue'
import { amountOf, costParts } from './useRoutes'
import RateAsk from '../buy/RateAsk.vue'

const RouteCharts = defineAsyncComponent(() => import('./RouteCharts.vue'))
const { document: build } = useBuild()
const { edit } = useEdit()
const decide = useDecide()
const { data: catalogue } = useCatalogue()
const { data: sums, isError, error } = useDerived<Routes>('routes', () => 'routes')
const { look } = useLook()
const panel = usePanel()
const open = ref<string | null>(null)
const fresh = ref({ name: '', kind: 'kit' })
const taking = ref<string | null>(null)
const why = ref('')
const reason = ref('')
const routes = computed(() => sums.value?.routes ?? [])
const held = computed(() => build.value?.routes ?? [])
const decision = computed(() => (build.value?.decisions ?? []).find((one) => one.about === 'route'))
const opened = computed(() => held.value.find((route) => route.ref === open.value))
const cash = (amount: string | null | undefined) => money(amount, sums.value?.currency ?? '')

async function add(): Promise<void> {
  reason.value = ''
  try {
    const ref = freeRef(refFrom(fresh.value.name, 'route'), (one) => held.value.some((route) => route.ref === one))
    await edit(`Route ${fresh.value.name}`, [
      {
        section: 'routes',
        create: {
          ref,
          name: fresh.value.name,
          kind: fresh.value.kind,
          ...(fresh.value.kind === 'self-sourced' ? { whole_build: true } : {}),
        },
      },
    ])
    fresh.value.name = ''
    open.value = ref
  } catch (problem) {
    reason.value = reasonOf(problem)
  }
}

/** The route taken, with what every route cost on the day: when that changes, the decision opens again. */
async function take(ref: string): Promise<void> {
  reason.value = ''
  try {
    await decide('Decide the route', {
      about: 'route',
      question: decision.value?.question ?? 'Which route?',
      choice: ref,
      reason: why.value,
      facts: sums.value!.facts as Record<string, string>,
      rejected: held.value.filter((route) => route.ref !== ref).map((route) => ({ what: route.name })),
    })
    taking.value = null
    why.value = ''
  } catch (problem) {
    reason.value = reasonOf(problem)
  }
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Routes</h1>
      <span class="quiet">the ways to come by this machine, each with all it leaves out</span>
    </div>
    <RateAsk />
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="sums">
      <p class="sentence">{{ sums.sentence }}</p>
      <p v-if="routes.length === 0" class="empty">
        Describe at least two ways below: the ready-built machine, a kit with what it leaves out, or every part by
        yourself.
      </p>
      <template v-else>
        <RouteCharts :sums="sums" />
        <div class="wide">
          <table class="ledger compare">
            <thead>
              <tr>
                <th />
                <th v-for="route in routes" :key="route.ref" class="num">
                  <button
                    type="button"
                    class="plain name"
                    :aria-expanded="open === route.ref"
                    @click="open = open === route.ref ? null : route.ref"
                  >
                    {{ route.name }}</button><span class="quiet block">{{ route.kind }}</span>
                </th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(part, i) in costParts" :key="part.key">
                <td>
                  <span class="swatch" :style="{ background: look.parts[i] }" aria-hidden="true" />{{ part.title }}
                </td>
                <td
                  v-for="route in routes"
                  :key="route.ref"
                  class="num figure"
                  :class="{ quiet: amountOf(route, part.key) === '0.00' }"
                >
                  {{ amountOf(route, part.key) === '0.00' ? '–' : cash(amountOf(route, part.key)) }}
                </td>
              </tr>
              <tr class="sum">
                <td>At the door</td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  <strong>{{ cash(route.landed) }}</strong><span v-if="route.open.length" class="unproven small block"
                    >at least: {{ route.open.length }} open</span
                  >
                </td>
              </tr>
              <tr>
                <td>Against {{ routes[0]!.name }}</td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  {{
                    route.against === null
                      ? '–'
                      : `${route.against > 0 ? '+' : ''}${percent(route.against, 1)} of ${cash(routes[0]!.landed)}`
                  }}
                </td>
              </tr>
              <tr>
                <td>Left over sells for</td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  {{ route.resale === null ? '–' : cash(route.resale) }}
                </td>
              </tr>
              <tr>
                <td>Your hours, at {{ percent(sums.pace) }} of the guide</td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  {{ route.own_hours }}<span class="unit">h</span>
                </td>
              </tr>
              <tr>
                <td>An hour of building earns</td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  <template v-if="route.wage"
                    >{{ cash(route.wage.amount) }}<span class="unit">against {{ route.wage.against }}</span></template
                  ><template v-else>–</template>
                </td>
              </tr>
              <tr class="sum">
                <td>
                  With your hours<template v-if="sums.hour"> at {{ cash(sums.hour) }}</template>
                </td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  <strong>{{ cash(route.all_in) }}</strong>
                </td>
              </tr>
              <tr>
                <td>Printing</td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  {{ route.machine_hours ? `${route.machine_hours} h` : '–'
                  }}<span v-if="route.reels" class="unit"
                    >{{ route.filament }}, {{ route.reels }} {{ route.reels === 1 ? 'reel' : 'reels' }} of
                    {{ route.reel }}</span
                  >
                </td>
              </tr>
              <tr>
                <td>Waiting</td>
                <td v-for="route in routes" :key="route.ref" class="num figure">
                  {{ route.wait_days ?? '–' }}<span class="unit">days</span>
                </td>
              </tr>
              <tr>
                <td>Documentation, support</td>
                <td v-for="route in routes" :key="route.ref" class="num">
                  {{ route.documentation ?? 'not said' }}, {{ route.support ?? 'not said' }}
                </td>
              </tr>
              <tr>
                <td>Freedom to change</td>
                <td v-for="route in routes" :key="route.ref" class="num">{{ route.freedom ?? 'not said' }}</td>
              </tr>
              <tr>
                <td>Prices on a listing or less</td>
                <td
                  v-for="route in routes"
                  :key="route.ref"
                  class="num figure"
                  :class="{ unproven: route.weak_share > 0.25 }"
                >
                  {{ percent(route.weak_share) }}<span class="unit">of the goods</span>
                </td>
              </tr>
              <tr class="lists">
                <td>In the box</td>
                <td v-for="route in routes" :key="route.ref" class="small">{{ route.in_box.join('; ') || '–' }}</td>
              </tr>
              <tr class="lists">
                <td><em>Not</em> in the box</td>
                <td v-for="route in routes" :key="route.ref" class="small">
                  <template v-if="route.kind === 'self-sourced'"><span class="quiet">there is no box</span></template>
                  <ul v-else>
                    <li v-for="line in route.lines.filter((one) => one.kind !== 'box').slice(0, 6)" :key="line.what">
                      {{ line.what }} <span class="figure quiet">{{ cash(line.cost) }}</span>
                    </li>
                    <li v-if="route.lines.filter((one) => one.kind !== 'box').length > 6" class="quiet">
                      and {{ route.lines.filter((one) => one.kind !== 'box').length - 6 }} more
                    </li>
                  </ul>
                </td>
              </tr>
              <tr>
                <td />
                <td v-for="route in routes" :key="route.ref" class="num">
                  <v-btn
                    size="small"
                    :color="decision?.choice === route.ref ? undefined : 'primary'"
                    @click="taking = route.ref"
                    >{{
                      decision?.choice === route.ref && decision.state === 'made' ? 'Taken' : 'Take this route'
                    }}</v-btn
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <form v-if="taking" class="fields aside" @submit.prevent="take(taking)">
          <label for="route-why">Why {{ routes.find((route) => route.ref === taking)?.name }}?</label
          ><input id="route-why" v-model="why" class="field" size="48" autofocus />
          <v-btn type="submit" size="small" variant="flat" color="primary" :disabled="why.trim() === ''">Decide</v-btn
          ><v-btn size="small" @click="taking = null">Cancel</v-btn>
        </form>
        <p v-if="decision?.state === 'made'" class="aside">
          Decided: {{ held.find((route) => route.ref === decision?.choice)?.name }}, “{{ decision.reason }}”.
          <button type="button" class="plain link small" @click="panel.show({ kind: 'decision', ref: decision.ref })">
            The decision
          </button>
        </p>
        <details class="movers">
          <summary class="link small">By supplier</summary>
          <table class="ledger">
            <thead>
              <tr>
                <th>Route</th>
                <th>Supplier</th>
                <th class="num">Goods</th>
                <th class="num">Shipping</th>
                <th class="num">Duty</th>
                <th class="num">Tax</th>
                <th class="num">Fee</th>
                <th class="num">Landed, {{ sums.currency }}</th>
                <th class="num">Takes</th>
              </tr>
            </thead>
            <tbody>
              <template v-for="route in routes" :key="route.ref"
                ><tr v-for="basket in route.baskets" :key="basket.supplier">
                  <td>{{ route.name }}</td>
                  <td>{{ basket.supplier }}</td>
                  <td
                    v-for="(amount, i) in [basket.goods, basket.shipping, basket.duty, basket.tax, basket.fee]"
                    :key="i"
                    class="num figure"
                  >
                    {{ money(amount, basket.currency) }}
                  </td>
                  <td class="num figure">{{ cash(basket.landed) }}</td>
                  <td class="num figure">{{ basket.lead_days ?? '–' }}<span class="unit">d</span></td>
                </tr></template
              >
            </tbody>
          </table>
        </details>
        <details v-if="sums.movers.length" class="movers">
          <summary class="link small">The figures of what moves the answer</summary>
          <table class="ledger">
            <thead>
              <tr>
                <th>Assumption</th>
                <th class="num">At one end</th>
                <th class="num">At the other</th>
                <th>Changes the answer at</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="mover in sums.movers" :key="mover.what">
                <td>{{ mover.what }}</td>
                <td class="num figure">
                  {{ cash(mover.low) }}<span class="unit">{{ mover.low_says }}</span>
                </td>
                <td class="num figure">
                  {{ cash(mover.high) }}<span class="unit">{{ mover.high_says }}</span>
                </td>
                <td>{{ mover.flips ? 'yes' : '' }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </template>
      <form class="fields" @submit.prevent="add()">
        <input
          v-model="fresh.name"
          class="field"
          aria-label="A further route"
          placeholder="A further route"
          size="26"
        /><select v-model="fresh.kind" class="field" aria-label="Kind of route">
          <option v-for="kind in catalogue?.route_kinds" :key="kind">{{ kind }}</option></select
        ><v-btn type="submit" size="small" :disabled="fresh.name === ''">Add this route</v-btn
        ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
      </form>
      <RouteLines v-if="opened" :key="opened.ref" :route="opened" @gone="open = null" />
      <SchoolList />
    </template>
  </div>
</template>

<style scoped>
.sentence {
  font-size: 16px;
  max-width: 90ch;
}
.wide {
  overflow-x: auto;
}
.compare {
  margin-top: 8px;
}
.compare th,
.compare td {
  min-width: 150px;
}
.compare td.num,
.compare th.num {
  width: 27%;
}
.swatch {
  display: inline-block;
  width: 10px;
  height: 10px;
  margin-right: 8px;
  border: 1px solid var(--rule);
}
.name {
  font-family: var(--figures);
  color: var(--ink);
}
.name:hover {
  color: var(--live);
}
.block {
  display: block;
}
.sum td {
  border-top: 1px solid var(--ink);
}
.lists td {
  vertical-align: top;
  padding-top: 6px;
}
.lists ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
.movers summary {
  cursor: pointer;
  color: var(--live);
  padding: 8px 0;
}
</style>
