<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Change, Offer } from '@/api/client'
import PickOne from '@/shared/PickOne.vue'
import PickAll from '@/shared/PickAll.vue'
import EditCell from '@/shared/EditCell.vue'
import { day, today, whole } from '@/shared/format'
import ManyBar from '@/shared/ManyBar.vue'
import { nextRef } from '@/shared/refs'
import SortHead from '@/shared/SortHead.vue'
import { useBuild, useEdit } from '@/shared/useBuild'
import { itemsOf } from '@/shared/lists'
import { useMany } from '@/shared/useMany'
import { later } from './prices'

/** Every price, and every part without one, to be filled and changed many at once. */
const { document: build, parts } = useBuild()
const { edit } = useEdit()
type Row = { ref: string; part: string; name: string; offer?: Offer }

const rows = computed<Row[]>(() => {
  const offers = build.value?.offers ?? []
  const priced = new Set(offers.map((offer) => offer.part))
  const chosen = new Set((build.value?.needs ?? []).map((need) => need.choice))
  const name = (part: string) => parts.value.get(part)?.name ?? part

  return [
    ...[...parts.value.values()]
      .filter((part) => chosen.has(part.ref) && !priced.has(part.ref))
      .map((part) => ({ ref: `${part.ref} (new)`, part: part.ref, name: part.name })),
    ...offers.map((offer) => ({ ref: offer.ref, part: offer.part, name: name(offer.part), offer })),
  ]
})
const suppliers = computed(() =>
  (build.value?.suppliers ?? []).map((one) => ({ value: one.ref, title: `${one.name} (${one.currency})` })),
)

/** A price that is new needs its supplier: said once for all of them. */
const picked = ref('')
const from = computed({
  get: () => picked.value || (suppliers.value[0]?.value ?? ''),
  set: (supplier: string) => (picked.value = supplier),
})
let claimed: { ref: string }[] = []
function make(row: Row, set: { path: (string | number)[]; to: unknown }[]): Change | null {
  const given = Object.fromEntries(set.map(({ path, to }) => [String(path[0]), to]))
  if (given.price === undefined || given.price === null) return null
  const ref = nextRef('O', [...(build.value?.offers ?? []), ...claimed])
  claimed.push({ ref })

  return {
    section: 'offers',
    create: { ref, part: row.part, supplier: from.value, date: today(), ...given },
  }
}
/** What a supplier may say of an offer beside its price, in packs and days. */
const terms = [
  { key: 'least', title: 'Packs at least' },
  { key: 'stock', title: 'Packs in stock' },
  { key: 'lead_days', title: 'Days to come' },
] as const
/** "10: 4.20; 50: 3.90" ⇄ what a pack costs from so many packs up. */
const breaksOf = (offer: Offer | undefined) =>
  (offer?.breaks ?? []).map((one) => `${one.from}: ${one.price}`).join('; ')
const breaksIn = (text: string) =>
  itemsOf(text).map((part) => {
    const [from = '', price = ''] = part.split(':').map((one) => one.trim())

    return { from: whole(from), price }
  })
const many = useMany<Row>({
  name: 'prices',
  section: 'offers',
  one: 'price',
  many: 'prices',
  rows,
  refOf: (row) => row.ref,
  isNew: (row) => row.offer === undefined,
  makes: make,
  begin: () => (claimed = []),
  hides: ['least', 'stock', 'lead_days', 'breaks'],
  columns: () => [
    { key: 'ref', title: 'Name', text: (row) => row.ref },
    { key: 'part', title: 'Part', text: (row) => row.name },
    {
      key: 'supplier',
      title: 'Supplier',
      text: (row) => row.offer?.supplier ?? '',
      path: ['supplier'],
      options: suppliers.value,
    },
    {
      key: 'price',
      title: 'Price',
      text: (row) => row.offer?.price ?? '',
      path: ['price'],
      order: (row) => (row.offer === undefined ? null : Number(row.offer.price)),
      value: (text) => text.replace(/^(\d+),(\d{1,2})$/, '$1.$2'),
    },
    {
      key: 'pack',
      title: 'Pieces in a pack',
      text: (row) => (row.offer === undefined ? '' : String(row.offer.pack ?? 1)),
      was: (row) => row.offer?.pack,
      path: ['pack'],
      order: (row) => row.offer?.pack ?? 1,
      value: whole,
    },
    ...terms.map(({ key, title }) => ({
      key,
      title,
      text: (row: Row) => String(row.offer?.[key] ?? ''),
      was: (row: Row) => row.offer?.[key],
      path: [key],
      order: (row: Row) => row.offer?.[key] ?? null,
      value: whole,
    })),
    {
      key: 'breaks',
      title: 'Cheaper from',
      text: (row) => breaksOf(row.offer),
      was: (row) => row.offer?.breaks,
      path: ['breaks'],
      value: breaksIn,
    },
    { key: 'date', title: 'As of', text: (row) => row.offer?.date ?? '', path: ['date'] },
    { key: 'article', title: 'Article number', text: (row) => row.offer?.article ?? '', path: ['article'] },
  ],
})

