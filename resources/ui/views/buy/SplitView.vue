<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import VChart from 'vue-echarts'
import { reasonOf, type Change, type Frontier, type Order, type Split } from '@/api/client'
import { saveCsv } from '@/shared/download'
import FirstAction from '@/shared/FirstAction.vue'
import { day, money, today } from '@/shared/format'
import { nextRef } from '@/shared/refs'
import { amountOf } from '@/shared/decimals'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useChart } from '@/shared/useChart'
import { useNotices } from '@/shared/useNotices'
import RateAsk from './RateAsk.vue'

/** Where to buy what is wanted so that it costs least at the door, with the proof, and what else it could cost. */
const route = useRoute()
const router = useRouter()
const { document: build } = useBuild()
const { edit, set } = useEdit()
const { look, renderer } = useChart()
const notices = useNotices()
/** The most to spend; null where what was typed is no amount, which is said beside it. */
const ceiling = computed(() => {
  const typed = String(route.query.ceiling ?? '').trim()

  return typed === '' ? '' : amountOf(typed)
})
const limits = computed(() => {
  const asked = new URLSearchParams()
  for (const key of ['days', 'most'] as const) {
    const value = String(route.query[key] ?? '')
    if (/^\d+$/.test(value)) asked.set(key, value)
  }
  if (ceiling.value) asked.set('ceiling', ceiling.value)
  if (route.query.without) asked.set('without', String(route.query.without))

  return asked.size === 0 ? '' : `?${asked.toString()}`
})
const { data: order, isError, error } = useDerived<Order>('order', () => `order${limits.value}`)
const { data: frontier } = useDerived<Frontier>('frontier', () => `order/frontier${limits.value}`)
const split = computed(() => order.value?.split)
const currency = computed(() => split.value?.currency ?? '')
const open = ref<string | null>(null)
const busy = ref(false)
const suppliers = computed(() => build.value?.suppliers ?? [])
const left = computed(() =>
  String(route.query.without ?? '')
    .split(',')
    .filter(Boolean),
)

function limit(key: 'days' | 'most' | 'without' | 'ceiling', value: string): void {
  const query = { ...route.query, [key]: value === '' ? undefined : value }
  void router.replace({ query })
}
/** A day as days from now, since that is what suppliers promise. */
function by(date: string): void {
  const days = Math.round((Date.parse(date) - Date.parse(today())) / 86_400_000)
  limit('days', date === '' || Number.isNaN(days) ? '' : String(Math.max(0, days)))
}
const until = computed(() => {
  const days = Number(route.query.days ?? NaN)
  if (Number.isNaN(days)) return ''
  const at = new Date(`${today()}T12:00:00`)
  at.setDate(at.getDate() + days)

  return at.toISOString().slice(0, 10)
})
const leave = (supplier: string) =>
  limit(
    'without',
    (left.value.includes(supplier) ? left.value.filter((one) => one !== supplier) : [...left.value, supplier]).join(
      ',',
    ),
  )
const lotsAt = (supplier: string) =>
  (split.value?.lines ?? []).flatMap((line) =>
    line.lots.filter((lot) => lot.supplier === supplier).map((lot) => ({ line, lot })),
  )

const chart = computed(() => {
  const points = (frontier.value?.points ?? []).filter((point) => point.days !== null)

  return {
    animation: false,
    aria: { enabled: true },
    textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
    grid: { left: 66, right: 20, top: 14, bottom: 40 },
    xAxis: {
      type: 'value' as const,
      name: 'days until the last of it is here',
      nameLocation: 'middle' as const,
      nameGap: 24,
      min: 0,
      axisLabel: { color: look.value.quiet },
      nameTextStyle: { color: look.value.quiet },
      splitLine: { lineStyle: { color: look.value.rule } },
    },
    yAxis: {
      type: 'value' as const,
      scale: true,
      axisLabel: {
        color: look.value.quiet,
        formatter: (value: number) => money(value.toFixed(0), currency.value, false),
      },
      splitLine: { lineStyle: { color: look.value.rule } },
    },
    series: [
      {
        type: 'line' as const,
        step: 'end' as const,
        symbol: 'circle',
        symbolSize: 8,
        lineStyle: { color: look.value.live, width: 2 },
        itemStyle: { color: look.value.live },
        data: [...points].reverse().map((point) => [point.days, Number(point.landed)]),
      },
    ],
  }
})
const dearer = (landed: string) => (Number(landed) - Number(split.value?.landed ?? 0)).toFixed(2)

async function pin(lot: Split['lines'][number]['lots'][number]): Promise<void> {
  try {
    await set(
      lot.pinned ? 'Not settled any more' : 'Settled where it is bought',
      'offers',
      lot.offer,
      ['pinned'],
      lot.pinned || null,
      lot.pinned ? null : true,
    )
  } catch (problem) {
    notices.problem(problem)
  }
}

