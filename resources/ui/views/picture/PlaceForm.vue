<script setup lang="ts">
import { computed, ref } from 'vue'
import type { MachinePicture } from '@/api/client'
import { reasonOf, type Mesh } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import ErrandState from '@/shared/ErrandState.vue'
import { toggled } from '@/shared/refs'
import { useBuild, useEvidence } from '@/shared/useBuild'
import { useErrand } from '@/shared/useErrand'
import { useInTurn } from '@/shared/useInTurn'
import { useNotices } from '@/shared/useNotices'
import { anchors, nudged, turns, usePlaces, type Place } from './usePlaces'

/** Where one thing sits, by rule: against what, how far, turned how, carried by what, and what it wants free. */
const props = defineProps<{ place: Place; picture: MachinePicture }>()
const emit = defineEmits<{ gone: [] }>()
const { document: build, needs } = useBuild()
const { places, called, others, save, set, edit, remove } = usePlaces()
const notices = useNotices()
const evidence = useEvidence()
const axes = computed(() => build.value?.axes ?? [])
const name = computed(() => called(props.place))
const choices = computed(() => others(props.place.ref))
const directions = ['x', 'y', 'z'] as const
const sides = ['left', 'right', 'front', 'back', 'bottom', 'top'] as const
const ducts = [
  { value: 'any', title: 'any lead' },
  { value: 'mains', title: 'mains only' },
  { value: 'signal', title: 'no mains' },
]
const steps = [-10, -1, 1, 10]
const waits = computed(() => props.picture.waiting.find((one) => one.place === props.place.ref)?.why)
const isChain = computed(() => needs.value.get(props.place.need ?? '')?.family === 'cable_chain')
/** What axes have to do with it. */
const withAxes = computed(() => [
  { key: 'moves' as const, title: 'moves with', what: 'What carries it' },
  ...(isChain.value ? [{ key: 'spans' as const, title: 'takes up the movement of', what: 'What it takes up' }] : []),
])
const several = computed(() => (needs.value.get(props.place.need ?? '')?.quantity ?? 1) > 1)
const where = computed(() => props.picture.bodies.find((body) => body.key === props.place.ref))
const inTurn = useInTurn()
/** Changes one member, worked out from what is there when its turn comes; false when it was refused, which is said. */
const change = <K extends keyof Place>(what: string, key: K, to: (held: Place[K]) => Place[K] | null) =>
  inTurn(() => {
    const held = places.value.get(props.place.ref)?.[key]

    return set(`${what} of ${name.value}`, 'places', props.place.ref, [key], held ?? null, to(held as Place[K]))
  }).then(
    () => true,
    (problem: unknown) => {
      notices.problem(problem)

      return false
    },
  )
function at(along: 'x' | 'y' | 'z', to: string): void {
  void change(`Place along ${along}`, along, (held) =>
    to === '' ? null : { ...held, at: to as NonNullable<Place['x']>['at'] },
  )
}
function of(along: 'x' | 'y' | 'z', to: string): void {
  void change(`Place along ${along}`, along, (held) => {
    const next = { ...held! }
    delete next.of

    return to === '' ? next : { ...next, of: to }
  })
}
const fix = (to: string) => change('What it is fixed to', 'on', () => to || null)
const turn = (to: string) =>
  change('How it is turned', 'turned', () => (to === 'lwh' ? null : (to as NonNullable<Place['turned']>)))
const touch = (other: string) => change('What it is meant to touch', 'meets', (held) => toggled(held, other))
const by = (along: 'x' | 'y' | 'z') => (text: string, was: unknown) =>
  inTurn(() => save(props.place, `Place along ${along}`, [along, 'by'])(text, was))
