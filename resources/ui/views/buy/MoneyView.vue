<script setup lang="ts">
import { computed, ref } from 'vue'
import VChart from 'vue-echarts'
import { reasonOf, type Money } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { day, money, percent } from '@/shared/format'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useChart } from '@/shared/useChart'
import { useAsked } from '@/shared/useAsked'
import PriceTable from './PriceTable.vue'
import PriceForm from './PriceForm.vue'
import RateAsk from './RateAsk.vue'
import SupplierTerms from './SupplierTerms.vue'
import TrueCostTable from './TrueCostTable.vue'

const { document: build } = useBuild()
const { set } = useEdit()
const { look, renderer } = useChart()
const { data: sums, isError, error } = useDerived<Money>('money', () => 'money')
const currency = computed(() => sums.value?.currency ?? '')
const pricing = ref<string | null>(null)
const together = useAsked('prices')
const accounts = { machine: 'Machine', tool: 'Tools', consumable: 'Consumables' } as const

const slices = computed(() => {
  const held = sums.value
  return held === undefined
    ? []
    : [
        ...(['machine', 'tool', 'consumable'] as const).map((key) => ({
          name: accounts[key],
          amount: held.accounts[key],
        })),
        { name: 'Spares', amount: held.spares },
        { name: 'Shipping', amount: held.shipping },
        { name: 'Tax', amount: held.tax },
        { name: 'Contingency', amount: held.contingency },
      ]
})
/** Planned in its parts, paid beneath it, the budget as a line across both. */
const chart = computed(() => ({
  animation: false,
  aria: { enabled: true },
  textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif' },
  grid: { left: 70, right: 24, top: 22, bottom: 24 },
  tooltip: {
    trigger: 'item' as const,
    formatter: ({ seriesName, value }: { seriesName: string; value: number }) =>
      `${seriesName}: ${money(value.toFixed(2), currency.value)}`,
  },
  xAxis: {
    type: 'value' as const,
    axisLabel: { color: look.value.quiet, formatter: (value: number) => money(String(value), currency.value, false) },
    splitLine: { lineStyle: { color: look.value.rule } },
    max: Math.max(Number(sums.value?.budget ?? 0), Number(sums.value?.planned ?? 0)) * 1.06,
  },
  yAxis: {
    type: 'category' as const,
    inverse: true,
    data: ['Planned', 'Paid'],
    axisLabel: { color: look.value.ink },
    axisTick: { show: false },
    axisLine: { lineStyle: { color: look.value.ink } },
  },
  series: [
    ...slices.value.map((slice, i) => ({
      type: 'bar' as const,
      stack: 'sum',
      name: slice.name,
      barWidth: 24,
      data: [Number(slice.amount), 0],
      itemStyle: { color: look.value.parts[i], borderColor: look.value.rule, borderWidth: 0.5 },
      label: {
        show: true,
        color: i < 2 ? '#fff' : look.value.ink,
        fontSize: 11,
        formatter: ({ value }: { value: number }) =>
          value > Number(sums.value?.planned ?? 0) * 0.075 ? slice.name : '',
      },
      ...(i === 0 && sums.value?.budget
        ? {
            markLine: {
              silent: true,
              symbol: 'none',
              label: { formatter: 'budget', position: 'start' as const, color: look.value.ink, fontSize: 11 },
              lineStyle: { color: look.value.fails, type: 'solid' as const, width: 1.5 },
              data: [{ xAxis: Number(sums.value.budget) }],
            },
          }
        : {}),
    })),
    {
      type: 'bar' as const,
      stack: 'sum',
      name: 'Paid',
      barWidth: 24,
      data: [0, Number(sums.value?.paid ?? 0)],
      itemStyle: { color: look.value.sheen },
    },
  ],
}))
const besides = computed((): [string, string][] => {
  const beside = sums.value?.beside
  if (beside === undefined) return []
  const all: [string, string, boolean][] = [
    [
      `From the drawer, salvaged or given, at what ${beside.stock_pieces} pieces would cost${beside.unpriced ? `, ${beside.unpriced} of them without a price` : ''}`,
      money(beside.stock, currency.value),
      beside.stock_pieces > 0,
    ],
    [
      `Printed, with what failed`,
      `${beside.printed_pieces} pieces, ${beside.printed_grams} g`,
      beside.printed_grams > 0,
    ],
    ['Own hours so far', `${beside.hours} h`, beside.hours > 0],
  ]

  return all.filter(([, , is]) => is).map(([name, text]) => [name, text])
})
const priceOf = (line: Money['lines'][number]) =>
  line.price ? money(line.price, line.currency ?? '') : line.buy === 0 ? 'none to buy' : 'give a price'
