<script setup lang="ts">
import { computed, ref } from 'vue'
import type { MachinePicture } from '@/api/client'
import {
  around,
  boxOf,
  farFirst,
  flat,
  moved,
  point,
  sheetSize,
  swept,
  type Body,
  type Box,
  type Look,
  type Meeting,
  type Stand,
  mm,
} from './geometry'

/** One view of the machine to scale, with the axes where they stand. What is picked shows what it sweeps and what it wants free. */
const { picture, look, stand, picked, meeting, ways, surrounded } = defineProps<{
  picture: MachinePicture
  look: Look
  stand: Stand
  picked: string | null
  meeting: Meeting[]
  /** Leads whose way is drawn. */
  ways: string[]
  /** Whether bench, door and room are drawn about it. */
  surrounded: boolean
}>()
const emit = defineEmits<{ pick: [place: string] }>()
const drawing = ref<SVGSVGElement | null>(null)
const room = computed<Box | null>(() =>
  picture.outline === null ? null : { low: [0, 0, 0], high: picture.outline as Box['high'] },
)
const sheet = computed(() =>
  around([
    ...picture.bodies.map((body) => swept(body, picture.axes)),
    ...(room.value === null ? [] : [room.value]),
    ...picture.reaches.filter((one) => one.place === picked).map((one) => boxOf(one)),
    ...(surrounded ? picture.surroundings.map((one) => boxOf(one)) : []),
  ]),
)
const size = computed(() => sheetSize(look, sheet.value))
/** A letter, in millimetres of the machine: as large as on the page whatever the scale. */
const letter = computed(() => Math.max(size.value.width / 75, size.value.height / 42))
const margin = computed(() => letter.value * 2.6)
const now = (body: Body) => boxOf(body, moved(body.carried, picture.axes, stand))
const drawn = computed(() => {
  const found = farFirst(
    picture.bodies.map((body) => ({ body, ...now(body) })),
    look,
  ).map(({ body, low, high }) => ({ body, rect: flat({ low, high }, look, sheet.value) }))

  // A name shows where nothing nearer lies over it.
  return found.map((one, i) => ({ ...one, named: fits(one.body.label, one.rect) && !covered(one, found.slice(i + 1)) }))
})
type Rect = ReturnType<typeof flat>
const fits = (text: string, rect: Rect) =>
  text.length * letter.value * 0.56 < rect.width && rect.height > letter.value * 1.3
function covered(one: { body: Body; rect: Rect }, nearer: { body: Body; rect: Rect }[]): boolean {
  const { x, y } = one.rect
  const [width, height] = [one.body.label.length * letter.value * 0.56, letter.value * 1.2]

  return nearer.some(
    ({ body, rect }) =>
      body.kind !== 'zone' &&
      !body.encloses &&
      rect.x < x + width &&
      rect.x + rect.width > x &&
      rect.y < y + height &&
      rect.y + rect.height > y,
  )
}
const meets = computed(() => new Set(meeting.flatMap((one) => [one.one, one.other])))
const over = computed(() =>
  picture.bodies
    .filter((body) => body.place === picked && body.carried.length > 0)
    .map((body) => flat(swept(body, picture.axes), look, sheet.value)),
)
const free = computed(() =>
  picture.reaches
    .filter((one) => one.place === picked)
    .map((one) => ({
      ...one,
      rect: flat(boxOf(one), look, sheet.value),
    })),
)
const lines = computed(() =>
  picture.ways
    .filter((way) => ways.includes(way.lead))
    .map((way) => ({ ...way, path: squared(way.points.map((at) => point(at, look, sheet.value))) })),
)
/** Leads run square to the directions: from point to point first across, then up. */
function squared(points: [number, number][]): string {
  return points.map(([x, y], i) => (i === 0 ? `M${x} ${y}` : `H${x}V${y}`)).join('')
}
const bar = computed(() => {
  const third = Math.max(size.value.width, size.value.height) / 4
  const tens = 10 ** Math.floor(Math.log10(Math.max(1, third)))

  return [5, 2, 1].map((times) => times * tens).find((length) => length <= third) ?? tens
})
const called = { bench: 'bench', door: 'door', service: 'kept free', room: 'room' } as const
const about = computed(() =>
  (surrounded ? picture.surroundings : []).map((one) => ({ ...one, rect: flat(boxOf(one), look, sheet.value) })),
)
const outer = computed(() => (room.value === null ? null : flat(room.value, look, sheet.value)))
defineExpose({ drawing })
</script>