function nudge(along: 'x' | 'y' | 'z', step: number): void {
  inTurn(async () => {
    const held = places.value.get(props.place.ref)?.[along]
    if (held === undefined) return
    // Towards the right, the back and the top, whichever side it is told from.
    const to = nudged(held.by, held.at === 'high' || held.at === 'before' ? -step : step)
    if (to === null) throw new Error(`"${held.by}" cannot be nudged: type it anew.`)
    await set(`Place along ${along} of ${name.value}`, 'places', props.place.ref, [along, 'by'], held.by ?? null, to)
  }).catch(notices.problem)
}
/** A row has a direction and a distance, or neither. */
function inRow(along: string): void {
  inTurn(() => {
    const { row = null, pitch = null } = places.value.get(props.place.ref) ?? props.place

    return edit(`Row of ${name.value}`, [
      {
        section: 'places',
        ref: props.place.ref,
        set: [
          { path: ['row'], was: row, to: along || null },
          { path: ['pitch'], was: pitch, to: along ? (pitch ?? '100 mm') : null },
        ],
      },
    ])
  }).catch(notices.problem)
}
const fresh = ref({ side: 'front' as (typeof sides)[number], depth: '', for: '' })
async function reach(): Promise<void> {
  const more = { ...fresh.value }
  if (await change('Room', 'reach', (held) => [...(held ?? []), more]))
    fresh.value = { side: 'front', depth: '', for: '' }
}
function unreach(one: NonNullable<Place['reach']>[number]): void {
  void change('Room', 'reach', (held) => {
    const left = (held ?? []).filter((other) => JSON.stringify(other) !== JSON.stringify(one))

    return left.length ? left : null
  })
}
const { errand: reading, send, again, stop } = useErrand<Mesh>('mesh')
const meshReason = ref('')
const meshDoubts = ref<string[]>([])
function mesh(event: Event): void {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (file !== undefined) void sized(() => send({ mesh: file, unit: 'mm' }))
}
async function sized(work: () => Promise<Mesh | null>): Promise<void> {
  meshReason.value = ''
  meshDoubts.value = []
  try {
    const read = await work()
    if (read === null) return
    const { length, width, height } = read.specs as Record<string, string>
    meshDoubts.value = read.doubts
    await change('Size', 'size', () => ({ length, width, height }))
  } catch (error) {
    meshReason.value = reasonOf(error)
  }
}
async function drop(): Promise<void> {
  if (await remove(`Take ${name.value} off its place`, `The place of ${name.value}`, 'places', props.place.ref))
    emit('gone')
}
</script>

