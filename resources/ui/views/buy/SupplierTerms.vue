<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { day, today } from '@/shared/format'
import { freeRef, refFrom } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import ShippingSteps from './ShippingSteps.vue'

/** What each supplier asks for shipping and tax, and what currencies are worth, on which day. */
const { document: build } = useBuild()
const { set, edit } = useEdit()
const fresh = ref({ from: '', worth: '' })
const supplier = ref({ name: '', currency: 'GBP' })
const reason = ref('')
const suppliers = computed(() => build.value?.suppliers ?? [])
const rates = computed(() => build.value?.rates ?? [])
const own = computed(() => build.value?.build.currency ?? '')
const missing = computed(() =>
  [...new Set(suppliers.value.map((one) => one.currency))].filter(
    (code) => code !== own.value && !rates.value.some((rate) => rate.from === code || rate.to === code),
  ),
)

const store = (ref: string, what: string, path: string) => (text: string, was: unknown) =>
  set(
    `${what} of a supplier`,
    'suppliers',
    ref,
    [path],
    was,
    path === 'lead_days' && /^\d+$/.test(text) ? Number(text) : text === '' ? null : text,
  )
const ship = (ref: string, was: unknown) => (steps: { from: string; cost: string }[] | null) =>
  set('Shipping of a supplier', 'suppliers', ref, ['shipping'], was ?? null, steps)

const avoid = (ref: string, name: string) => (text: string) =>
  set(
    text === 'no' ? `Nothing is bought from ${name}` : `${name} may be bought from`,
    'suppliers',
    ref,
    ['avoid'],
    suppliers.value.find((one) => one.ref === ref)?.avoid ?? null,
    text === 'no' ? true : null,
  )

async function revalue(rate: (typeof rates.value)[number], worth: string): Promise<unknown> {
  return edit(`Rate of ${rate.from}`, [
    {
      section: 'rates',
      ref: `${rate.from}-${rate.to}`,
      set: [
        { path: ['worth'], was: rate.worth, to: worth },
        { path: ['date'], to: today() },
      ],
    },
  ])
}
async function addSupplier(): Promise<void> {
  try {
    await edit(`Supplier ${supplier.value.name}`, [
      {
        section: 'suppliers',
        create: {
          ref: freeRef(refFrom(supplier.value.name, 'supplier'), (one) =>
            suppliers.value.some((held) => held.ref === one),
          ),
          name: supplier.value.name,
          currency: supplier.value.currency.toUpperCase(),
        },
      },
    ])
    supplier.value.name = ''
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
async function add(): Promise<void> {
  try {
    await edit(`Rate of ${fresh.value.from}`, [
      {
        section: 'rates',
        create: { from: fresh.value.from.toUpperCase(), to: own.value, worth: fresh.value.worth, date: today() },
      },
    ])
    fresh.value = { from: '', worth: '' }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <div class="terms">
    <section>
      <h2>Terms of the suppliers</h2>
      <p v-if="suppliers.length === 0" class="quiet">None yet: a supplier comes with its first price.</p>
      <table v-else class="ledger">
        <thead>
          <tr>
            <th>Supplier</th>
            <th>Shipping by value of goods</th>
            <th class="num">Duty</th>
            <th class="num">free to</th>
            <th class="num">Tax added</th>
            <th class="num">free to</th>
            <th class="num">Fee</th>
            <th class="num">Delivery</th>
            <th class="num">Orders from</th>
            <th>Buy there</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in suppliers" :key="one.ref">
            <td>
              <EditCell :label="`Name of ${one.name}`" :value="one.name" :save="store(one.ref, 'Name', 'name')" />
              <span class="quiet small">{{ one.currency }}</span>
            </td>
            <td class="figure">
              <ShippingSteps
                :name="one.name"
                :currency="one.currency"
                :steps="one.shipping"
                :save="ship(one.ref, one.shipping)"
              />
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`Duty of ${one.name}`"
                :value="one.duty"
                unit="%"
                :save="store(one.ref, 'Duty', 'duty')"
              />
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`Goods free of duty from ${one.name}`"
                :value="one.duty_free"
                :save="store(one.ref, 'Duty threshold', 'duty_free')"
              />
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`Tax of ${one.name}`"
                :value="one.tax"
                unit="%"
                placeholder="in the price"
                :save="store(one.ref, 'Tax', 'tax')"
              />
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`Goods free of tax from ${one.name}`"
                :value="one.tax_free"
                :save="store(one.ref, 'Tax threshold', 'tax_free')"
              />
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`Fee of paying ${one.name}`"
                :value="one.fee"
                unit="%"
                :save="store(one.ref, 'Fee', 'fee')"
              />
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`Days ${one.name} takes`"
                :value="one.lead_days"
                :save="store(one.ref, 'Days', 'lead_days')"
              /><span class="unit">d</span>
            </td>
            <td class="num">
              <EditCell
                figure
                :label="`Least order at ${one.name}`"
                :value="one.least_order"
                placeholder="any"
                :save="store(one.ref, 'Least order', 'least_order')"
              />
            </td>
            <td>
              <EditCell
                :label="`Whether to buy from ${one.name}`"
                :value="one.avoid ? 'no' : 'yes'"
                :options="[
                  { value: 'yes', title: 'yes' },
                  { value: 'no', title: 'no' },
                ]"
                :save="avoid(one.ref, one.name)"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <form @submit.prevent="addSupplier()">
        <input v-model="supplier.name" aria-label="A further supplier" placeholder="A further supplier" size="22" />
        <input v-model="supplier.currency" aria-label="Its currency" size="4" />
        <v-btn type="submit" size="small" :disabled="supplier.name === ''">Add</v-btn>
      </form>
    </section>
    <section>
      <h2>Rates to {{ own }}</h2>
      <p v-if="missing.length" class="unproven" role="status">No rate for {{ missing.join(', ') }} yet.</p>
      <table v-if="rates.length" class="ledger">
        <tbody>
          <tr v-for="rate in rates" :key="rate.from + rate.to">
            <td>1 {{ rate.from }}</td>
            <td class="num">
              <EditCell
                figure
                :label="`What one ${rate.from} is worth in ${rate.to}`"
                :value="rate.worth"
                :save="(text) => revalue(rate, text)"
              /><span class="unit">{{ rate.to }}</span>
            </td>
            <td class="quiet small">{{ day(rate.date) }}</td>
          </tr>
        </tbody>
      </table>
      <form @submit.prevent="add()">
        <input v-model="fresh.from" aria-label="Currency" placeholder="EUR" size="4" /> is worth
        <input v-model="fresh.worth" aria-label="What one is worth" placeholder="0.864" size="7" /> {{ own }}
        <v-btn type="submit" size="small" color="primary" :disabled="!fresh.from || !fresh.worth">Add</v-btn>
      </form>
      <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
    </section>
  </div>
</template>

<style scoped>
.terms {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 250px;
  gap: 32px;
}
h2 {
  margin: 24px 0 4px;
}
form {
  padding-top: 8px;
  font-size: 14px;
}
input {
  font: inherit;
  font-size: 13px;
  height: 26px;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 0 4px;
}
@media (max-width: 900px) {
  .terms {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
