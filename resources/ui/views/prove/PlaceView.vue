<script setup lang="ts">
import { computed, ref } from 'vue'
import { saveCsv, saveSvg } from '@/shared/download'
import FindingList from '@/shared/FindingList.vue'
import { useBuild } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { millimetres } from '@/shared/format'

/** Plan and elevation to scale: room, bench, machine and the room it is served from; and the ways through the door. */
const { id, document: build } = useBuild()
const { about } = useFindings()
const drawing = ref<SVGSVGElement | null>(null)
const said = computed(() => about('place'))
const outline = computed(() => ({
  length: millimetres(build.value?.brief?.outline?.length),
  width: millimetres(build.value?.brief?.outline?.width),
  height: millimetres(build.value?.brief?.outline?.height),
}))
const site = computed(() => ({
  door: { width: millimetres(build.value?.site?.door?.width), height: millimetres(build.value?.site?.door?.height) },
  bench: { length: millimetres(build.value?.site?.bench?.length), width: millimetres(build.value?.site?.bench?.width) },
  room: {
    length: millimetres(build.value?.site?.room?.length),
    width: millimetres(build.value?.site?.room?.width),
    height: millimetres(build.value?.site?.room?.height),
  },
  service: millimetres(build.value?.site?.service) ?? 0,
}))
const known = computed(
  () => outline.value.length !== null && outline.value.width !== null && outline.value.height !== null,
)
const room = computed(() => ({
  length: site.value.room.length ?? Math.max(2000, (outline.value.length ?? 0) * 2),
  width: site.value.room.width ?? Math.max(1600, (outline.value.width ?? 0) * 2),
  height: site.value.room.height ?? Math.max(2200, (outline.value.height ?? 0) + 1000),
}))
const scale = computed(() => Math.min(470 / room.value.length, 300 / room.value.width, 300 / room.value.height))
const benchHeight = 850
/** Into the corner, as far from the walls as one has to reach around it. */
const corner = computed(() => ({
  x: Math.max(
    40,
    site.value.service - ((site.value.bench.length ?? outline.value.length ?? 0) - (outline.value.length ?? 0)) / 2,
  ),
  y: 40,
}))
/** Each way round: which two sides meet the opening. */
const ways = computed(() => {
  const { length, width, height } = outline.value
  const { door } = site.value
  if (length === null || width === null || height === null || door.width === null || door.height === null) return []

  return (
    [
      ['upright, narrow end first', width, height],
      ['upright, long side first', length, height],
      ['on its back', length, width],
      ['on its end', height, length],
      ['on its side, end first', height, width],
      ['on its end, wide', width, length],
    ] as const
  ).map(([name, across, tall]) => ({ name, across, tall, goes: across <= door.width! && tall <= door.height! }))
})
const csv = () =>
  saveCsv(`${build.value?.build.name ?? 'build'}-place.csv`, [
    ['way through the door', 'across mm', 'tall mm', 'goes'],
    ...ways.value.map((way) => [way.name, way.across, way.tall, way.goes ? 'yes' : 'no']),
  ])
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Place</h1>
      <span class="quiet">to scale, from the outline and the site</span
      ><span v-if="known" class="push"
        ><v-btn @click="saveSvg(`${build?.build.name}-place.svg`, drawing!)">Save SVG</v-btn
        ><v-btn @click="csv()">CSV</v-btn></span
      >
    </div>
    <p v-if="!known" class="empty">
      The outside of the machine is not known yet. Give its length, width and height, and the door, bench and room,
      under <router-link class="link" :to="`/builds/${id}/scope/brief`">Brief</router-link>.
    </p>
    <template v-else>
      <svg
        ref="drawing"
        class="place"
        viewBox="0 0 1060 360"
        role="img"
        aria-label="Plan at the left and elevation at the right, to scale; the table gives the ways through the door."
      >
        <g transform="translate(10 24)">
          <text class="title" x="0" y="-8">
            Plan
            <tspan v-if="site.room.length === null" class="quiet-text">(room not given)</tspan>
          </text>
          <rect class="room" x="0" y="0" :width="room.length * scale" :height="room.width * scale" />
          <line
            v-if="site.door.width"
            class="door"
            :x1="(room.length - 200 - site.door.width) * scale"
            :x2="(room.length - 200) * scale"
            :y1="room.width * scale"
            :y2="room.width * scale"
          />
          <text
            v-if="site.door.width"
            class="quiet-text"
            :x="(room.length - 200) * scale"
            :y="room.width * scale + 14"
            text-anchor="end"
          >
            door {{ site.door.width }} mm
          </text>
          <g :transform="`translate(${corner.x * scale} ${corner.y * scale})`">
            <rect
              v-if="site.bench.length && site.bench.width"
              class="bench"
              x="0"
              y="0"
              :width="site.bench.length * scale"
              :height="site.bench.width * scale"
            />
            <rect
              class="service"
              :x="((site.bench.length ?? outline.length!) / 2 - outline.length! / 2 - site.service) * scale"
              :y="((site.bench.width ?? outline.width!) / 2 - outline.width! / 2) * scale"
              :width="(outline.length! + 2 * site.service) * scale"
              :height="(outline.width! + site.service) * scale"
            />
            <rect
              class="machine"
              :x="((site.bench.length ?? outline.length!) / 2 - outline.length! / 2) * scale"
              :y="((site.bench.width ?? outline.width!) / 2 - outline.width! / 2) * scale"
              :width="outline.length! * scale"
              :height="outline.width! * scale"
            />
            <text
              class="in"
              :x="((site.bench.length ?? outline.length!) / 2) * scale"
              :y="((site.bench.width ?? outline.width!) / 2) * scale + 4"
              text-anchor="middle"
            >
              {{ outline.length }} × {{ outline.width }}
            </text>
          </g>
          <text v-if="site.service" class="quiet-text" x="0" :y="room.width * scale + 14">
            broken: {{ site.service }} mm to reach it
          </text>
        </g>
        <g transform="translate(550 24)">
          <text class="title" x="0" y="-8">Elevation</text>
          <rect class="room" x="0" y="0" :width="room.length * scale" :height="room.height * scale" />
          <g :transform="`translate(0 ${room.height * scale})`">
            <template v-if="site.bench.length">
              <rect
                class="bench"
                :x="corner.x * scale"
                :y="-benchHeight * scale"
                :width="site.bench.length * scale"
                :height="40 * scale"
              />
              <line
                class="leg"
                :x1="(corner.x + 60) * scale"
                :x2="(corner.x + 60) * scale"
                :y1="(-benchHeight + 40) * scale"
                y2="0"
              />
              <line
                class="leg"
                :x1="(corner.x + site.bench.length - 60) * scale"
                :x2="(corner.x + site.bench.length - 60) * scale"
                :y1="(-benchHeight + 40) * scale"
                y2="0"
              />
            </template>
            <rect
              class="machine"
              :x="(corner.x + (site.bench.length ?? outline.length!) / 2 - outline.length! / 2) * scale"
              :y="(-(site.bench.length ? benchHeight : 0) - outline.height!) * scale"
              :width="outline.length! * scale"
              :height="outline.height! * scale"
            />
            <text
              class="in"
              :x="(corner.x + (site.bench.length ?? outline.length!) / 2) * scale"
              :y="(-(site.bench.length ? benchHeight : 0) - outline.height! / 2) * scale + 4"
              text-anchor="middle"
            >
              {{ outline.height }} high
            </text>
            <text
              v-if="site.door.width && site.door.height"
              class="quiet-text"
              :x="(room.length - 200) * scale"
              :y="-site.door.height * scale - 4"
              text-anchor="end"
            >
              door {{ site.door.width }} × {{ site.door.height }}
            </text>
            <rect
              v-if="site.door.width && site.door.height"
              class="opening"
              :x="(room.length - 200 - site.door.width) * scale"
              :y="-site.door.height * scale"
              :width="site.door.width * scale"
              :height="site.door.height * scale"
            />
          </g>
        </g>
      </svg>
      <FindingList :findings="said" none="Give door, bench and room under Brief, and they are judged." />
      <section v-if="ways.length">
        <h2>Through the door, {{ site.door.width }} × {{ site.door.height }} mm</h2>
        <table class="ledger ways">
          <thead>
            <tr>
              <th>Way round</th>
              <th class="num">Across</th>
              <th class="num">Tall</th>
              <th>Goes</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="way in ways" :key="way.name">
              <td>{{ way.name }}</td>
              <td class="num figure">{{ way.across }} <span class="unit">mm</span></td>
              <td class="num figure">{{ way.tall }} <span class="unit">mm</span></td>
              <td :class="way.goes ? 'holds' : 'fails'">
                {{
                  way.goes
                    ? 'yes'
                    : `${Math.max(way.across - site.door.width!, way.tall - site.door.height!).toFixed(0)} mm too much`
                }}
              </td>
            </tr>
          </tbody>
        </table>
        <p class="quiet small">
          Two to carry it. Handles, cables and feet stick out; measure the narrowest place on the way, stairs too. The
          bench is drawn {{ benchHeight }} mm high.
        </p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.place {
  width: 100%;
  max-width: 1180px;
  display: block;
}
.title {
  font: 600 13px var(--text);
  fill: var(--ink);
}
.quiet-text {
  font: 11px var(--text);
  fill: var(--quiet);
}
.room {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.bench {
  fill: color-mix(in srgb, var(--ink) 12%, var(--paper));
  stroke: var(--quiet);
}
.leg {
  stroke: var(--quiet);
  stroke-width: 3;
}
.machine {
  fill: color-mix(in srgb, var(--live) 24%, var(--paper));
  stroke: var(--live);
  stroke-width: 2;
}
.service {
  fill: none;
  stroke: var(--live);
  stroke-dasharray: 6 4;
}
.door {
  stroke: var(--paper);
  stroke-width: 5;
}
.opening {
  fill: none;
  stroke: var(--ink);
  stroke-dasharray: 3 3;
}
.in {
  font: 600 12px var(--figures);
  fill: var(--ink);
}
h2 {
  margin: 18px 0 4px;
}
.ways {
  max-width: 640px;
}
</style>
