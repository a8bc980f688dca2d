<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Money, type PurchaseRow } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import FirstAction from '@/shared/FirstAction.vue'
import { day, money, whole, words } from '@/shared/format'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

/** What was ordered, what of it is here, and what of that was looked at and is good. */
const { id, document: build } = useBuild()
const { edit, set, remove } = useEdit()
const notices = useNotices()
const { data: sums, isError, error } = useDerived<Money>('money', () => 'money')
const states = ['considered', 'ordered', 'shipped', 'abandoned'].map((value) => ({ value, title: words(value) }))
const orders = computed(() => {
  const found = new Map<string, PurchaseRow[]>()
  for (const row of sums.value?.purchases ?? []) {
    const name = row.order ?? `${row.supplier}, ${day(row.date)}`
    found.set(name, [...(found.get(name) ?? []), row])
  }

  return [...found].map(([name, rows]) => ({
    name,
    rows,
    waiting: rows.reduce((sum, row) => sum + onTheWay(row), 0),
    unseen: rows.reduce((sum, row) => sum + row.unseen, 0),
    agreed: rows.reduce((sum, row) => sum + Number(row.agreed ?? row.paid), 0).toFixed(2),
    owed: rows.reduce((sum, row) => sum + Number(row.owed), 0).toFixed(2),
    currency: rows[0]!.currency,
  }))
})
const onTheWay = (row: PurchaseRow) =>
  row.state === 'ordered' || row.state === 'shipped' ? Math.max(0, row.pieces - row.received) : 0

/** Pieces of a line, as they are counted one after another. */
const counts = [
  { path: 'pieces', head: 'Pieces', what: 'Pieces', mark: () => '' },
  {
    path: 'received',
    head: 'Here',
    what: 'Arrived',
    mark: (row: PurchaseRow) => (row.received < row.pieces ? 'tight' : ''),
  },
  { path: 'accepted', head: 'Good', what: 'Good', mark: () => '' },
  {
    path: 'returned',
    head: 'Sent back',
    what: 'Sent back',
    mark: (row: PurchaseRow) => (row.returned > 0 ? 'fails' : ''),
  },
] as const
/** As it is kept, which is what an edit starts from. */
/** The line whose further facts are shown. */
const opened = ref<string | null>(null)
const further = [
  { path: 'lot', head: 'Lot', placeholder: 'not said' },
  { path: 'claim_by', head: 'Claim by', placeholder: 'YYYY-MM-DD' },
  { path: 'rate', head: 'Rate of its day', placeholder: 'as in Money' },
  { path: 'moved', head: 'Gone to another build', placeholder: '0' },
  { path: 'sold', head: 'Sold on', placeholder: '0' },
  { path: 'fetched', head: 'Fetched', placeholder: '0.00' },
  { path: 'article', head: 'Article that came', placeholder: 'as offered' },
  { path: 'notes', head: 'Notes', placeholder: 'none' },
] as const
const isFurther = (path: string, row: PurchaseRow) => path !== 'rate' || row.currency !== sums.value?.currency
const kept = computed(
  () => new Map((build.value?.purchases ?? []).map((one) => [one.ref, one as Record<string, unknown>])),
)
const heldAt = (row: PurchaseRow, path: string) => kept.value.get(row.ref)?.[path] ?? null
const textAt = (row: PurchaseRow, path: string) => heldAt(row, path) as string | null
const save = (row: PurchaseRow, path: string, what: string) => (text: string) =>
  set(
    `${what} of ${row.name}`,
    'purchases',
    row.ref,
    [path],
    heldAt(row, path),
    text === ''
      ? null
      : path === 'moved' || path === 'sold' || counts.some((one) => one.path === path)
        ? whole(text)
        : text,
  )