/** The basket of one supplier becomes an order, its lines with their share of what bringing it costs. */
async function note(basket: Split['baskets'][number]): Promise<void> {
  busy.value = true
  const held = [...(build.value?.purchases ?? [])]
  const own = build.value?.build.currency
  // As it is worth today, whatever the rate becomes.
  const rate = (build.value?.rates ?? []).find((one) => one.from === basket.currency && one.to === own)
  const changes: Change[] = basket.order.map((line) => {
    const ref = nextRef('B', held)
    held.push({ ref } as (typeof held)[number])

    return {
      section: 'purchases',
      create: {
        ref,
        part: line.part,
        supplier: basket.supplier,
        pieces: line.pieces,
        paid: '0.00',
        agreed: line.agreed,
        date: today(),
        state: 'ordered',
        order: `${basket.name}, ${today()}`,
        ...(line.article === null ? {} : { article: line.article }),
        ...(rate === undefined ? {} : { rate: rate.worth }),
      },
    }
  })
  try {
    await edit(`Ordered from ${basket.name}`, changes)
    notices.say(`${changes.length} lines are noted as ordered from ${basket.name}; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  } finally {
    busy.value = false
  }
}
const csv = (basket: Split['baskets'][number]) =>
  saveCsv(`${build.value?.build.name ?? 'build'}-${basket.supplier}.csv`, [
    ['packs', 'pack', 'article', 'part', `price ${basket.currency}`],
    ...lotsAt(basket.supplier).map(({ line, lot }) => [
      String(lot.packs),
      String(lot.pack),
      lot.article ?? '',
      line.name,
      lot.price,
    ]),
  ])
/** The order as one would write it to the supplier. */
async function copy(basket: Split['baskets'][number]): Promise<void> {
  const lines = lotsAt(basket.supplier).map(
    ({ line, lot }) =>
      `${lot.packs} × ${lot.pack > 1 ? `pack of ${lot.pack}, ` : ''}${line.name}${lot.article === null ? '' : ` (${lot.article})`}`,
  )
  try {
    await navigator.clipboard.writeText(['I would like to order:', '', ...lines, ''].join('\n'))
    notices.say(`The order for ${basket.name} is copied as text.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Where to buy</h1>
      <span v-if="split" class="quiet">the least cost at the door, of all ways to split it over the suppliers</span>
    </div>
    <RateAsk />
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="order && !order.wanted.some((line) => line.order > 0)" class="empty">
      Nothing is to be ordered: all that is needed is here or on its way, or no part is chosen yet.
      <FirstAction path="choose/parts?add">Add a part</FirstAction>
    </p>
    <p v-else-if="split && suppliers.length === 0" class="empty">
      No supplier and no price is known yet.
      <FirstAction path="buy/money?prices=1">Give prices</FirstAction>
    </p>
    <template v-else-if="split && order">
      <form class="fields limits asks" @submit.prevent>
        <label
          >All here by
          <input
            class="field"
            type="date"
            aria-label="All here by"
            :value="until"
            :min="today()"
            @change="by(($event.target as HTMLInputElement).value)"
        /></label>
        <label
          >Spend at most, and be soon
          <input
            class="field money"
            inputmode="decimal"
            aria-label="Spend at most"
            :placeholder="currency"
            :value="String(route.query.ceiling ?? '')"
            @change="limit('ceiling', ($event.target as HTMLInputElement).value.trim())"
        /></label>
        <span v-if="ceiling === null" class="danger small" role="alert"
          >“{{ route.query.ceiling }}” could be two amounts. Write it like 1234.50.</span
        >
        <label
          >Most suppliers
          <select
            class="field"
            aria-label="Most suppliers"
            :value="String(route.query.most ?? '')"
            @change="limit('most', ($event.target as HTMLSelectElement).value)"
          >
            <option value="">any number</option>
            <option v-for="n in Math.max(1, suppliers.length - 1)" :key="n" :value="String(n)">{{ n }}</option>
          </select></label
        >
        <span role="group" aria-label="Suppliers left out"
          ><label v-for="supplier in suppliers" :key="supplier.ref" class="out"
            ><input
              type="checkbox"
              :checked="!left.includes(supplier.ref)"
              :aria-label="`Buy from ${supplier.name}`"
              @change="leave(supplier.ref)"
            />
            {{ supplier.name }}</label
          ></span
        >
      </form>
      <div v-if="order.conflict.length" class="aside fails" role="alert">
        These cannot be had together: {{ order.conflict.join('; ') }}.
      </div>
      <div class="two">
        <div>
          <p v-if="split.solved" class="sum">
            <strong class="figure">{{ money(split.landed, currency) }}</strong> at the door from
            {{ split.baskets.length }} {{ split.baskets.length === 1 ? 'supplier' : 'suppliers'
            }}<template v-if="split.days !== null">, the last of it after {{ split.days }} days</template>.
            <span class="block small" :class="split.proven ? 'quiet' : 'unproven'"
              ><template v-if="split.proven">Proven: no other split of these prices costs less.</template
              ><template v-else
                >The search was stopped: another split may cost less, none less than
                {{ money(split.bound, currency) }}.</template
              ></span
            >
          </p>
          <p v-else class="fails">It cannot be bought within these limits.</p>
          <p v-if="split.unsaid.length" class="unproven small">
            Shipping is not said by {{ split.unsaid.join(', ') }}: it is counted as none there, so it may cost more.
          </p>
          <ul v-if="frontier" class="else small">
            <li v-if="frontier.fewer">
              From {{ frontier.fewer.suppliers }} {{ frontier.fewer.suppliers === 1 ? 'supplier' : 'suppliers' }} it
              costs {{ money(frontier.fewer.more, currency) }} more.
            </li>
            <li v-for="point in frontier.points.slice(1)" :key="String(point.days)">
              All here after {{ point.days }} days costs {{ money(dearer(point.landed), currency) }} more<template
                v-if="point === frontier.points.at(-1)"
                >; nothing is faster</template
              >.
            </li>
          </ul>
        </div>
        <VChart
          v-if="(frontier?.points.length ?? 0) > 1"
          class="chart"
          :option="chart"
          :init-options="renderer"
          autoresize
          role="img"
          aria-label="What it costs by how many days it may take; the sentences beside give the figures."
        />
      </div>
      <div v-if="split.open.length" class="unproven">
        Not available, so not in the sum:
        <span v-for="(one, i) in split.open.slice(0, 8)" :key="one.part"
          >{{ i > 0 ? '; ' : '' }}{{ one.pieces }} × {{ one.name }}, {{ one.why }}</span
        >{{ split.open.length > 8 ? `; and ${split.open.length - 8} more` : '' }}.
      </div>
      <section v-for="basket in split.baskets" :key="basket.supplier" :aria-label="basket.name">
        <h2>
          {{ basket.name }}
          <span class="quiet small"
            >{{ basket.lines }} {{ basket.lines === 1 ? 'line' : 'lines' }}, goods
            {{ money(basket.goods, basket.currency) }}, shipping {{ money(basket.shipping, basket.currency)
            }}<template v-if="Number(basket.duty) + Number(basket.tax) + Number(basket.fee) > 0"
              >, duty, tax, fee
              {{
                money((Number(basket.duty) + Number(basket.tax) + Number(basket.fee)).toFixed(2), basket.currency)
              }}</template
            >, in all {{ money(basket.total, basket.currency)
            }}<template v-if="basket.rate_date"
              >, {{ money(basket.landed, currency) }} at the rate of {{ day(basket.rate_date) }}</template
            ></span
          >
        </h2>
        <p class="small">
          <button
            type="button"
            class="plain link"
            :aria-expanded="open === basket.supplier"
            @click="open = open === basket.supplier ? null : basket.supplier"
          >
            {{ open === basket.supplier ? 'Hide the lines' : 'Show the lines' }}</button><v-btn
            size="small"
            color="primary"
            :disabled="busy"
            @click="note(basket)"
            >Note as ordered</v-btn
          ><v-btn size="small" @click="csv(basket)">Shopping list (CSV)</v-btn
          ><v-btn size="small" @click="copy(basket)">Copy as text</v-btn>
          <span v-if="basket.next_step" class="quiet"
            >{{ money(basket.next_step.more, basket.currency) }} more of goods, and shipping is
            {{ money(basket.next_step.shipping, basket.currency) }}.</span
          >
        </p>
        <table v-if="open === basket.supplier || split.baskets.length === 1" class="ledger stack" tabindex="0">
          <thead>
            <tr>
              <th>Part</th>
              <th class="num">Packs</th>
              <th class="num wide-only">Price</th>
              <th class="num">Costs</th>
              <th class="wide-only">Why here</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="{ line, lot } in lotsAt(basket.supplier)" :key="lot.offer">
              <td>
                {{ line.name }}<span v-if="lot.article" class="quiet small"> {{ lot.article }}</span>
              </td>
              <td class="num figure">{{ lot.pack > 1 ? `${lot.packs} × ${lot.pack}` : lot.packs }}</td>
              <td class="num figure wide-only">{{ money(lot.price, lot.currency) }}</td>
              <td class="num figure">{{ money(lot.cost, currency) }}</td>
              <td class="small quiet wide-only">{{ line.why }}</td>
              <td class="num">
                <button
                  type="button"
                  class="plain link small"
                  :aria-pressed="lot.pinned"
                  :aria-label="`${lot.pinned ? 'let it move' : 'keep it here'}: ${line.name}`"
                  @click="pin(lot)"
                >
                  {{ lot.pinned ? 'let it move' : 'keep it here' }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <p class="quiet small">
        Prices and rates carry the day they were noted; duty and tax by the supplier's terms. A part comes from one
        supplier, unless none has enough.
      </p>
    </template>
  </div>
</template>

<style scoped>
.money {
  width: 90px;
}
.limits {
  gap: 8px 20px;
}
.out {
  margin-right: 12px;
  white-space: nowrap;
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
.sum strong {
  font-size: 22px;
}
.block {
  display: block;
}
.chart {
  width: 100%;
  height: 190px;
}
.else {
  margin: 4px 0 0;
  padding-left: 18px;
}
h2 {
  margin: 18px 0 4px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