/** One cell of one row, by the same way as a column of many. */
const store = (row: Row, key: string) => async (text: string, was: unknown) => {
  const column = many.columns().find((one) => one.key === key)!
  const to = text === '' ? null : column.value === undefined ? text : column.value(text)
  claimed = []
  const change =
    row.offer === undefined
      ? make(row, [{ path: column.path!, to }])
      : {
          section: 'offers' as const,
          ref: row.ref,
          set: [
            { path: column.path!, was: ((column.was ? column.was(row) : was) ?? null) as never, to: to as never },
            ...(key === 'price' ? later(row.offer) : []),
          ],
        }
  if (change === null) throw new Error('Give the price first; the rest follows it.')
  await edit(`${column.title} of ${row.name}`, [change])
}
</script>

<template>
  <p v-if="rows.some((row) => row.offer === undefined)" class="small">
    <label v-if="suppliers.length"
      >New prices are from
      <select v-model="from" class="field">
        <option v-for="one in suppliers" :key="one.value" :value="one.value">{{ one.title }}</option>
      </select></label
    >
    <template v-else>A price needs a supplier: add the first one below.</template>
  </p>
  <ManyBar :many="many" />
  <table class="ledger">
    <thead>
      <tr>
        <PickAll :many="many" />
        <SortHead :many="many" column="part" />
        <SortHead :many="many" column="supplier" />
        <SortHead :many="many" column="price" num />
        <SortHead :many="many" column="pack" num />
        <SortHead v-for="one in terms" :key="one.key" :many="many" :column="one.key" num />
        <SortHead :many="many" column="breaks" />
        <SortHead :many="many" column="date" />
        <SortHead :many="many" column="article" />
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in many.sorted.value" :key="row.ref" :data-ref="row.ref">
        <PickOne :many="many" :row="row" :called="`the price of ${row.name}`" />
        <td v-if="many.shows('part')">{{ row.name }}</td>
        <td v-if="many.shows('supplier')">
          <EditCell
            :label="`Supplier of ${row.name}`"
            :value="row.offer?.supplier"
            :options="suppliers"
            :save="store(row, 'supplier')"
          />
        </td>
        <td v-if="many.shows('price')" class="num">
          <EditCell
            figure
            :label="`Price of ${row.name}`"
            :value="row.offer?.price"
            placeholder="none yet"
            :save="store(row, 'price')"
          /><span v-for="was in (row.offer?.past ?? []).slice(-2).reverse()" :key="was.date" class="quiet small block"
            >{{ was.price }} on {{ day(was.date) }}</span
          >
        </td>
        <td v-if="many.shows('pack')" class="num">
          <EditCell
            figure
            :label="`Pieces in a pack of ${row.name}`"
            :value="row.offer?.pack"
            placeholder="1"
            :save="store(row, 'pack')"
          />
        </td>
        <template v-for="one in terms" :key="one.key"
          ><td v-if="many.shows(one.key)" class="num">
            <EditCell
              figure
              :label="`${one.title} of ${row.name}`"
              :value="row.offer?.[one.key]"
              placeholder="not said"
              :save="store(row, one.key)"
            /></td
        ></template>
        <td v-if="many.shows('breaks')">
          <EditCell
            :label="`Cheaper from, of ${row.name}`"
            :value="breaksOf(row.offer)"
            placeholder="10: 4.20, 50: 3.90"
            :save="store(row, 'breaks')"
          />
        </td>
        <td v-if="many.shows('date')">
          <EditCell :label="`Day of the price of ${row.name}`" :value="row.offer?.date" :save="store(row, 'date')" />
        </td>
        <td v-if="many.shows('article')">
          <EditCell
            :label="`Article number of ${row.name}`"
            :value="row.offer?.article"
            :save="store(row, 'article')"
          />
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.block {
  display: block;
}
</style>
