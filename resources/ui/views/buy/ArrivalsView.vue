<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Arrival, type Change, type Purchase } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import FirstAction from '@/shared/FirstAction.vue'
import { nextRef } from '@/shared/refs'
import { day, today } from '@/shared/format'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { useReading } from '@/shared/useReading'
import LookForm from './LookForm.vue'

/** What came: counted, looked at and measured before anything is built with it. */
const { id, document: build } = useBuild()
const { edit, set } = useEdit()
const notices = useNotices()
const reading = useReading()
const { data: lines, isError, error } = useDerived<Arrival[]>('arrivals', () => 'arrivals')
const opened = ref<string | null>(null)
const all = ref(false)
const waiting = computed(() => (lines.value ?? []).filter((line) => line.unseen > 0))
const shown = computed(() => (all.value || waiting.value.length === 0 ? (lines.value ?? []) : waiting.value))
const toggle = (part: string) => (opened.value = opened.value === part ? null : part)
/** The check somebody is noting as bad. */
const noting = ref<string | null>(null)
const bought = (line: Arrival) => (build.value?.purchases ?? []).filter((one) => line.purchases.includes(one.ref))
/** Pieces of a delivery that nobody has looked at. */
const unseenOf = (one: Purchase) =>
  (one.received ?? 0) - (one.accepted ?? 0) - (one.returned ?? 0) - (one.moved ?? 0) - (one.sold ?? 0)
/** What is found is of the delivery that is not looked at yet, or of the last. */
const current = (line: Arrival): Purchase | undefined =>
  bought(line).find((one) => unseenOf(one) > 0) ?? bought(line).at(-1)
const save = (purchase: Purchase, what: string, path: 'lot' | 'claim_by') => (text: string) =>
  set(what, 'purchases', purchase.ref, [path], purchase[path] ?? null, text === '' ? null : text)

type Look = NonNullable<Purchase['looks']>[number]
const looked = (purchase: Purchase, look: Look): Change => ({
  section: 'purchases',
  ref: purchase.ref,
  set: [{ path: ['looks'], was: purchase.looks ?? null, to: [...(purchase.looks ?? []), look] }],
})
type Found = { what: string; pieces?: number; notes?: string; photos?: string[] }
async function pass(line: Arrival, found: Found): Promise<void> {
  const purchase = current(line)
  if (purchase !== undefined) {
    await act(`${line.name}, ${found.what}: good`, [looked(purchase, { result: 'pass', date: today(), ...found })])
  }
  noting.value = null
}
/** What is bad is kept with its pictures, is a fault, and is claimed. */
async function fail(line: Arrival, found: Found): Promise<void> {
  const purchase = current(line)
  if (purchase === undefined) return
  const need = (build.value?.needs ?? []).find((one) => one.choice === line.part)
  const change = looked(purchase, { result: 'fail', date: today(), ...found })
  if (purchase.claim === undefined) change.set!.push({ path: ['claim'], was: null, to: 'open' })
  await act(`${line.name}, ${found.what}: not good`, [
    change,
    {
      section: 'faults',
      create: {
        ref: nextRef('f', build.value?.faults),
        what: `${line.name}: ${found.what}${found.notes ? `. ${found.notes}` : ''}`.slice(0, 500),
        severity: 'defect',
        state: 'open',
        found: today(),
        kind: 'damaged',
        ...(need === undefined ? {} : { need: need.ref }),
        ...(found.photos ? { photos: found.photos } : {}),
      },
    },
  ])
  noting.value = null
}
const off = (line: Arrival) => line.checks.filter((check) => check.verdict === 'off').length

