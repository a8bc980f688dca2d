<script setup lang="ts">
import { computed, defineAsyncComponent, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { reasonOf, type MachinePicture } from '@/api/client'
import FindingList from '@/shared/FindingList.vue'
import FirstAction from '@/shared/FirstAction.vue'
import { freeRef, refFrom, toggled } from '@/shared/refs'
import { useAct } from '@/shared/useAct'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import VerdictMark from '@/shared/VerdictMark.vue'
import ArrangeList from './ArrangeList.vue'
import FlatView from './FlatView.vue'
import { meetNow, toAndFro, type Look, type Stand, mm } from './geometry'
import PlaceForm from './PlaceForm.vue'
import { usePlaces } from './usePlaces'
import WayTable from './WayTable.vue'

/** Where everything sits, to scale; what it sweeps and meets; what has no place yet; and how long each lead is by its way. */
const SpaceView = defineAsyncComponent(() => import('./SpaceView.vue'))
const looks = { plan: 'Plan', front: 'Front', side: 'Side', space: 'In space' } as const
const { id, document: build, needs } = useBuild()
const { data: picture, isError, error } = useDerived<MachinePicture>('picture', () => 'picture')
const { places, called, edit } = usePlaces()
const { about } = useFindings()
const { busy, reason, act } = useAct()
const route = useRoute()
const router = useRouter()
const look = computed<keyof typeof looks>(() => {
  const asked = String(route.query.look ?? 'plan')

  return asked in looks ? (asked as keyof typeof looks) : 'plan'
})
const turn = (to: string) => router.replace({ query: { ...route.query, look: to } })
const picked = computed(() => (typeof route.query.place === 'string' ? route.query.place : null))
const pick = (place: string | null) =>
  router.replace({ query: { ...route.query, place: place === picked.value ? undefined : (place ?? undefined) } })
const place = computed(() => places.value.get(picked.value ?? ''))
const stand = ref<Stand>({})
const moving = computed(() => (picture.value?.axes ?? []).filter((axis) => (axis.travel ?? 0) > 0))
const still = computed(() => (picture.value?.axes ?? []).filter((axis) => axis.travel === null))
const meeting = computed(() => (picture.value === undefined ? [] : meetNow(picture.value, stand.value)))
const labels = computed(() => new Map((picture.value?.bodies ?? []).map((body) => [body.key, body.label])))
/** Axes that go to and fro, each with a period of its own so that together they come everywhere. */
const sweeping = ref<string[]>([])
let frame = 0
let began = 0
function step(time: number): void {
  began = began === 0 ? time : began
  moving.value.forEach((axis, i) => {
    if (sweeping.value.includes(axis.ref))
      stand.value[axis.ref] = toAndFro(axis.travel!, (time - began) / 1000, 5 + i * 1.7)
  })
  frame = sweeping.value.length > 0 ? requestAnimationFrame(step) : 0
}
function sweep(axes: string[]): void {
  sweeping.value = axes
  began = 0
  cancelAnimationFrame(frame)
  if (axes.length > 0) frame = requestAnimationFrame(step)
}
onBeforeUnmount(() => cancelAnimationFrame(frame))
const all = computed(() => moving.value.map((axis) => axis.ref))
const isSweeping = computed(() => sweeping.value.length > 0)
const ways = ref<string[]>([])
const surrounded = ref(false)
const draw = (lead: string) => (ways.value = toggled(ways.value, lead) ?? [])
watch(id, () => {
  stand.value = {}
  sweep([])
})
const findings = computed(() => about('layout'))
const worst = computed(() => findings.value.filter((finding) => !['holds', 'later'].includes(finding.verdict)))
const encloses = computed(() => picture.value?.bodies.find((body) => body.key === picked.value)?.encloses === true)
const sorted = computed(() =>
  [...places.value.values()]
    .map((one) => ({ ref: one.ref, name: called(one) }))
    .sort((a, b) => a.name.localeCompare(b.name)),
)
/** A new place, at the corner of what is picked, or of the machine; from there it is told on. */
const create = (of: Record<string, unknown>, stem: string) =>
  act(async () => {
    const ref = freeRef(refFrom(stem, 'place'), (one) => places.value.has(one))
    const on = place.value?.ref
    await edit(`Give ${stem} a place`, [
      {
        section: 'places',
        create: {
          ref,
          ...of,
          ...(on === undefined ? {} : { on }),
          x: { at: 'low' },
          y: { at: 'low' },
          z: { at: 'low' },
        },
      },
    ])
    await pick(ref)
  })
function put(need: string): void {
  const held = needs.value.get(need)!
  const taken = new Set([...places.value.values()].filter((one) => one.need === need).map((one) => one.piece ?? 1))
  // The first place is of the whole need; the next are of the first of its pieces that has none.
  let piece = 1
  while (taken.has(piece)) piece++
  void create({ need, ...(piece > 1 ? { piece } : {}) }, held.role)
}
/** Checks that wait for every part without a place, said once; and those that wait for one of them. */
const common = computed(() => {
  const [first, ...more] = picture.value?.tray ?? []

  return (first?.checks ?? []).filter((check) => more.every((one) => one.checks.includes(check)))
})
const waits = (one: MachinePicture['tray'][number]) =>
  [
    one.pieces > 1 ? `${one.pieces} pieces` : '',
    one.sized ? '' : 'size not known',
    one.leads.length === 0
      ? ''
      : one.leads.length === 1
        ? 'a lead waits for it'
        : `${one.leads.length} leads wait for it`,
    ...one.checks.filter((check) => !common.value.includes(check)),
  ]
    .filter(Boolean)
    .join(', ')
const fresh = ref('')
const zones = computed(() =>
  (build.value?.zones ?? []).filter((zone) => ![...places.value.values()].some((one) => one.zone === zone.ref)),
)
const pieces = computed(() =>
  (build.value?.workpieces ?? []).filter(
    (piece) => ![...places.value.values()].some((one) => one.workpiece === piece.ref),
  ),
)
const file = (path: string) => `/api/builds/${id.value}/${path}`
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Picture</h1>
      <span class="quiet">to scale: where everything sits, what it sweeps, what it meets</span>
      <span v-if="picture?.bodies.length" class="push take">
        <a class="link small" :href="file(`picture/${look === 'space' ? 'plan' : look}.svg`)">SVG</a>
        <a class="link small" :href="file('machine.gltf')">glTF</a>
        <a class="link small" :href="file('positions.csv')">Positions, CSV</a>
      </span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="picture">
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
      <div class="board">
        <div class="sheet">
          <div class="looks">
            <button
              v-for="(title, key) in looks"
              :key="key"
              type="button"
              class="plain look"
              :aria-pressed="look === key"
              @click="turn(key)"
            >
              {{ title }}
            </button>
            <label v-if="picture.surroundings.length && look !== 'space'" class="small push"
              ><input v-model="surrounded" type="checkbox" /> with bench, door and room</label
            >
          </div>
          <div class="drawing">
            <p v-if="picture.bodies.length === 0" class="empty">
              Nothing has a place yet.
              {{
                picture.outline === null
                  ? 'Give the outline of the machine under Place, then a place to what carries the rest.'
                  : 'Give a place to what carries the rest first: the frame, the bed, the cabinet.'
              }}
              <FirstAction v-if="picture.outline === null" path="prove/place">Give its outline</FirstAction>
            </p>
            <SpaceView
              v-else-if="look === 'space'"
              :picture="picture"
              :stand="stand"
              :picked="picked"
              :meeting="meeting"
              @pick="pick"
            />
            <FlatView
              v-else
              :picture="picture"
              :look="look as Look"
              :stand="stand"
              :picked="picked"
              :meeting="meeting"
              :ways="ways"
              :surrounded="surrounded"
              @pick="pick"
            />
          </div>
          <div v-if="moving.length && picture.bodies.length" class="axes">
            <label v-for="axis in moving" :key="axis.ref"
              ><span class="axis">{{ axis.name }}</span>
              <input
                type="range"
                :value="stand[axis.ref] ?? 0"
                min="0"
                :max="axis.travel!"
                step="0.5"
                :aria-label="`Where ${axis.name} stands, mm`"
                @pointerdown="sweep([])"
                @input="stand[axis.ref] = Number(($event.target as HTMLInputElement).value)"
              />
              <span class="figure small at">{{ mm(stand[axis.ref] ?? 0) }}</span>
              <button
                type="button"
                class="plain link small"
                :aria-label="`Sweep ${axis.name} alone`"
                @click="sweep(sweeping.length === 1 && sweeping[0] === axis.ref ? [] : [axis.ref])"
              >
                {{ isSweeping && sweeping.length === 1 && sweeping[0] === axis.ref ? 'stop' : 'sweep' }}
              </button></label
            >
            <button type="button" class="plain link small" @click="sweep(isSweeping ? [] : all)">
              {{ isSweeping ? 'stop' : 'sweep all together' }}
            </button>
            <span v-if="meeting.length" class="fails small" role="status">
              {{ meeting.map((one) => `${labels.get(one.one)} meets ${labels.get(one.other)}`).join('; ') }}
            </span>
            <span v-else-if="picture.meetings.some((one) => (one.gap ?? 0) < 0)" class="quiet small" role="status"
              >nothing meets here; elsewhere in the travel it does</span
            >
          </div>
          <p v-for="axis in still" :key="axis.ref" class="unproven small">
            The travel of {{ axis.name }} is not known, so it is not swept.
          </p>
        </div>
        <aside class="beside">
          <template v-if="place">
            <button type="button" class="plain link small" @click="pick(null)">back to the list</button>
            <PlaceForm :key="place.ref" :place="place" :picture="picture" @gone="pick(null)" />
            <ArrangeList v-if="encloses" :key="place.ref" :place="place.ref" />
            <p v-if="picture.sheets.some((one) => one.place === place!.ref)" class="small">
              What to drill and cut, 1:1:
              <a class="link" :href="file(`sheets/${place.ref}.svg`)">SVG</a>
              <a class="link" :href="file(`sheets/${place.ref}.dxf`)">DXF</a>
            </p>
          </template>
          <template v-else>
            <section v-if="picture.waiting.length || picture.tray.length" aria-label="No place yet">
              <h2>No place yet</h2>
              <p v-if="common.length" class="quiet small">
                Until then left out of: {{ common.join(', ') }}; and of what is named with each.
              </p>
              <ul>
                <li v-for="one in picture.waiting" :key="one.place">
                  <button type="button" class="plain link" @click="pick(one.place)">{{ one.label }}</button>
                  <span class="unproven small">{{ one.why }}</span>
                </li>
                <li v-for="one in picture.tray" :key="one.need">
                  <button type="button" class="plain link" :disabled="busy" @click="put(one.need)">
                    {{ one.role }}
                  </button>
                  <span class="quiet small">{{ waits(one) }}</span>
                </li>
              </ul>
            </section>
            <section v-if="sorted.length" aria-label="In its place">
              <h2>In its place</h2>
              <ul class="columns">
                <li v-for="one in sorted" :key="one.ref">
                  <button type="button" class="plain link" @click="pick(one.ref)">{{ one.name }}</button>
                </li>
              </ul>
            </section>
            <section aria-label="Something else">
              <h2>Something else</h2>
              <form class="fields" @submit.prevent="create({ name: fresh }, fresh).then(() => (fresh = ''))">
                <input v-model="fresh" class="field" aria-label="What else" placeholder="wall, table, channel" />
                <v-btn type="submit" size="small" :disabled="!fresh.trim() || busy">Give it a place</v-btn>
              </form>
              <p v-if="zones.length || pieces.length" class="small">
                <button
                  v-for="zone in zones"
                  :key="zone.ref"
                  type="button"
                  class="plain link also"
                  :disabled="busy"
                  @click="create({ zone: zone.ref }, zone.name)"
                >
                  {{ zone.name }}
                </button>
                <button
                  v-for="piece in pieces"
                  :key="piece.ref"
                  type="button"
                  class="plain link also"
                  :disabled="busy"
                  @click="create({ workpiece: piece.ref }, piece.name)"
                >
                  {{ piece.name }}, in place
                </button>
              </p>
            </section>
          </template>
        </aside>
      </div>
      <section v-if="findings.length" aria-label="What follows">
        <h2>What follows</h2>
        <FindingList :findings="worst" none="Nothing meets, sticks out or falls short, of what has a place." />
        <p v-if="findings.length > worst.length" class="small quiet">
          <VerdictMark verdict="holds" /> {{ findings.length - worst.length }} more hold.
        </p>
      </section>
      <WayTable v-if="picture.ways.length" :picture="picture" :shown="ways" @show="draw" />
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 14px 0 4px;
}
.board {
  display: grid;
  grid-template-columns: minmax(0, 1.75fr) minmax(280px, 1fr);
  gap: 24px;
}
.drawing {
  height: min(58vh, 560px);
}
.looks {
  display: flex;
  gap: 4px;
  margin-bottom: 6px;
}
.look {
  min-height: 32px;
  padding: 0 10px;
  border-bottom: 2px solid transparent;
}
.look[aria-pressed='true'] {
  color: var(--live);
  border-color: var(--live);
}
.axes {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  align-items: center;
  margin-top: 8px;
}
.axes label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.axes input {
  width: 130px;
  accent-color: var(--live);
}
.at {
  min-width: 62px;
  text-align: right;
}
.take a {
  margin-left: 14px;
}
ul {
  padding: 0;
  margin: 0;
  list-style: none;
}
li {
  min-height: 30px;
}
li span {
  margin-left: 8px;
}
.columns {
  columns: 2;
}
.columns li {
  break-inside: avoid;
}
.also {
  margin-right: 14px;
}
@media (max-width: 900px) {
  .board {
    grid-template-columns: minmax(0, 1fr);
  }
  .drawing {
    height: 46vh;
  }
}
</style>