<template>
  <section class="place" :aria-label="`Place of ${name}`">
    <h2>{{ name }}</h2>
    <p v-if="waits" class="unproven small">No place yet: {{ waits }}.</p>
    <p v-else-if="where" class="figure small quiet">
      {{ directions.map((along, d) => `${along} ${where!.low[d]} to ${where!.high[d]}`).join(', ') }} mm
    </p>
    <label class="line"
      ><span class="quiet">fixed to</span
      ><select
        class="field"
        aria-label="Fixed to"
        :value="place.on ?? ''"
        @change="fix(($event.target as HTMLSelectElement).value)"
      >
        <option value="">the machine itself</option>
        <option v-for="one in choices" :key="one.value" :value="one.value">{{ one.title }}</option>
      </select></label
    >
    <div v-for="along in directions" :key="along" class="rule">
      <span class="figure">{{ along }}</span>
      <EditCell
        v-if="place[along]"
        figure
        class="by"
        :label="`Distance along ${along}`"
        :value="place[along]?.by"
        unit="mm"
        placeholder="0 mm"
        :save="by(along)"
      />
      <select
        class="field"
        :aria-label="`How it is placed along ${along}`"
        :value="place[along]?.at ?? ''"
        @change="at(along, ($event.target as HTMLSelectElement).value)"
      >
        <option value="">nobody says</option>
        <option v-for="(title, key) in anchors[along]" :key="key" :value="key">{{ title }}</option>
      </select>
      <select
        v-if="place[along]"
        class="field of"
        :aria-label="`Told from, along ${along}`"
        :value="place[along]?.of ?? ''"
        @change="of(along, ($event.target as HTMLSelectElement).value)"
      >
        <option value="">{{ place.on ? called(places.get(place.on)) : 'the outline' }}</option>
        <option v-for="one in choices" :key="one.value" :value="one.value">{{ one.title }}</option>
      </select>
      <span v-if="place[along]" class="nudge">
        <button
          v-for="step in steps"
          :key="step"
          type="button"
          class="plain figure"
          :aria-label="`${along} ${step > 0 ? '+' : '−'} ${Math.abs(step)} mm`"
          @click="nudge(along, step)"
        >
          {{ step > 0 ? '+' : '−' }}{{ Math.abs(step) }}
        </button>
      </span>
    </div>
    <label class="line"
      ><span class="quiet">turned</span
      ><select
        class="field"
        aria-label="Turned"
        :value="place.turned ?? 'lwh'"
        @change="turn(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="(title, key) in turns" :key="key" :value="key">{{ title }}</option>
      </select></label
    >
    <div class="line">
      <span class="quiet">size</span>
      <span v-for="side in ['length', 'width', 'height'] as const" :key="side" class="side">
        <span class="quiet small">{{ side }}</span>
        <EditCell
          figure
          :label="`Its ${side}`"
          :value="place.size?.[side]"
          unit="mm"
          :placeholder="place.need ? 'by its sheet' : 'not known'"
          :save="save(place, `Its ${side}`, ['size', side])"
        />
      </span>
      <label class="link small pick"
        ><input type="file" accept=".stl,model/stl" aria-label="Size from an STL file" @change="mesh" />from its
        STL</label
      >
      <ErrandState v-if="reading" :errand="reading" what="Reading the file" @stop="stop()" @again="sized(again)" />
      <span v-for="doubt in meshDoubts" :key="doubt" class="tight small">{{ doubt }}</span>
      <span v-if="meshReason" class="danger small" role="alert">{{ meshReason }}</span>
    </div>
    <div v-if="several" class="line">
      <span class="quiet">its pieces in a row along</span>
      <select
        class="field"
        aria-label="In a row along"
        :value="place.row ?? ''"
        @change="inRow(($event.target as HTMLSelectElement).value)"
      >
        <option value="">no row</option>
        <option v-for="along in directions" :key="along">{{ along }}</option>
      </select>
      <EditCell
        v-if="place.row"
        figure
        label="From piece to piece"
        :value="place.pitch"
        unit="mm"
        :save="save(place, 'Distance of its pieces', ['pitch'])"
      />
    </div>
    <div v-for="one in axes.length ? withAxes : []" :key="one.key" class="line">
      <span class="quiet">{{ one.title }}</span>
      <label v-for="axis in axes" :key="axis.ref" class="small"
        ><input
          type="checkbox"
          :checked="place[one.key]?.includes(axis.ref)"
          @change="change(one.what, one.key, (held) => toggled(held, axis.ref))"
        />
        {{ axis.name }}</label
      >
    </div>
    <div class="line">
      <span class="quiet">room around it</span>
      <EditCell
        figure
        label="Room wanted around it"
        :value="place.free"
        unit="mm"
        placeholder="none"
        :save="save(place, 'Room around', ['free'])"
      />
      <label v-if="place.free" class="small"
        ><input
          type="checkbox"
          :checked="place.preference"
          @change="change('Preference', 'preference', (held) => (held ? null : true))"
        />
        only preferred</label
      >
    </div>
    <div class="line">
      <span class="quiet">room to reach it</span>
      <ul v-if="place.reach?.length">
        <li v-for="(one, i) in place.reach" :key="i" class="small">
          <span class="figure">{{ one.depth }}</span> {{ one.side }}, {{ one.for }}
          <button type="button" class="plain link" :aria-label="`No room for ${one.for}`" @click="unreach(one)">
            delete
          </button>
        </li>
      </ul>
      <form class="fields" @submit.prevent="reach()">
        <input v-model="fresh.depth" class="field mm" aria-label="How deep" placeholder="80 mm" />
        <select v-model="fresh.side" class="field" aria-label="On which side">
          <option v-for="side in sides" :key="side">{{ side }}</option>
        </select>
        <input v-model="fresh.for" class="field" aria-label="What for" placeholder="plug, key, door" />
        <v-btn type="submit" size="small" :disabled="!fresh.depth || !fresh.for">Add</v-btn>
      </form>
    </div>
    <details>
      <summary class="quiet small">Leads, touching, evidence</summary>
      <div class="line">
        <span class="quiet">leads may lie in it</span>
        <EditCell
          label="What may lie in it"
          :value="place.duct"
          :options="ducts"
          placeholder="no channel"
          :save="save(place, 'What may lie in it', ['duct'])"
        />
      </div>
      <label class="line"
        ><span class="quiet">meant to touch</span>
        <select
          class="field"
          aria-label="Meant to touch"
          value=""
          @change="touch(($event.target as HTMLSelectElement).value)"
        >
          <option value="">add …</option>
          <option
            v-for="one in choices.filter((c) => !place.meets?.includes(c.value))"
            :key="one.value"
            :value="one.value"
          >
            {{ one.title }}
          </option>
        </select></label
      >
      <ul v-if="place.meets?.length">
        <li v-for="one in place.meets" :key="one" class="small">
          {{ called(places.get(one)) }}
          <button
            type="button"
            class="plain link"
            :aria-label="`Not meant to touch ${called(places.get(one))}`"
            @click="touch(one)"
          >
            delete
          </button>
        </li>
      </ul>
      <div class="line">
        <span class="quiet">its place rests on</span>
        <EditCell
          label="What its place rests on"
          :value="place.evidence"
          :options="evidence"
          placeholder="decided, yet to be built"
          :save="save(place, 'What the place rests on', ['evidence'])"
        />
      </div>
    </details>
    <p>
      <button type="button" class="plain link small" @click="drop()">take it off its place</button>
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 0 0 4px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  min-height: 32px;
}
.rule {
  display: grid;
  grid-template-columns: 12px 78px minmax(0, 1fr) minmax(0, 1fr);
  gap: 0 8px;
  align-items: center;
  min-height: 32px;
}
.rule .field {
  width: 100%;
  text-overflow: ellipsis;
}
.rule .figure + .field {
  grid-column: 3;
}
.side {
  display: inline-flex;
  gap: 4px;
  align-items: baseline;
}
.nudge {
  display: flex;
  grid-column: 3 / -1;
  gap: 10px;
}
.nudge button {
  min-width: 24px;
  min-height: 28px;
  color: var(--live);
}
ul {
  padding: 0;
  margin: 0;
  list-style: none;
}
.mm {
  width: 76px;
}
@media (max-width: 500px) {
  .rule {
    grid-template-columns: 12px 78px minmax(0, 1fr);
  }
  .rule .of,
  .nudge {
    grid-column: 3;
  }
}
</style>
