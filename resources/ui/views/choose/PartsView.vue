<script setup lang="ts">
import { computed, ref, toRef, watch } from 'vue'
import { useRoute } from 'vue-router'
import { reasonOf, type Family, type LibraryLine, type Need } from '@/api/client'
import { verdictOrder } from '@/shared/findings'
import PickOne from '@/shared/PickOne.vue'
import PickAll from '@/shared/PickAll.vue'
import { money, whole } from '@/shared/format'
import EditCell from '@/shared/EditCell.vue'
import ManyBar from '@/shared/ManyBar.vue'
import { goingWith } from '@/shared/goingWith'
import { freeRef, refFrom } from '@/shared/refs'
import SortHead from '@/shared/SortHead.vue'
import { useAsked } from '@/shared/useAsked'
import { useMany } from '@/shared/useMany'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import { useLibrary } from './useLibrary'
import { usePlace } from './usePlace'

const { id, query, document: build, parts, needs, overview } = useBuild()
const { set, edit } = useEdit()
const { worstOfNeed } = useFindings()
const { data: catalogue } = useCatalogue()
const panel = usePanel()
const route = useRoute()
/** The code on a bag opens the part that is in it, once. */
const asked = computed(() => String(route.query.part ?? ''))
let shownPart = ''
watch(
  () => asked.value !== '' && needs.value.has(asked.value),
  (there) => {
    if (!there || shownPart === asked.value) return
    shownPart = asked.value
    panel.show({ kind: 'part', ref: asked.value })
  },
  { immediate: true },
)
const words = ref('')
const kind = ref('')
const verdict = ref('')
const adding = useAsked('add')
const fresh = ref({ role: '', family: '', part: '' })
const reason = ref('')
const place = usePlace()
const {
  lines: shelf,
  total: shelved,
  figures,
  stale,
} = useLibrary(
  computed(() => (adding.value ? (query.data.value?.workshop ?? 0) : 0)),
  toRef(() => fresh.value.part),
  toRef(() => fresh.value.family),
)
/** A part of the library is in the build with one press; what it is for may be said before or after. */
async function takeFromShelf(line: LibraryLine): Promise<void> {
  try {
    await place(line, fresh.value.role.trim())
    fresh.value = { role: '', family: '', part: '' }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

const families = computed(
  () => new Map<string, Family>((catalogue.value?.families ?? []).map((family) => [family.key, family])),
)
const titleOf = (family: string) => families.value.get(family)?.title ?? family.replaceAll('_', ' ')
const offerOf = computed(() => new Map([...(build.value?.offers ?? [])].reverse().map((offer) => [offer.part, offer])))
const currencyOf = computed(
  () => new Map((build.value?.suppliers ?? []).map((supplier) => [supplier.ref, supplier.currency])),
)
const doubted = computed(() => new Set((overview.value?.doubts ?? []).map((doubt) => doubt.part)))

const kinds = computed(() =>
  [...new Set((build.value?.needs ?? []).map((need) => need.family))]
    .map((family) => ({ value: family, title: titleOf(family) }))
    .sort((a, b) => a.title.localeCompare(b.title)),
)
const rows = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)

  return (build.value?.needs ?? [])
    .map((need) => ({ need, part: parts.value.get(need.choice ?? ''), title: titleOf(need.family) }))
    .filter(
      ({ need }) =>
        (kind.value === '' || need.family === kind.value) &&
        (verdict.value === '' || worstOfNeed.value.get(need.ref)?.verdict === verdict.value),
    )
    .filter(({ need, part, title }) =>
      wanted.every((word) => `${need.role} ${title} ${part?.name ?? ''} ${need.ref}`.toLowerCase().includes(word)),
    )
    .sort((a, b) => a.title.localeCompare(b.title) || a.need.role.localeCompare(b.need.role))
})