/** A whole order at once: all of it arrived, all that arrived is good, all of it is paid. */
async function all(rows: PurchaseRow[], label: string, changed: (row: PurchaseRow) => [string, unknown] | null) {
  const changes = rows.flatMap((row) => {
    const [path, to] = changed(row) ?? []

    return path === undefined
      ? []
      : [{ section: 'purchases', ref: row.ref, set: [{ path: [path], was: heldAt(row, path), to }] }]
  })
  if (changes.length === 0) return
  try {
    await edit(label, changes)
    notices.say(`${label}; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
const arrived = (rows: PurchaseRow[], name: string) =>
  all(rows, `All of ${name} is here`, (row) => (onTheWay(row) > 0 ? ['received', row.pieces] : null))
const good = (rows: PurchaseRow[], name: string) =>
  all(rows, `All that came of ${name} is good`, (row) => {
    const seen = row.received - row.returned

    return seen > row.accepted ? ['accepted', seen] : null
  })
const paid = (rows: PurchaseRow[], name: string) =>
  all(rows, `${name} is paid`, (row) => (row.agreed !== null && Number(row.owed) > 0 ? ['paid', row.agreed] : null))
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Orders</h1>
      <span v-if="sums" class="quiet">what was ordered, what of it is here, and what of that is good</span>
      <router-link v-if="orders.length" class="link" :to="`/builds/${id}/buy/claims`">Claims</router-link>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="sums && orders.length === 0" class="empty">
      Nothing was ordered yet.
      <FirstAction path="buy/split">Where to buy it</FirstAction>
    </p>
    <template v-else-if="sums">
      <dl class="across">
        <div>
          <dt>Paid</dt>
          <dd class="figure">{{ money(sums.paid, sums.currency) }}</dd>
        </div>
        <div>
          <dt>Still to be paid for it</dt>
          <dd class="figure">{{ money(sums.owed, sums.currency) }}</dd>
        </div>
        <div>
          <dt>Here, at its cost</dt>
          <dd class="figure">{{ money(sums.here, sums.currency) }}</dd>
        </div>
        <div>
          <dt>On its way</dt>
          <dd class="figure">{{ money(sums.coming, sums.currency) }}</dd>
        </div>
        <div v-if="Number(sums.abandoned) > 0">
          <dt>Given up</dt>
          <dd class="figure">{{ money(sums.abandoned, sums.currency) }}</dd>
        </div>
        <div>
          <dt>Still to be ordered</dt>
          <dd class="figure">{{ money(sums.remaining, sums.currency) }}</dd>
        </div>
        <div>
          <dt>Forecast, paid to finished</dt>
          <dd class="figure">
            <strong>{{ money(sums.forecast, sums.currency) }}</strong>
          </dd>
        </div>
      </dl>
      <section v-for="order in orders" :key="order.name" :aria-label="order.name">
        <h2>
          {{ order.name }}
          <span class="quiet small"
            >{{ order.rows.length }} {{ order.rows.length === 1 ? 'line' : 'lines' }},
            {{ money(order.agreed, order.currency)
            }}<template v-if="Number(order.owed) > 0">, {{ money(order.owed, order.currency) }} not paid yet</template
            ><template v-if="order.waiting">, {{ order.waiting }} pieces on their way</template
            ><template v-if="order.unseen">, {{ order.unseen }} not looked at yet</template></span
          >
        </h2>
        <p class="acts">
          <v-btn v-if="order.waiting" size="small" color="primary" @click="arrived(order.rows, order.name)"
            >All of it is here</v-btn
          ><v-btn v-if="order.unseen" size="small" @click="good(order.rows, order.name)">All that came is good</v-btn
          ><v-btn v-if="Number(order.owed) > 0" size="small" @click="paid(order.rows, order.name)">It is paid</v-btn>
        </p>
        <table class="ledger stack" tabindex="0">
          <thead>
            <tr>
              <th>Part</th>
              <th>How far</th>
              <th v-for="one in counts" :key="one.path" class="num">{{ one.head }}</th>
              <th class="num wide-only">Costs</th>
              <th class="num wide-only">Paid</th>
              <th class="num wide-only">Expected</th>
              <th class="wide-only" />
            </tr>
          </thead>
          <tbody>
            <template v-for="row in order.rows" :key="row.ref">
              <tr>
                <td>
                  <button
                    type="button"
                    class="plain"
                    :aria-expanded="opened === row.ref"
                    @click="opened = opened === row.ref ? null : row.ref"
                  >
                    {{ row.name }}</button><span v-if="row.moved" class="quiet small block"
                    >{{ row.moved }} gone to another build</span
                  ><span v-if="row.sold" class="quiet small block"
                    >{{ row.sold }} sold on<template v-if="row.fetched">
                      for {{ money(row.fetched, sums!.currency) }}</template
                    ></span
                  >
                </td>
                <td>
                  <EditCell
                    :label="`How far ${row.name} is`"
                    :value="row.state"
                    :options="states"
                    :save="save(row, 'state', 'State')"
                  />
                </td>
                <td v-for="one in counts" :key="one.path" :data-of="one.head" class="num" :class="one.mark(row)">
                  <EditCell
                    figure
                    :label="`${one.what} of ${row.name}`"
                    :value="row[one.path]"
                    :save="save(row, one.path, one.what)"
                  />
                </td>
                <td class="num figure wide-only">{{ money(row.agreed ?? row.paid, row.currency) }}</td>
                <td class="num wide-only">
                  <EditCell
                    figure
                    :label="`Paid for ${row.name}`"
                    :value="row.paid"
                    :save="save(row, 'paid', 'Paid')"
                  />
                </td>
                <td class="num wide-only">
                  <EditCell
                    :label="`Day ${row.name} is expected`"
                    :value="row.due"
                    placeholder="YYYY-MM-DD"
                    :save="save(row, 'due', 'Expected')"
                  />
                </td>
                <td class="num wide-only">
                  <button
                    type="button"
                    class="plain quiet small"
                    :aria-label="`Delete ${row.name} from ${order.name}`"
                    @click="remove(`Delete ${row.name}`, row.name, 'purchases', row.ref)"
                  >
                    delete
                  </button>
                </td>
              </tr>
              <tr v-if="opened === row.ref">
                <td colspan="10">
                  <dl class="across small further">
                    <template v-for="one in further" :key="one.path"
                      ><div v-if="isFurther(one.path, row)">
                        <dt>{{ one.head }}</dt>
                        <dd>
                          <EditCell
                            :label="`${one.head} of ${row.name}`"
                            :value="textAt(row, one.path)"
                            :placeholder="one.placeholder"
                            :save="save(row, one.path, one.head)"
                          />
                        </dd></div
                    ></template>
                  </dl>
                </td>
              </tr>
            </template>
          </tbody>
        </table>
      </section>
    </template>
  </div>
</template>

<style scoped>
.block {
  display: block;
}
.further {
  padding-left: 12px;
  border-left: 3px solid var(--live);
}
.acts {
  margin: 0 0 4px;
}
h2 {
  margin: 18px 0 4px;
}
</style>
