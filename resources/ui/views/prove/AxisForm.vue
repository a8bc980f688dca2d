<script setup lang="ts">
import { computed } from 'vue'
import type { Axis } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import HelpTerms from '@/shared/HelpTerms.vue'
import NeedList from '@/shared/NeedList.vue'
import { useBuild, useEdit, useEvidence } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import TurningParts from './TurningParts.vue'

/**
 * One form for an axis: what every figure of it waits for on top, the rest grouped by what it is about. Edited where it
 * stands.
 */
const props = defineProps<{ axis: Axis }>()
const { document: build, needsOf } = useBuild()
const { set } = useEdit()
const notices = useNotices()
const evidence = useEvidence()
type Field = {
  path: string[]
  label: string
  unit?: string
  options?: { value: string; title: string }[]
  flag?: true
  placeholder?: string
  value: string | boolean | null | undefined
}
const choices = (...all: string[]) => all.map((value) => ({ value, title: value }))
const drive = computed(() => props.axis.drive ?? {})
const homing = computed(() => props.axis.homing ?? {})
type Figure = 'mass' | 'top_speed' | 'acceleration' | 'force' | 'friction' | 'efficiency' | 'incline' | 'ratio'
type Further = 'inertia' | 'unsupported' | 'lever' | 'spread' | 'shock' | 'hand_wheel' | 'end_play' | 'turning_torque'
const figure = (key: Figure | Further | 'measured_load', label: string, unit: string, placeholder?: string): Field => ({
  path: ['drive', key],
  label,
  unit,
  value: drive.value[key],
  ...(placeholder === undefined ? {} : { placeholder }),
})
const one = (
  path: string[],
  label: string,
  value: Field['value'],
  options: Field['options'],
  placeholder = 'none',
): Field => ({ path, label, value, options, placeholder })
const flag = (path: string[], label: string, value: boolean | undefined): Field => ({ path, label, value, flag: true })

/** Without these no speed, torque or step of the axis can be worked out. */
const needed = computed<Field[]>(() => [
  one(['drive', 'by'], 'Screw or pulley', drive.value.by, needsOf('drive_screw', 'pulley'), 'needed'),
  figure('mass', 'Moving mass', 'kg', (drive.value.carries ?? []).length > 0 ? 'summed from what moves' : 'needed'),
  figure('top_speed', 'Top speed', 'mm/s', 'needed'),
  figure('acceleration', 'Acceleration', 'mm/s²', 'needed'),
  {
    path: ['drive', 'evidence'],
    label: 'These figures rest on',
    value: drive.value.evidence,
    options: evidence.value,
    placeholder: 'assumed',
  },
])
const waiting = computed(() => [
  (drive.value.motors ?? []).length > 0,
  drive.value.by,
  drive.value.mass ?? ((drive.value.carries ?? []).length > 0 || undefined),
  drive.value.top_speed,
  drive.value.acceleration,
])
const said = computed(() => waiting.value.filter((value) => value !== undefined && value !== false).length)
const groups = computed<{ title: string; fields: Field[] }[]>(() => [
  {
    title: 'Between motor and load',
    fields: [
      one(['drive', 'board'], 'Board', drive.value.board, needsOf('controller_board')),
      figure('ratio', 'Motor turns for one', ''),
      flag(['drive', 'closed_loop'], 'Closed loop', drive.value.closed_loop),
      one(
        ['drive', 'support'],
        'Ends of the screw',
        drive.value.support,
        choices('fixed-free', 'supported', 'fixed-supported', 'fixed-fixed'),
      ),
      figure('unsupported', 'Screw between bearings', 'mm'),
      figure('efficiency', 'Efficiency', '%'),
      figure('inertia', 'Further inertia', 'kg cm²'),
      figure('hand_wheel', 'Hand wheel, radius', 'mm'),
    ],
  },
  {
    title: 'What it works against',
    fields: [
      figure('force', 'Process force', 'N'),
      figure('friction', 'Friction', 'N'),
      figure('incline', 'Incline, 90° lifts', '°'),
      figure('shock', 'Shock on the guides, times', ''),
    ],
  },
  {
    title: 'What guides it',
    fields: [
      one(['rail'], 'Rail', props.axis.rail, needsOf('linear_rail')),
      one(['guides'], 'Bearings it runs on, without a rail', props.axis.guides, needsOf('bearing')),
      one(['drive', 'beam'], 'Beam its rails lie on', drive.value.beam, needsOf('extrusion')),
      figure('lever', 'Height above guides', 'mm'),
      figure('spread', 'Outer blocks apart', 'mm'),
    ],
  },
  {
    title: 'How it finds its place',
    fields: [
      one(['homing', 'by'], 'Homes by', homing.value.by, choices('switch', 'sensorless', 'probe', 'none')),
      flag(['homing', 'both_ends'], 'One sensor for both ends', homing.value.both_ends),
      {
        path: ['homing', 'configured'],
        label: 'Travel in the settings',
        unit: 'mm',
        value: homing.value.configured,
      },
    ],
  },
  {
    title: 'As built',
    fields: [
      figure('end_play', 'Axial play of the screw', 'µm', 'not measured'),
      figure('turning_torque', 'Torque to turn the screw', 'N m', 'not measured'),
      figure('measured_load', 'Load read while it worked', '%', 'not read'),
    ],
  },
])
const bodies = computed(() => drive.value.turning ?? [])
const others = computed(() => (build.value?.needs ?? []).map((need) => ({ value: need.ref, title: need.role })))

