<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { api, upload, type ImportState, type Mapping, type Preview } from '@/api/client'
import { useAct } from '@/shared/useAct'
import { useBuildId, useCatalogue } from '@/shared/useBuild'
import VerdictMark from '@/shared/VerdictMark.vue'

const id = useBuildId()
const client = useQueryClient()
const { data: catalogue } = useCatalogue()
const preview = ref<Preview | null>(null)
const state = ref<ImportState | null>(null)
const { busy, reason, act } = useAct()
const only = ref<'all' | 'attention'>('all')
const targets = computed(() => [
  { value: '', title: 'leave out' },
  ...Object.entries(preview.value?.targets ?? {}).map(([value, title]) => ({
    value,
    title: value.startsWith('spec:') ? `spec: ${title}` : title,
  })),
])
const rows = computed(() => (preview.value?.rows ?? []).filter((row) => only.value === 'all' || row.state !== 'good'))
const marks = { good: 'holds', guessed: 'unproven', doubted: 'unproven', partly: 'tight', refused: 'fails' } as const
const says = {
  good: 'understood',
  guessed: 'of a kind that is a guess',
  doubted: 'asks a question',
  partly: 'partly understood',
  refused: 'not understood',
} as const
const storable = computed(() => (preview.value?.of ?? 0) - (preview.value?.states.refused ?? 0))

const pasted = ref('')

function bring(file: File): void {
  void act(async () => {
    state.value = null
    preview.value = await upload<Preview>(`/api/builds/${id.value}/imports`, 'file', file)
    pasted.value = ''
  })
}
function bringPasted(): void {
  bring(new File([pasted.value], 'Pasted list.tsv', { type: 'text/plain' }))
}
function choose(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file !== undefined) bring(file)
  input.value = ''
}

function remap(change: Partial<Mapping>): void {
  void act(async () => {
    preview.value = await api.put<Preview>(`/api/imports/${preview.value!.key}`, {
      mapping: { ...preview.value!.mapping, ...change },
    })
  })
}
function mapColumn(column: number, event: Event): void {
  const targets = { ...preview.value!.mapping.targets }
  const target = (event.target as HTMLSelectElement).value
  if (target === '') delete targets[String(column)]
  else targets[String(column)] = target
  remap({ targets })
}
function kindOf(line: number, event: Event): void {
  const families = { ...preview.value!.mapping.families }
  const kind = (event.target as HTMLSelectElement).value
  if (kind === '') delete families[String(line)]
  else families[String(line)] = kind
  remap({ families })
}
function unitOf(column: number, event: Event): void {
  remap({
    units: { ...preview.value!.mapping.units, [String(column)]: (event.target as HTMLInputElement).value.trim() },
  })
}

/** It is stored in the background; this page looks how far it is, also when it was left meanwhile. */
const follow = (begin: () => Promise<ImportState | null>) =>
  act(async () => {
    state.value = await begin()
    while (state.value?.state === 'running' && !left) {
      const key = state.value.key
      await new Promise((done) => setTimeout(done, 400))
      // A missed look is made up by the next one.
      state.value = await api.get<ImportState>(`/api/imports/${key}`).catch(() => state.value)
    }
    if (state.value === null) return
    if (state.value.trouble) throw new Error(state.value.trouble)
    await client.invalidateQueries({ queryKey: ['build', id.value] })
  })
const confirm = () => follow(() => api.post<ImportState>(`/api/imports/${preview.value!.key}/confirm`))
onMounted(() => follow(async () => (await api.get<ImportState[]>(`/api/builds/${id.value}/imports`))[0] ?? null))
let left = false
onBeforeUnmount(() => (left = true))
async function stop(): Promise<void> {
  const key = state.value?.key ?? preview.value?.key
  if (key !== undefined) await api.delete(`/api/imports/${key}`).catch(() => undefined)
  if (state.value?.state !== 'running') {
    preview.value = null
  }
}

function startOver(): void {
  preview.value = null
  state.value = null
}
</script>