const purposes = computed(() => (catalogue.value?.purposes ?? []).map((one) => ({ value: one, title: one })))
const stagesOf = ['planned', 'bought', 'made', 'powered'].map((one) => ({ value: one, title: one }))
type Row = (typeof rows.value)[number]
const priceOf = (row: Row) => (row.part === undefined ? undefined : offerOf.value.get(row.part.ref))
const many = useMany<Row>({
  name: 'parts',
  hides: ['purpose', 'stage'],
  section: 'needs',
  one: 'part',
  many: 'parts',
  rows,
  refOf: ({ need }) => need.ref,
  columns: () => [
    {
      key: 'fit',
      title: 'Fit',
      // By how grave it is, not by the letter.
      text: ({ need }) => {
        const worst = worstOfNeed.value.get(need.ref)

        return worst === undefined ? '' : `${verdictOrder.indexOf(worst.verdict) + 1} ${worst.verdict}`
      },
    },
    { key: 'ref', title: 'Name', text: ({ need }) => need.ref },
    { key: 'role', title: 'What it is for', text: ({ need }) => need.role, path: ['role'] },
    { key: 'kind', title: 'Kind', text: ({ title }) => title },
    { key: 'part', title: 'Part', text: ({ part }) => part?.name ?? '' },
    {
      key: 'pieces',
      title: 'Pieces',
      text: ({ need }) => String(need.quantity ?? 1),
      was: ({ need }) => need.quantity ?? 1,
      path: ['quantity'],
      value: whole,
    },
    { key: 'spares', title: 'Spares', text: ({ need }) => need.spares ?? '', path: ['spares'] },
    {
      key: 'owned',
      title: 'Owned',
      text: ({ need }) => String(need.owned ?? ''),
      was: ({ need }) => need.owned,
      path: ['owned'],
      value: whole,
    },
    {
      key: 'purpose',
      title: 'Why it is there',
      text: ({ need }) => need.purpose ?? '',
      path: ['purpose'],
      options: purposes.value,
    },
    {
      key: 'stage',
      title: 'How far it is',
      text: ({ need }) => need.stage ?? '',
      path: ['stage'],
      options: stagesOf,
    },
    {
      key: 'price',
      title: 'Price',
      text: (row) => String(priceOf(row)?.price ?? ''),
      order: (row) => Number(priceOf(row)?.price ?? NaN) || null,
    },
  ],
  removes: (rows) =>
    goingWith(
      rows.map(({ need }) => need),
      build.value,
    ),
})

const setNeed = (need: Need, what: string, path: string) => (text: string, was: unknown) =>
  set(
    `${what} of ${need.role}`,
    'needs',
    need.ref,
    [path],
    was,
    text === '' ? null : path === 'quantity' || path === 'owned' ? whole(text) : text,
  )