<template>
  <svg
    ref="drawing"
    class="flat"
    :viewBox="`${-margin} ${-margin} ${size.width + 2 * margin} ${size.height + 2 * margin + letter * 2}`"
    role="group"
    :aria-label="`${look}, to scale`"
    :style="{ fontSize: `${letter}px`, strokeWidth: letter / 12 }"
  >
    <g v-for="one in about" :key="one.what" class="about" :class="one.what">
      <rect v-bind="one.rect" />
      <text :x="one.rect.x + letter / 3" :y="one.rect.y + letter * (one.rect.height < letter ? -0.3 : 1.05)">
        {{ called[one.what] }}
      </text>
    </g>
    <rect v-if="outer" v-bind="outer" class="outline" :stroke-dasharray="letter" />
    <g
      v-for="{ body, rect, named } in drawn"
      :key="body.key"
      :class="[
        body.kind,
        {
          picked: body.place === picked,
          meets: meets.has(body.key),
          carried: body.carried.length > 0,
          encloses: body.encloses,
        },
      ]"
      class="body"
      role="button"
      tabindex="0"
      :aria-label="body.label"
      :aria-pressed="body.place === picked"
      @click="emit('pick', body.place)"
      @keydown.enter="emit('pick', body.place)"
    >
      <title>{{ body.label }}</title>
      <rect v-bind="rect" />
      <text v-if="named" :x="rect.x + letter / 3" :y="rect.y + letter * 1.05">{{ body.label }}</text>
    </g>
    <rect v-for="(rect, i) in over" :key="`s${i}`" v-bind="rect" class="swept" :stroke-dasharray="letter / 2" />
    <g v-for="one in free" :key="one.side + one.for" class="reach" :class="{ blocked: one.blocked.length > 0 }">
      <title>{{ one.for }}</title>
      <rect v-bind="one.rect" :stroke-dasharray="letter / 3" />
    </g>
    <path v-for="way in lines" :key="way.lead" :d="way.path" class="way" :class="{ mains: way.mains }">
      <title>{{ way.label }}</title>
    </path>
    <g v-if="outer" class="sizes" aria-hidden="true">
      <path
        :d="`M${outer.x} ${size.height + letter}h${outer.width}m0 ${-letter / 2}v${letter}M${outer.x} ${size.height + letter / 2}v${letter}`"
      />
      <text :x="outer.x + outer.width / 2" :y="size.height + letter * 2.2" text-anchor="middle">
        {{ mm(outer.width, 1) }}
      </text>
      <path
        :d="`M${-letter} ${outer.y}v${outer.height}m${-letter / 2} 0h${letter}M${-letter * 1.5} ${outer.y}h${letter}`"
      />
      <text
        :x="-letter * 1.4"
        :y="outer.y + outer.height / 2"
        text-anchor="middle"
        :transform="`rotate(-90 ${-letter * 1.4} ${outer.y + outer.height / 2})`"
      >
        {{ mm(outer.height, 1) }}
      </text>
    </g>
    <g class="sizes" aria-hidden="true">
      <path
        :d="`M0 ${size.height + letter * 3.6}h${bar}m0 ${-letter / 3}v${(letter * 2) / 3}M0 ${size.height + letter * 3.27}v${(letter * 2) / 3}`"
      />
      <text :x="bar + letter / 2" :y="size.height + letter * 3.95">{{ mm(bar, 1) }}</text>
    </g>
  </svg>
</template>

<style scoped>
.flat {
  display: block;
  width: 100%;
  height: 100%;
  min-height: 240px;
  overflow: visible;
}
rect,
path {
  fill: none;
  stroke: rgb(var(--v-theme-on-surface));
}
text {
  fill: rgb(var(--v-theme-on-surface));
  stroke: none;
}
.outline {
  stroke: var(--quiet);
}
.body {
  cursor: pointer;
}
.body rect {
  fill: rgb(var(--v-theme-surface));
  fill-opacity: 0.96;
  stroke-opacity: 0.75;
}
.body.carried rect {
  fill: color-mix(in srgb, var(--live) 14%, rgb(var(--v-theme-surface)));
}
.body.encloses rect {
  fill-opacity: 0.15;
}
.body.zone rect {
  fill: var(--live);
  fill-opacity: 0.06;
  stroke: var(--live);
  stroke-dasharray: 8;
}
.body.duct rect {
  fill: var(--quiet);
  fill-opacity: 0.22;
}
.body.workpiece rect {
  fill: rgb(var(--v-theme-tight));
  fill-opacity: 0.18;
}
.body.picked rect {
  stroke: var(--live);
  stroke-width: 3px;
  stroke-opacity: 1;
  vector-effect: non-scaling-stroke;
}
.body.meets rect {
  fill: rgb(var(--v-theme-fails));
  fill-opacity: 0.3;
  stroke: rgb(var(--v-theme-fails));
}
.body:focus-visible {
  outline: none;
}
.body:focus-visible rect {
  stroke: var(--live);
  stroke-width: 4px;
  vector-effect: non-scaling-stroke;
}
.swept,
.reach rect {
  pointer-events: none;
  stroke: var(--live);
}
.reach.blocked rect {
  stroke: rgb(var(--v-theme-tight));
}
.way {
  pointer-events: none;
  stroke: var(--live);
  stroke-width: 2px;
  vector-effect: non-scaling-stroke;
}
.way.mains {
  stroke: rgb(var(--v-theme-danger));
}
.about rect {
  fill: none;
  stroke: var(--quiet);
}
.about.service rect {
  stroke-dasharray: 24 12;
}
.about.door rect {
  fill: var(--quiet);
  fill-opacity: 0.08;
}
.about text {
  fill: var(--quiet);
}
.sizes path {
  stroke: var(--quiet);
}
.sizes text {
  fill: var(--quiet);
}
</style>