<template>
  <div class="view">
    <div class="view-head"><h1>Bring a parts list</h1></div>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>

    <template v-if="state && state.state !== 'previewed'">
      <div v-if="state.state === 'running'" role="status">
        <p>
          Storing line <span class="figure">{{ state.seen }}</span> of <span class="figure">{{ state.of }}</span>. All
          of it is stored together at the end, or nothing.
        </p>
        <v-progress-linear
          :model-value="state.of ? (100 * state.seen) / state.of : 0"
          color="primary"
          height="6"
          aria-label="Lines stored"
        />
        <v-btn class="mt-3" @click="stop()">Stop, and store nothing</v-btn>
      </div>
      <div v-else-if="state.state === 'done'" role="status">
        <p>
          <VerdictMark verdict="holds" /> <span class="figure">{{ state.stored }}</span> parts are in the build<template
            v-if="state.skipped"
            >; <span class="figure">{{ state.skipped }}</span> lines could not be taken</template
          >. Undo takes the whole list back.
        </p>
        <v-btn color="primary" variant="flat" :to="`/builds/${id}/choose/parts`">See the parts</v-btn>
        <v-btn @click="startOver">Bring another list</v-btn>
      </div>
      <div v-else>
        <p>{{ state.state === 'cancelled' ? 'Stopped.' : 'It was cut off.' }} Nothing of the list was stored.</p>
        <v-btn v-if="preview && state.state !== 'cancelled'" color="primary" @click="confirm()">Try again</v-btn>
        <v-btn @click="startOver">Bring another list</v-btn>
      </div>
    </template>

    <template v-else-if="preview === null">
      <div class="empty">
        <p>
          A list with a line of headings: from a spreadsheet, a shop's basket or a kit's list. Columns are matched to
          their headings, parts to the workshop's library by their name, and units are read in the cells:
          <span class="figure">24V</span>, <span class="figure">0.75 mm²</span>, <span class="figure">18 AWG</span>,
          <span class="figure">12 in</span>, <span class="figure">283 oz-in</span>.
        </p>
        <p>You see line by line what was understood before anything is stored.</p>
        <label class="drop"
          ><input type="file" accept=".csv,.tsv,.txt,text/csv" class="file" :disabled="busy" @change="choose" /><span>{{
            busy ? 'Reading …' : 'Choose a CSV file'
          }}</span></label
        >
        <label class="paste"
          >Or paste the cells of a spreadsheet, headings and all
          <textarea v-model="pasted" rows="6" spellcheck="false" placeholder="Item	Qty	Voltage" :disabled="busy" />
        </label>
        <div>
          <v-btn :disabled="busy || pasted.trim() === ''" color="primary" @click="bringPasted"
            >Read what is pasted</v-btn
          >
          <a href="/sample-parts-list.csv" download class="ml-4">A sample file</a>
        </div>
      </div>
    </template>

    <template v-else>
      <p>
        <strong>{{ preview.file_name }}</strong>, <span class="figure">{{ preview.of }}</span> lines:
        <template v-for="(count, key) in preview.states" :key="key"
          ><span v-if="count" class="state"
            ><VerdictMark :verdict="marks[key]" /> <span class="figure">{{ count }}</span> {{ says[key] }}</span
          ></template
        >
      </p>
      <div class="settings">
        <label
          >Headings stand on line
          <input
            :value="preview.mapping.header"
            type="number"
            min="1"
            max="20"
            class="narrow"
            @change="remap({ header: Number(($event.target as HTMLInputElement).value) || 1 })"
        /></label>
        <label
          >Lines that do not say what they are
          <select
            :value="preview.mapping.family ?? ''"
            @change="remap({ family: ($event.target as HTMLSelectElement).value || null })"
          >
            <option value="">are not taken</option>
            <option v-for="family in catalogue?.families" :key="family.key" :value="family.key">
              are a {{ family.title }}
            </option>
          </select></label
        >
        <label
          >Values rest on
          <select
            :value="preview.mapping.evidence"
            @change="remap({ evidence: ($event.target as HTMLSelectElement).value })"
          >
            <option v-for="one in catalogue?.evidence" :key="one.key" :value="one.key">{{ one.label }}</option>
          </select></label
        >
        <label
          >Prices without a currency are in
          <input
            :value="preview.mapping.currency"
            size="4"
            @change="remap({ currency: ($event.target as HTMLInputElement).value.toUpperCase() })"
        /></label>
        <span class="push">
          <v-btn @click="stop()">Discard this list</v-btn>
          <v-btn color="primary" variant="flat" :disabled="busy || storable === 0" @click="confirm()"
            >Store {{ storable }} parts</v-btn
          >
        </span>
      </div>
      <div class="choices mb-2" role="group" aria-label="Lines shown">
        <button type="button" class="plain" :aria-pressed="only === 'all'" @click="only = 'all'">First lines</button
        ><button type="button" class="plain" :aria-pressed="only === 'attention'" @click="only = 'attention'">
          Only those that want attention
        </button>
      </div>
      <div class="scroll" tabindex="0" aria-label="Preview">
        <table class="ledger">
          <thead>
            <tr>
              <th>Line</th>
              <th>Understood as</th>
              <th v-for="(heading, column) in preview.headings" :key="column">
                {{ heading }}<br />
                <select
                  :aria-label="`What ${heading} means`"
                  :value="preview.mapping.targets[String(column)] ?? ''"
                  @change="mapColumn(column, $event)"
                >
                  <option v-for="target in targets" :key="target.value" :value="target.value">
                    {{ target.title }}
                  </option>
                </select>
                <input
                  v-if="(preview.mapping.targets[String(column)] ?? '').startsWith('spec:')"
                  class="unit-field"
                  :aria-label="`Unit of bare numbers in ${heading}`"
                  placeholder="unit"
                  size="5"
                  :value="preview.mapping.units[String(column)] ?? ''"
                  @change="unitOf(column, $event)"
                />
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in rows" :key="row.line">
              <td class="figure quiet">{{ row.line }}</td>
              <td class="read">
                <VerdictMark :verdict="marks[row.state]" />
                <template v-if="row.name"
                  >{{ row.quantity }} × {{ row.family
                  }}<template v-for="spec in row.specs" :key="spec.key">
                    · <span class="quiet">{{ spec.label.toLowerCase() }}</span>
                    <span class="figure">{{ spec.value }}</span></template
                  ><template v-if="row.price">
                    · <span class="figure">{{ row.price }}</span></template
                  ></template
                >
                <span v-if="row.library" class="quiet small block"
                  >The rest of its sheet is taken from the library.</span
                >
                <label v-if="!row.sure || row.kind === null" class="block small unproven"
                  >{{ row.kind === null ? 'It is' : 'Its kind is a guess. It is' }}
                  <select
                    :aria-label="`Kind of line ${row.line}`"
                    :value="row.kind ?? ''"
                    @change="kindOf(row.line, $event)"
                  >
                    <option value="">not said</option>
                    <option v-for="family in catalogue?.families" :key="family.key" :value="family.key">
                      a {{ family.title }}
                    </option>
                  </select></label
                >
                <span v-for="problem in row.problems" :key="problem.reason" class="fails small block">{{
                  problem.reason
                }}</span>
                <span v-for="doubt in row.doubts" :key="doubt.question" class="unproven small block">{{
                  doubt.question
                }}</span>
              </td>
              <td
                v-for="(cell, column) in row.cells"
                :key="column"
                :class="{ fails: row.problems.some((problem) => problem.column === column) }"
              >
                {{ cell }}
              </td>
            </tr>
          </tbody>
        </table>
      </div>
    </template>
  </div>
</template>

<style scoped>
.file {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.drop {
  display: inline-block;
  border: 1px solid var(--live);
  color: var(--live);
  padding: 8px 18px;
  border-radius: 2px;
  cursor: pointer;
}
.drop:focus-within {
  outline: 2px solid var(--live);
}
.state {
  margin-left: 14px;
  white-space: nowrap;
}
.settings {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: center;
  margin: 8px 0 12px;
  font-size: 14px;
}
.push {
  margin-left: auto;
}
select,
input:not(.file) {
  font: inherit;
  font-size: 13px;
  height: 26px;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 0 4px;
  max-width: 170px;
}
.scroll {
  overflow: auto;
  max-height: calc(100dvh - 290px);
}
.paste {
  display: block;
  margin: 16px 0 8px;
}
.paste textarea {
  display: block;
  width: min(100%, 640px);
  margin-top: 4px;
  padding: 6px 8px;
  font: 13px var(--figure-font, monospace);
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.narrow {
  width: 52px;
}
.read {
  min-width: 300px;
  max-width: 420px;
}
.block {
  display: block;
}
</style>