const yes = (value: Field['value']) => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : value)
const save = (field: Field) => (text: string) =>
  set(
    `${field.label} of ${props.axis.name}`,
    'axes',
    props.axis.ref,
    field.path,
    field.value ?? null,
    text === '' ? null : field.flag ? text === 'yes' : text,
  )
/** A list of the axis, gone where nothing is left in it. */
const keep = <T,>(what: string, path: [string, string], held: readonly T[] | undefined, now: readonly T[]) =>
  set(`${what} of ${props.axis.name}`, 'axes', props.axis.ref, path, held ?? null, now.length ? now : null).catch(
    notices.problem,
  )
const storeBodies = (now: typeof bodies.value) => keep('What turns', ['drive', 'turning'], drive.value.turning, now)
</script>

<template>
  <section class="needed" :aria-label="`Needed first for ${axis.name}`">
    <h3>
      Needed first<span class="quiet small ml-3" role="status">{{ said }} of {{ waiting.length }} said</span>
    </h3>
    <dl class="facts">
      <dt>Motors</dt>
      <dd>
        <NeedList
          :label="`A motor for ${axis.name}`"
          :of="axis.name"
          :held="drive.motors"
          :options="needsOf('stepper_motor', 'servo_motor')"
          @change="keep('Motors', ['drive', 'motors'], drive.motors, $event)"
        />
      </dd>
      <template v-for="field in needed" :key="field.label"
        ><dt><HelpTerms :text="field.label" /></dt>
        <dd :class="{ waits: field.placeholder === 'needed' && !field.value }">
          <EditCell
            :figure="field.unit !== undefined"
            :label="`${field.label} of ${axis.name}`"
            :value="yes(field.value)"
            :unit="field.unit"
            :options="field.options"
            :placeholder="field.placeholder"
            :save="save(field)"
          /></dd
      ></template>
    </dl>
  </section>
  <p class="quiet small">The rest may stay empty; each of it makes some answer sharper.</p>
  <div class="groups">
    <section v-for="group in groups" :key="group.title">
      <h3>{{ group.title }}</h3>
      <dl class="facts">
        <template v-for="field in group.fields" :key="field.label"
          ><dt><HelpTerms :text="field.label" /></dt>
          <dd>
            <EditCell
              :figure="field.unit !== undefined"
              :label="`${field.label} of ${axis.name}`"
              :value="yes(field.value)"
              :unit="field.unit"
              :options="field.flag ? choices('yes', 'no') : field.options"
              :placeholder="field.placeholder"
              :save="save(field)"
            /></dd
        ></template>
        <template v-if="group.title === 'How it finds its place'"
          ><dt>Switches</dt>
          <dd>
            <NeedList
              :label="`A switch for ${axis.name}`"
              :of="`the homing of ${axis.name}`"
              :held="homing.sensors"
              :options="needsOf('limit_switch', 'sensor', 'probe')"
              @change="keep('Switches', ['homing', 'sensors'], homing.sensors, $event)"
            /></dd
        ></template>
      </dl>
    </section>
    <section>
      <h3>What moves with it</h3>
      <p class="small quiet">
        Its masses are summed where no moving mass is said, and checked against the one that is.
      </p>
      <p>
        <NeedList
          :label="`Something that moves with ${axis.name}`"
          :of="axis.name"
          :held="drive.carries"
          :options="others"
          @change="keep('What moves', ['drive', 'carries'], drive.carries, $event)"
        />
      </p>
    </section>
    <section class="wide">
      <h3>What turns with it</h3>
      <p v-for="(body, i) in bodies" :key="i" class="small">
        {{ body.name }}: {{ body.outer }}<template v-if="body.bore"> outside, {{ body.bore }} bore</template> ×
        {{ body.length }}, {{ body.material }}<template v-if="body.ratio">, {{ body.ratio }} turns for one</template>
        <button
          type="button"
          class="plain quiet"
          :aria-label="`remove ${body.name} from ${axis.name}`"
          @click="storeBodies(bodies.filter((_, at) => at !== i))"
        >
          remove
        </button>
      </p>
      <TurningParts @keep="(segments) => storeBodies([...bodies, ...segments])" />
    </section>
  </div>
</template>

<style scoped>
.groups {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(300px, 100%), 1fr));
  gap: 8px 32px;
}
.wide {
  grid-column: 1 / -1;
}
h3 {
  margin: 12px 0 4px;
}
</style>
