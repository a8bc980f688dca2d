<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, reasonOf, type LibraryItem, type LibraryLine } from '@/api/client'
import { money, words as plain } from '@/shared/format'
import { refFrom } from '@/shared/refs'
import { useBuild, useCatalogue } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import StandardTables from './StandardTables.vue'
import { useLibrary } from './useLibrary'
import { usePlace } from './usePlace'

/** The workshop's parts over all its builds: sheets, prices, what is known against them; and the standard tables. */
const { query: held } = useBuild()
const { data: catalogue } = useCatalogue()
const panel = usePanel()
const notices = useNotices()
const client = useQueryClient()
const typed = ref('')
const words = ref('')
const family = ref('')
const shelf = ref<'parts' | 'tables'>('parts')
const fresh = ref<{ name: string; family: string } | null>(null)
const reason = ref('')
const workshop = computed(() => held.data.value?.workshop ?? 0)
const by = ref('')
const { query, lines, total, families, figures, stale } = useLibrary(workshop, words, family, by)
/** What this kind may be sorted by: the lines of its sheet that are figures. */
const orders = computed(() =>
  (catalogue.value?.families.find((one) => one.key === family.value)?.fields ?? []).filter(
    (field) => field.dimension !== null,
  ),
)
watch(family, () => (by.value = ''))
const titleOf = (key: string) => catalogue.value?.families.find((one) => one.key === key)?.title ?? plain(key)
const choices = computed(() =>
  Object.entries(families.value)
    .map(([key, pieces]) => ({ key, pieces, title: titleOf(key) }))
    .sort((a, b) => a.title.localeCompare(b.title)),
)
const whole = computed(() => choices.value.reduce((sum, one) => sum + one.pieces, 0))

let timer = 0
watch(typed, (text) => {
  clearTimeout(timer)
  timer = window.setTimeout(() => (words.value = text.trim()), 120)
})

/** Walking towards the end of what is here fetches the next page. */
function walk(line: LibraryLine): void {
  if (line === lines.value[lines.value.length - 40] || line === lines.value.at(-1)) {
    if (query.hasNextPage.value && !query.isFetchingNextPage.value) void query.fetchNextPage()
  }
}