const setPlan = (what: string, path: string) => (text: string, was: unknown) =>
  set(what, 'build', '', [path], was, text === '' ? null : text)
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Money</h1>
      <span v-if="sums" class="quiet"
        >planned at the cheapest offer for each part; prices and rates carry their day</span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="sums">
      <RateAsk />
      <div class="top">
        <div>
          <VChart
            class="chart"
            :option="chart"
            :init-options="renderer"
            autoresize
            role="img"
            aria-label="Planned money in its parts, paid money and budget; the table beside gives the figures."
          />
          <div v-if="sums.open.length" class="open" role="status">
            <strong class="unproven">{{ sums.open.length }} open</strong>, so the total is at least this:
            <span class="small"
              >{{ sums.open.slice(0, 4).join('; ')
              }}{{ sums.open.length > 4 ? ` and ${sums.open.length - 4} more` : '' }}.</span
            >
          </div>
          <h2>By supplier</h2>
          <table class="ledger">
            <thead>
              <tr>
                <th>Supplier</th>
                <th class="num wide-only">Goods</th>
                <th class="num wide-only">Shipping</th>
                <th class="num wide-only">Duty, tax, fee</th>
                <th class="num">Total</th>
                <th class="num">Landed, {{ currency }}</th>
                <th class="wide-only">Rate of</th>
                <th class="num">Delivery</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="basket in sums.baskets" :key="basket.supplier">
                <td>{{ basket.name }}</td>
                <td class="num figure wide-only">{{ money(basket.goods, basket.currency) }}</td>
                <td class="num figure wide-only">{{ money(basket.shipping, basket.currency) }}</td>
                <td class="num figure wide-only">
                  {{ money((Number(basket.duty) + Number(basket.tax) + Number(basket.fee)).toFixed(2), basket.currency)
                  }}<span v-if="basket.tax_rate && basket.duty === '0.00'" class="unit">{{
                    percent(basket.tax_rate)
                  }}</span>
                </td>
                <td class="num figure">{{ money(basket.total, basket.currency) }}</td>
                <td class="num figure">{{ money(basket.landed, currency) }}</td>
                <td class="small quiet wide-only">{{ basket.rate_date ? day(basket.rate_date) : '' }}</td>
                <td class="num figure">{{ basket.lead_days ?? '–' }}<span class="unit">d</span></td>
              </tr>
            </tbody>
          </table>
        </div>
        <dl class="facts sums">
          <template v-for="slice in slices" :key="slice.name"
            ><dt>
              {{ slice.name
              }}<span v-if="slice.name === 'Contingency'" class="ml-2"
                ><EditCell
                  figure
                  label="Contingency"
                  :value="build?.build.contingency"
                  unit="%"
                  placeholder="none"
                  :save="setPlan('Contingency', 'contingency')"
              /></span>
            </dt>
            <dd class="figure">{{ money(slice.amount, currency) }}</dd></template
          >
          <dt><strong>Planned</strong></dt>
          <dd class="figure">
            <strong>{{ money(sums.planned, currency) }}</strong><span v-if="sums.lacks.length" class="lacks"
              >+ {{ sums.lacks.join(', ') }}</span
            >
          </dd>
          <dt>Budget</dt>
          <dd>
            <EditCell figure label="Budget" :value="build?.build.budget" :save="setPlan('Budget', 'budget')"
              ><span class="figure">{{ money(sums.budget, currency) }}</span></EditCell
            >
          </dd>
          <dt>{{ (sums.budget_left ?? '').startsWith('-') ? 'Over budget' : 'Left of it' }}</dt>
          <dd class="figure" :class="{ fails: (sums.budget_left ?? '').startsWith('-') }">
            {{ money((sums.budget_left ?? null)?.replace('-', ''), currency) }}
          </dd>
          <dt>Paid so far</dt>
          <dd class="figure">{{ money(sums.paid, currency) }}</dd>
          <dt>Still to be paid for what is ordered</dt>
          <dd class="figure">{{ money(sums.owed, currency) }}</dd>
          <dt>Still to be ordered</dt>
          <dd class="figure">
            {{ money(sums.remaining, currency)
            }}<span v-if="sums.lacks.length" class="lacks">+ {{ sums.lacks.join(', ') }}</span>
          </dd>
          <dt v-if="Number(sums.abandoned) > 0">Paid for what was given up</dt>
          <dd v-if="Number(sums.abandoned) > 0" class="figure">{{ money(sums.abandoned, currency) }}</dd>
          <template v-if="Number(sums.moved) > 0"
            ><dt>Of what is paid, now in another build</dt>
            <dd class="figure">{{ money(sums.moved, currency) }}</dd></template
          >
          <template v-if="Number(sums.fetched) > 0"
            ><dt>Received for parts sold on</dt>
            <dd class="figure">{{ money(sums.fetched, currency) }}</dd></template
          >
          <dt><strong>Forecast</strong>, with contingency on what is to be ordered</dt>
          <dd class="figure">
            <strong>{{ money(sums.forecast, currency) }}</strong><span v-if="sums.lacks.length" class="lacks"
              >+ {{ sums.lacks.join(', ') }}</span
            >
          </dd>
          <dt>Cost of faults</dt>
          <dd class="figure">{{ money(sums.faults, currency) }}</dd>
          <template v-if="besides.length"
            ><dt class="beside"><strong>Beside the money</strong>, never added to it</dt>
            <dd class="beside" />
            <template v-for="[name, text] in besides" :key="name"
              ><dt>{{ name }}</dt>
              <dd class="figure">{{ text }}</dd></template
            ></template
          >
        </dl>
      </div>

      <h2>
        By part
        <button type="button" class="plain link small together" :aria-expanded="together" @click="together = !together">
          {{ together ? 'Show what each part costs' : 'Change many prices together' }}
        </button>
      </h2>
      <PriceTable v-if="together" />
      <table v-else class="ledger">
        <thead>
          <tr>
            <th>Part</th>
            <th class="wide-only">For</th>
            <th class="num wide-only">Needed</th>
            <th class="num wide-only">Spare</th>
            <th class="num wide-only">Owned</th>
            <th class="num">To buy</th>
            <th class="num wide-only">Packs</th>
            <th class="num wide-only">Left over</th>
            <th class="num">Price</th>
            <th class="num">Costs</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in sums.lines" :key="line.part ?? line.name">
            <td>{{ line.name }}</td>
            <td class="small quiet roles wide-only">
              {{ line.roles.slice(0, 3).join(', ')
              }}{{ line.roles.length > 3 ? ` and ${line.roles.length - 3} more` : '' }}
            </td>
            <td class="num figure wide-only">{{ line.pieces }}</td>
            <td class="num figure wide-only">{{ line.spare || '' }}</td>
            <td class="num figure wide-only">{{ line.owned || '' }}</td>
            <td class="num figure">{{ line.buy }}</td>
            <td class="num figure wide-only">{{ line.pack && line.pack > 1 ? `${line.packs} × ${line.pack}` : '' }}</td>
            <td class="num figure wide-only">{{ line.left_over || '' }}</td>
            <td class="num">
              <button
                v-if="line.part"
                type="button"
                class="plain figure price"
                :aria-label="`Price of ${line.name}: ${priceOf(line)}`"
                @click="pricing = pricing === line.part ? null : line.part"
              >
                {{ priceOf(line) }}
              </button>
            </td>
            <td class="num figure">{{ money(line.cost, currency) }}</td>
          </tr>
        </tbody>
      </table>
      <v-dialog :model-value="pricing !== null" max-width="560" @update:model-value="pricing = null"
        ><PriceForm v-if="pricing" :part="pricing" @done="pricing = null"
      /></v-dialog>

      <TrueCostTable />
      <SupplierTerms />
    </template>
  </div>
</template>

<style scoped>
.lacks {
  display: block;
  max-width: 170px;
  margin-left: auto;
  font-family: var(--text);
  font-size: 13px;
  color: var(--quiet);
  text-align: right;
  white-space: normal;
}
.beside {
  margin-top: 10px;
}
.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  gap: 40px;
  align-items: start;
}
.chart {
  height: 140px;
  width: 100%;
}
.open {
  border-left: 3px solid rgb(var(--v-theme-unproven));
  padding: 4px 10px;
  font-size: 14px;
}
h2 {
  margin: 24px 0 4px;
}
.roles {
  max-width: 240px;
}
.together {
  margin-left: 12px;
  font-family: var(--text);
}
.price:hover {
  color: var(--live);
}
@media (max-width: 900px) {
  .top {
    grid-template-columns: minmax(0, 1fr);
    gap: 12px;
  }
}
</style>
