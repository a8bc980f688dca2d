<script setup lang="ts">
import { computed } from 'vue'
import { reasonOf, type Heat } from '@/api/client'
import { saveCsv } from '@/shared/download'
import FigureText from '@/shared/FigureText.vue'
import FindingList from '@/shared/FindingList.vue'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { usePanel } from '@/shared/usePanel'
import ZoneTable from './ZoneTable.vue'

/** Heaters, warm places and the plastics that have to bear them. */
const { document: build } = useBuild()
const { data: heat, isError, error } = useDerived<Heat>('heat', () => 'heat')
const { findings } = useFindings()
const panel = usePanel()
const said = computed(() => findings.value.filter((finding) => /^T0|^E23$/.test(finding.check)))
const warmest = computed(() =>
  Math.max(
    100,
    ...(heat.value?.prints ?? []).map((one) => Math.max(one.glass ?? 0, one.service ?? 0)),
    ...(heat.value?.zones ?? []).map((one) => one.air ?? 0),
  ),
)
const at = (celsius: number) => `${(100 * celsius) / warmest.value}%`
const shade = (left: number | null) =>
  left === null ? 'unproven' : left < 10 ? 'fails' : left < 20 ? 'tight' : 'holds'
const csv = () =>
  saveCsv(`${build.value?.build.name ?? 'build'}-heat.csv`, [
    ['place', 'air °C', 'what', 'bears °C', 'left K'],
    ...(heat.value?.zones ?? []).flatMap((zone) =>
      zone.things.map((thing) => [zone.name, zone.air, thing.role, thing.limit, thing.left]),
    ),
    [],
    ['printed part', 'plastic', 'meets °C', 'softens °C', 'left K'],
    ...(heat.value?.prints ?? []).map((one) => [one.role, one.material, one.service, one.glass, one.left]),
  ])
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Heat and materials</h1>
      <span class="push"><v-btn @click="csv()">CSV</v-btn></span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="heat">
      <p v-if="heat.zones.length === 0 && heat.prints.length === 0 && said.length === 0" class="empty">
        Nothing warm is described yet: no heater, no place with an air of its own, no printed part. Describe a cabinet
        or a chamber below.
      </p>
      <FindingList v-if="said.length" named :findings="said" none="" />
      <section v-for="zone in heat.zones" :key="zone.ref">
        <h2>
          {{ zone.name }}
          <span class="quiet small"
            >{{ zone.kind }}, <template v-if="zone.air !== null">air to {{ zone.air }} °C</template
            ><template v-else>air not known</template></span
          >
        </h2>
        <div class="things">
          <button
            v-for="thing in zone.things"
            :key="thing.need"
            type="button"
            class="plain thing"
            @click="panel.show({ kind: 'part', ref: thing.need })"
          >
            {{ thing.role }}
            <span
              v-if="thing.limit !== null"
              class="figure small"
              :class="thing.left === null ? '' : thing.left < 0 ? 'fails' : thing.left < 5 ? 'tight' : 'holds'"
              >bears {{ thing.limit }} °C<template v-if="thing.left !== null"
                >, {{ Math.abs(thing.left) }} K {{ thing.left < 0 ? 'too warm' : 'left' }}</template
              ></span
            ><span v-else class="quiet small">no limit known</span>
          </button>
        </div>
      </section>
      <section v-if="heat.prints.length">
        <h2>Printed parts</h2>
        <table class="ledger">
          <thead>
            <tr>
              <th>Part</th>
              <th>Plastic</th>
              <th>Where</th>
              <th class="num">Meets</th>
              <th class="num">Softens</th>
              <th class="num">Between</th>
              <th class="scale">Meets and softens, on one scale to {{ warmest }} °C</th>
              <th class="num">Walls</th>
              <th class="num">Infill</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="part in heat.prints"
              :key="part.need"
              @click="panel.show({ kind: 'working', key: `M13/${part.need}` })"
            >
              <td>
                <button
                  type="button"
                  class="plain"
                  @click.stop="panel.show({ kind: 'working', key: `M13/${part.need}` })"
                >
                  {{ part.role }}
                </button>
              </td>
              <td>{{ part.material ?? '–' }}</td>
              <td class="small quiet">{{ part.zone }}</td>
              <td class="num"><FigureText :value="part.service" unit="°C" /></td>
              <td class="num"><FigureText :value="part.glass" unit="°C" /></td>
              <td class="num" :class="shade(part.left)"><FigureText :value="part.left" unit="K" /></td>
              <td class="scale">
                <span class="bar"
                  ><span
                    v-if="part.service !== null"
                    class="met"
                    :class="shade(part.left)"
                    :style="{ width: at(part.service) }" /><span
                    v-if="part.glass !== null"
                    class="soft"
                    :style="{ left: at(part.glass) }"
                /></span>
              </td>
              <td class="num figure">{{ part.walls ?? '–' }}</td>
              <td class="num figure">{{ part.infill === null ? '–' : `${Math.round(part.infill * 100)} %` }}</td>
            </tr>
          </tbody>
        </table>
        <p class="quiet small">
          20 K between holds, less than 10 K fails. Fumes while printing ABS or ASA and from a lined heat break above
          its limit: ventilate. Never run unattended without something that senses smoke and cuts the power.
        </p>
      </section>
      <ZoneTable />
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 18px 0 4px;
}
.things {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 24px;
  font-size: 14px;
}
.thing:hover {
  color: var(--live);
}
.scale {
  min-width: 240px;
}
.bar {
  position: relative;
  display: block;
  height: 12px;
  background: color-mix(in srgb, var(--ink) 8%, transparent);
}
.met {
  position: absolute;
  inset: 0 auto 0 0;
  background: currentColor;
  opacity: 0.75;
}
.soft {
  position: absolute;
  top: -3px;
  bottom: -3px;
  width: 2px;
  background: var(--ink);
}
@media (max-width: 700px) {
  table.ledger {
    display: block;
    overflow-x: auto;
  }
}
</style>