/** Pieces not looked at yet become good, or one of them goes back, at the purchase they came with. */
function settle(line: Arrival, what: 'accepted' | 'returned', pieces: number): Change[] {
  let left = pieces

  return (build.value?.purchases ?? [])
    .filter((one) => line.purchases.includes(one.ref))
    .flatMap((one) => {
      const now = Math.min(left, unseenOf(one))
      if (now <= 0) return []
      left -= now

      return [
        {
          section: 'purchases',
          ref: one.ref,
          set: [
            { path: [what], was: one[what] ?? null, to: (one[what] ?? 0) + now },
            ...(what === 'returned' && one.claim === undefined ? [{ path: ['claim'], was: null, to: 'open' }] : []),
          ],
        },
      ]
    })
}
async function good(line: Arrival): Promise<void> {
  await act(`${line.unseen} of ${line.name} are good`, settle(line, 'accepted', line.unseen))
}
/** A bad piece goes back, and is a fault from then on: its claim is made with that. */
async function bad(line: Arrival): Promise<void> {
  const need = (build.value?.needs ?? []).find((one) => one.choice === line.part)
  await act(`One of ${line.name} is bad`, [
    ...settle(line, 'returned', 1),
    {
      section: 'faults',
      create: {
        ref: nextRef('f', build.value?.faults),
        what: `${line.name}: bad on arrival`,
        severity: 'defect',
        state: 'open',
        found: today(),
        kind: off(line) > 0 ? 'out_of_tolerance' : 'damaged',
        ...(need === undefined ? {} : { need: need.ref }),
      },
    },
  ])
}
async function act(label: string, changes: Change[]): Promise<void> {
  try {
    await edit(label, changes)
    notices.say(`${label}; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Arrivals</h1>
      <span v-if="lines?.length" class="quiet"
        >{{ waiting.length }} of {{ lines.length }} parts that came are not looked at yet</span
      >
      <router-link v-if="lines?.length" class="link" :to="`/builds/${id}/buy/labels`">Labels for bags</router-link>
      <router-link v-if="lines?.length" class="link" :to="`/builds/${id}/buy/claims`">Claims</router-link>
      <router-link v-if="lines?.length" class="link" :to="`/builds/${id}/buy/sheet`">Sheet to print</router-link>
      <button
        v-if="waiting.length && waiting.length < (lines ?? []).length"
        type="button"
        class="plain link push"
        @click="all = !all"
      >
        {{ all ? 'Only what is not looked at' : 'All that came' }}
      </button>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="lines && lines.length === 0" class="empty">
      Nothing has arrived yet.
      <FirstAction path="buy/orders">See what is ordered</FirstAction>
    </p>
    <template v-else-if="lines">
      <p class="small quiet">
        Before a carton is opened: pictures of it, its labels and any dent. Unplugged unless it says otherwise; mains
        only by somebody practised.
      </p>
      <section v-for="line in shown" :key="line.part" class="line" :aria-label="line.name">
        <div class="head">
          <button type="button" class="plain name" :aria-expanded="opened === line.part" @click="toggle(line.part)">
            <strong>{{ line.name }}</strong>
            <span class="quiet small"
              >{{ line.here }} here of {{ line.pieces
              }}<template v-if="line.unseen">, {{ line.unseen }} not looked at</template></span
            ><span v-if="line.short" class="tight small">{{ line.short }} short</span
            ><span v-if="line.returned" class="fails small">{{ line.returned }} sent back</span
            ><span v-if="off(line)" class="fails small">{{ off(line) }} not as claimed</span>
          </button>
          <span v-if="line.unseen" class="acts"
            ><v-btn
              size="small"
              color="primary"
              :aria-label="`All ${line.unseen > 1 ? `${line.unseen} ` : ''}good: ${line.name}`"
              @click="good(line)"
              >All {{ line.unseen > 1 ? `${line.unseen} ` : '' }}good</v-btn
            ><v-btn size="small" :aria-label="`One is bad: ${line.name}`" @click="bad(line)">One is bad</v-btn></span
          >
        </div>
        <p v-for="lot in line.lots" :key="lot.lot" class="fails small lot">
          Lot {{ lot.lot }}: {{ lot.bad }} bad<template v-if="lot.others"
            >; the other {{ lot.others }} of it are the same until each is looked at</template
          >.
        </p>
        <dl v-if="opened === line.part" class="across small">
          <div v-for="one in bought(line)" :key="one.ref">
            <dt>{{ one.order ?? one.supplier }}, {{ one.received ?? 0 }} of {{ one.pieces ?? 1 }}</dt>
            <dd>
              lot
              <EditCell
                :label="`Lot of ${line.name}, ${one.ref}`"
                :value="one.lot"
                placeholder="not said"
                :save="save(one, `Lot of ${line.name}`, 'lot')"
              />, claim by
              <EditCell
                :label="`Claim ${line.name} by, ${one.ref}`"
                :value="one.claim_by"
                placeholder="YYYY-MM-DD"
                :save="save(one, `Claim ${line.name} by`, 'claim_by')"
              />
            </dd>
          </div>
        </dl>
        <ul v-if="opened === line.part" class="checks">
          <li v-for="check in line.checks" :key="check.what">
            <span class="what">{{ check.what }}</span>
            <span class="quiet small how"
              >{{ check.how }} <em>{{ check.with }}</em></span
            >
            <template v-if="check.key"
              ><span class="figure small">{{ check.between ? `expect ${check.between}` : 'nothing is claimed' }}</span>
              <span class="figure" :class="{ fails: check.verdict === 'off', holds: check.verdict === 'as claimed' }"
                ><EditCell
                  figure
                  :label="`Reading of ${check.what}, ${line.name}`"
                  :value="check.read"
                  :unit="check.unit"
                  placeholder="enter it"
                  :save="
                    reading({
                      part: line.part,
                      key: check.key,
                      label: `${check.what} of ${line.name}`,
                      instrument: `${check.with}, on arrival`,
                    })
                  "
                />
                <span v-if="check.verdict" class="small">{{
                  check.verdict === 'off' ? 'not as claimed' : 'as claimed'
                }}</span></span
              ></template
            >
            <template v-else>
              <span v-if="check.looked" :class="check.looked.good ? 'holds' : 'fails'" class="small"
                >{{ check.looked.good ? 'good' : 'not good'
                }}<template v-if="check.looked.pieces">, {{ check.looked.pieces }} pieces</template>,
                {{ day(check.looked.date) }}<span v-if="check.looked.notes" class="block">{{ check.looked.notes }}</span
                ><img
                  v-for="photo in check.looked.photos"
                  :key="photo"
                  :src="`/api/builds/${id}/photos/${photo}`"
                  :alt="`Picture of: ${check.what}, ${line.name}`" /></span
              ><span v-else class="quiet small">not looked at</span>
              <span class="verdicts"
                ><v-btn
                  v-if="!check.looked?.good"
                  size="small"
                  :aria-label="`Good: ${check.what}, ${line.name}`"
                  @click="pass(line, { what: check.what })"
                  >Good</v-btn
                ><v-btn
                  v-if="check.looked === null || check.looked.good"
                  size="small"
                  :aria-label="`Not good: ${check.what}, ${line.name}`"
                  @click="noting = `${line.part}/${check.what}`"
                  >Not good</v-btn
                ><v-btn
                  v-if="check.looked === null"
                  size="small"
                  :aria-label="`With a picture: ${check.what}, ${line.name}`"
                  @click="noting = `${line.part}/${check.what}`"
                  >With a picture</v-btn
                ></span
              >
              <LookForm
                v-if="noting === `${line.part}/${check.what}`"
                class="form"
                :what="check.what"
                :pieces="line.here"
                @done="noting = null"
                @found="(good, found) => (good ? pass(line, found) : fail(line, found))"
              />
            </template>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.line {
  border-bottom: 1px solid var(--rule);
  padding: 6px 0;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
}
.name {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
  text-align: left;
  min-height: 44px;
  align-content: center;
}
.checks {
  list-style: none;
  margin: 0 0 8px;
  padding: 0 0 0 12px;
  border-left: 3px solid var(--live);
}
.checks li {
  display: grid;
  grid-template-columns: minmax(140px, 180px) minmax(0, 1fr) 180px 270px;
  gap: 4px 16px;
  padding: 5px 0;
  align-items: baseline;
}
img {
  display: block;
  max-width: 160px;
  margin: 4px 0;
}
.block {
  display: block;
}
.lot {
  margin: 0 0 4px;
}
.form {
  grid-column: 1 / -1;
}
@media (max-width: 900px) {
  .verdicts .v-btn {
    min-height: 44px;
  }
  .checks li {
    grid-template-columns: minmax(0, 1fr);
    padding: 9px 0;
  }
}
</style>