async function add(): Promise<void> {
  const role = fresh.value.role.trim() || fresh.value.part.trim()
  const ref = freeRef(refFrom(role, 'part'), (one) => needs.value.has(one) || parts.value.has(one))
  try {
    await edit(`Add ${role}`, [
      { section: 'parts', create: { ref, family: fresh.value.family, name: fresh.value.part || role } },
      {
        section: 'needs',
        create: {
          ref,
          role,
          family: fresh.value.family,
          quantity: 1,
          candidates: [ref],
          choice: ref,
        },
      },
    ])
    adding.value = false
    fresh.value = { role: '', family: '', part: '' }
    panel.show({ kind: 'part', ref, wire: true })
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

function toggleAdding(): void {
  adding.value = !adding.value
  reason.value = ''
}
</script>

<template>
  <div class="parts">
    <div class="view-head head">
      <h1>Parts</h1>
      <span class="quiet">{{ rows.length }} {{ rows.length === 1 ? 'need' : 'needs' }}</span>
      <input
        v-model="words"
        class="field only"
        type="search"
        aria-label="Show only parts with these words"
        placeholder="Show only …"
      />
      <select v-model="kind" class="field" aria-label="Show only parts of a kind">
        <option value="">of any kind</option>
        <option v-for="one in kinds" :key="one.value" :value="one.value">{{ one.title }}</option>
      </select>
      <select v-model="verdict" class="field" aria-label="Show only parts that">
        <option value="">any verdict</option>
        <option v-for="one in verdictOrder" :key="one" :value="one">{{ one }}</option>
      </select>
      <span class="push">
        <v-btn color="primary" @click="toggleAdding">Add a part</v-btn>
        <v-btn :to="`/builds/${id}/choose/import`">Bring a parts list</v-btn>
        <v-btn class="wide-only" :href="`/api/builds/${id}/parts.csv`">Export CSV</v-btn>
        <v-btn class="wide-only" :href="`/api/builds/${id}/file`">Save build file</v-btn>
      </span>
    </div>
    <form v-if="adding" class="adding" @submit.prevent="add()">
      <v-text-field
        v-model="fresh.part"
        label="Part, or words and figures of it"
        placeholder="motor, 57 mm, > 1.5 N m"
        autofocus
      />
      <v-autocomplete
        :model-value="fresh.family || null"
        label="Kind of part"
        clearable
        :items="catalogue?.families ?? []"
        item-value="key"
        item-title="title"
        @update:model-value="fresh.family = $event ?? ''"
      />
      <v-text-field v-model="fresh.role" label="What it is for" placeholder="Chamber fan" />
      <v-btn
        type="submit"
        variant="flat"
        color="primary"
        :disabled="(fresh.role === '' && fresh.part === '') || !fresh.family"
        >Add as typed</v-btn
      >
      <section v-if="fresh.part || fresh.family" class="shelf" aria-label="In the library">
        <p class="small quiet" role="status">
          {{ shelved }} in the library<template v-if="figures.length"> with {{ figures.join(', and ') }}</template
          >{{ shelved > 0 ? '; press one to add it' : '' }}
        </p>
        <button
          v-for="line in shelf.slice(0, 12)"
          :key="line.id"
          type="button"
          class="plain shelved"
          :aria-label="`Add to build: ${line.name}`"
          :disabled="stale"
          @click="takeFromShelf(line)"
        >
          <span>{{ line.name }}</span><span class="quiet small">{{ line.key_specs }}</span
          ><span class="figure">{{ line.price ? money(line.price, line.currency ?? '') : '' }}</span>
        </button>
      </section>
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    </form>
    <p v-if="(build?.needs ?? []).length === 0" class="empty">
      No parts yet. <router-link class="link" :to="`/builds/${id}/choose/import`">Bring a parts list</router-link> as
      CSV, or add the first part by hand.
    </p>
    <ManyBar v-if="(build?.needs ?? []).length > 0" :many="many" class="bar wide-only" />
    <v-data-table-virtual
      v-if="(build?.needs ?? []).length > 0"
      :items="many.sorted.value"
      :item-height="33"
      fixed-header
      class="table"
      density="compact"
    >
      <template #headers>
        <tr>
          <PickAll class="wide-only" :many="many" />
          <SortHead class="mark" :many="many" column="fit" />
          <SortHead :many="many" column="role" />
          <SortHead class="wide-only" :many="many" column="kind" />
          <SortHead :many="many" column="part" />
          <SortHead class="wide-only" :many="many" column="pieces" num />
          <SortHead class="wide-only" :many="many" column="spares" num />
          <SortHead class="wide-only" :many="many" column="owned" num />
          <SortHead class="wide-only" :many="many" column="purpose" />
          <SortHead class="wide-only" :many="many" column="stage" />
          <SortHead class="wide-only" :many="many" column="price" num />
        </tr>
      </template>
      <template #item="{ item: { need, part, title } }">
        <tr
          :key="need.ref"
          :class="{ picked: panel.open?.kind === 'part' && panel.open.ref === need.ref }"
          @click="panel.show({ kind: 'part', ref: need.ref })"
        >
          <PickOne class="wide-only" :many="many" :row="{ need, part, title }" :called="need.role" />
          <td v-if="many.shows('fit')">
            <VerdictMark v-if="worstOfNeed.get(need.ref)" :verdict="worstOfNeed.get(need.ref)!.verdict" />
          </td>
          <td v-if="many.shows('role')">
            <EditCell :label="`What ${need.role} is for`" :value="need.role" :save="setNeed(need, 'Role', 'role')" />
          </td>
          <td v-if="many.shows('kind')" class="quiet wide-only">{{ title }}</td>
          <td v-if="many.shows('part')">
            <button type="button" class="plain open" @click.stop="panel.show({ kind: 'part', ref: need.ref })">
              {{ part?.name ?? 'not chosen' }}
            </button>
            <span v-if="part && doubted.has(part.ref)" class="unproven small"> · asks a question</span>
          </td>
          <td v-if="many.shows('pieces')" class="wide-only num">
            <EditCell
              figure
              :label="`Pieces of ${need.role}`"
              :value="need.quantity"
              :otherwise="1"
              :save="setNeed(need, 'Pieces', 'quantity')"
            />
          </td>
          <td v-if="many.shows('spares')" class="wide-only num">
            <EditCell
              figure
              :label="`Spares of ${need.role}`"
              :value="need.spares"
              unit="%"
              :save="setNeed(need, 'Spares', 'spares')"
            />
          </td>
          <td v-if="many.shows('owned')" class="wide-only num">
            <EditCell
              figure
              :label="`Owned of ${need.role}`"
              :value="need.owned"
              :save="setNeed(need, 'Owned', 'owned')"
            />
          </td>
          <td v-if="many.shows('purpose')" class="wide-only">
            <EditCell
              :label="`Why ${need.role} is there`"
              :value="need.purpose"
              :options="purposes"
              :save="setNeed(need, 'Purpose', 'purpose')"
            />
          </td>
          <td v-if="many.shows('stage')" class="wide-only">
            <EditCell
              :label="`How far ${need.role} is`"
              :value="need.stage"
              :options="stagesOf"
              :save="setNeed(need, 'Stage', 'stage')"
            />
          </td>
          <td v-if="many.shows('price')" class="wide-only num figure">
            <template v-if="part && offerOf.get(part.ref)"
              >{{ money(offerOf.get(part.ref)!.price, currencyOf.get(offerOf.get(part.ref)!.supplier) ?? '')
              }}<span v-if="(offerOf.get(part.ref)!.pack ?? 1) > 1" class="unit"
                >/ {{ offerOf.get(part.ref)!.pack }}</span
              ></template
            ><span v-else class="quiet">no price</span>
          </td>
        </tr>
      </template>
    </v-data-table-virtual>
  </div>
</template>

<style scoped>
.parts {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding: 16px 0 0 24px;
}
.head {
  padding-right: 24px;
}
.adding {
  display: grid;
  grid-template-columns: 1fr 1fr 1.4fr auto;
  gap: 12px;
  align-items: start;
  padding: 0 24px 12px 0;
}
.shelf {
  grid-column: 1 / -1;
}
.shelved {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.2fr) 80px;
  gap: 12px;
  width: 100%;
  padding: 4px;
  border-bottom: 1px solid var(--rule);
  text-align: left;
}
.shelved > * {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.shelved .figure {
  text-align: right;
}
.shelved:disabled {
  opacity: 0.5;
}
.shelved:hover {
  color: var(--live);
}
.adding p {
  grid-column: 1 / -1;
  margin: 0;
}
.table {
  flex: 1;
  min-height: 0;
  background: transparent;
}
.table :deep(table) {
  font-size: 14px;
}
.table :deep(th) {
  text-align: left;
  font-weight: 500;
  font-size: 13px;
  color: var(--quiet);
  padding: 4px 8px;
  white-space: nowrap;
  background: var(--paper) !important;
  border-bottom: 1px solid var(--ink);
  height: 30px;
  position: sticky;
  top: 0;
  z-index: 2;
}
.table :deep(td) {
  padding: 2px 8px !important;
  height: 33px;
  border-bottom: 1px solid var(--rule);
}
.table :deep(.num) {
  text-align: right;
  padding-right: 16px !important;
}
.table :deep(tr.picked td) {
  background: color-mix(in srgb, var(--live) 9%, transparent);
}
.open {
  text-align: left;
}
.open:hover {
  color: var(--live);
}
@media (max-width: 700px) {
  .table :deep(table) {
    table-layout: fixed;
  }
  .table :deep(td),
  .table :deep(td *) {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .table :deep(th.mark) {
    width: 34px;
  }
  .adding {
    grid-template-columns: 1fr;
  }
  .parts {
    padding-left: 12px;
  }
}
</style>