async function add(): Promise<void> {
  try {
    const item = await api.post<LibraryItem>(`/api/workshops/${workshop.value}/library`, {
      entry: { part: { ref: `${refFrom(fresh.value!.name, 'part')}`, ...fresh.value } },
    })
    await client.invalidateQueries({ queryKey: ['library'] })
    panel.show({ kind: 'library', id: item.id })
    fresh.value = null
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

const take = usePlace()
const place = (line: LibraryLine) => take(line).catch((error) => notices.problem(error))

async function undo(): Promise<void> {
  try {
    const { ref: back } = await api.post<{ ref: string }>(`/api/workshops/${workshop.value}/library/undo`)
    notices.say(`Undone: ${back}`)
    await Promise.all([
      client.invalidateQueries({ queryKey: ['library'] }),
      client.invalidateQueries({ queryKey: ['library-item'] }),
    ])
  } catch (error) {
    notices.problem(error)
  }
}

async function examples(): Promise<void> {
  try {
    const { added } = await api.post<{ added: number }>(`/api/workshops/${workshop.value}/library/examples`, {
      currency: held.data.value?.document.build.currency ?? null,
    })
    notices.say(`${added} examples are on the shelf.`)
    await client.invalidateQueries({ queryKey: ['library'] })
  } catch (error) {
    notices.problem(error)
  }
}
</script>

<template>
  <div class="library">
    <div class="view-head">
      <h1>Library</h1>
      <span class="choices"
        ><button type="button" class="plain" :aria-pressed="shelf === 'parts'" @click="shelf = 'parts'">Parts</button
        ><button type="button" class="plain" :aria-pressed="shelf === 'tables'" @click="shelf = 'tables'">
          Standard tables
        </button></span
      >
      <template v-if="shelf === 'parts'">
        <input
          v-model="typed"
          class="field only"
          type="search"
          aria-label="Words and figures of the part"
          placeholder="motor, 57 mm, > 1.5 N m"
          size="24"
        />
        <select v-model="family" class="field" aria-label="Kind of part">
          <option value="">every kind, {{ whole }}</option>
          <option v-for="one in choices" :key="one.key" :value="one.key">{{ one.title }}, {{ one.pieces }}</option>
        </select>
        <select v-model="by" class="field" aria-label="Sorted by">
          <option value="">by name</option>
          <option value="price">cheapest first</option>
          <template v-for="field in orders" :key="field.key">
            <option :value="`-${field.key}`">most {{ field.label.toLowerCase() }} first</option>
            <option :value="field.key">least {{ field.label.toLowerCase() }} first</option>
          </template>
        </select>
        <span class="quiet" role="status"
          >{{ total }} {{ total === 1 ? 'part' : 'parts'
          }}<template v-if="figures.length"> with {{ figures.join(', and ') }}</template></span
        >
        <span class="push"
          ><v-btn color="primary" @click="fresh = fresh ? null : { name: '', family: family || 'fan' }"
            >Add a part</v-btn
          ><v-btn @click="undo()">Undo the last change</v-btn
          ><v-btn v-if="lines.every((line) => !line.example)" @click="examples()">Load the example parts</v-btn></span
        >
      </template>
    </div>
    <StandardTables v-if="shelf === 'tables'" />
    <template v-else>
      <form v-if="fresh" class="fields" @submit.prevent="add()">
        <input
          v-model="fresh.name"
          class="field"
          aria-label="Name of the part"
          placeholder="Part, in the seller's words"
          size="32"
          autofocus
        /><select v-model="fresh.family" class="field" aria-label="Kind of the new part">
          <option v-for="one in catalogue?.families" :key="one.key" :value="one.key">{{ one.title }}</option></select
        ><v-btn type="submit" size="small" variant="flat" color="primary" :disabled="fresh.name.trim() === ''"
          >Add to the library</v-btn
        ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
      </form>
      <p v-if="query.isError.value" class="danger" role="alert">{{ reasonOf(query.error.value) }}</p>
      <p v-else-if="total === 0 && !query.isPending.value" class="empty">
        {{
          words || family
            ? 'No part carries these words and figures.'
            : 'The shelf is empty. Load the example parts to start with: invented parts of every kind, marked as such; or add your own.'
        }}
      </p>
      <v-virtual-scroll v-else :items="lines" :item-height="34" class="list" role="list">
        <template #default="{ item, index }">
          <div
            :key="item.id"
            role="listitem"
            class="row"
            :class="{
              picked: panel.open?.kind === 'library' && panel.open.id === item.id,
              first: by === '' && (index === 0 || lines[index - 1]?.family !== item.family),
            }"
            @vue:mounted="walk(item)"
          >
            <span class="quiet small kind">{{
              by !== '' || index === 0 || lines[index - 1]?.family !== item.family ? titleOf(item.family) : ''
            }}</span><button type="button" class="plain name" @click="panel.show({ kind: 'library', id: item.id })">
              {{ item.name }}</button
            ><span class="quiet small specs" :title="item.key_specs">{{ item.key_specs }}</span>
            <span class="small"
              ><span v-if="item.faults" class="tight"
                >{{ item.faults }} known {{ item.faults === 1 ? 'fault' : 'faults' }}</span
              ></span
            ><span class="figure">{{ item.price ? money(item.price, item.currency ?? '') : '' }}</span
            ><span class="quiet small">{{ item.example ? 'example' : '' }}</span
            ><button
              type="button"
              class="plain link small add"
              :aria-label="`Add to build: ${item.name}`"
              :disabled="stale"
              @click="place(item)"
            >
              Add to build
            </button>
          </div>
        </template>
      </v-virtual-scroll>
    </template>
  </div>
</template>

<style scoped>
.library {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding: 16px 0 0 24px;
}
.view-head {
  padding-right: 24px;
  align-items: center;
}
.list {
  flex: 1;
  min-height: 0;
}
.row {
  display: grid;
  grid-template-columns: 130px minmax(150px, 1fr) minmax(0, 1.5fr) 96px 80px 60px 84px;
  gap: 12px;
  align-items: center;
  width: 100%;
  height: 34px;
  padding: 0 16px 0 0;
  border-bottom: 1px solid var(--rule);
  text-align: left;
  font-size: 14px;
  position: relative;
}
.row.first {
  border-top: 1px solid var(--ink);
}
.row .name {
  text-align: left;
}
/* The name opens it, wherever the row is pressed. */
.row .name::after {
  content: '';
  position: absolute;
  inset: 0;
}
.row .add {
  position: relative;
  z-index: 1;
}
.row:hover {
  color: var(--live);
}
.row.picked {
  background: color-mix(in srgb, var(--live) 9%, transparent);
}
.row .figure {
  text-align: right;
}
.name,
.specs,
.kind {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 900px) {
  .library {
    padding-left: 12px;
  }
  .row {
    grid-template-columns: minmax(0, 1fr) 80px;
  }
  .row > :nth-child(1),
  .row > :nth-child(3),
  .row > :nth-child(4),
  .row > :nth-child(6),
  .row > :nth-child(7) {
    display: none;
  }
}
</style>
