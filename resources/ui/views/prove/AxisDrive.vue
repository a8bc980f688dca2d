<script setup lang="ts">
import { computed } from 'vue'
import type { Axis } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { useBuild, useEdit, useEvidence } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import TurningParts from './TurningParts.vue'

/** What moves an axis and what is asked of it, edited where it stands. */
const props = defineProps<{ axis: Axis }>()
const { document: build, roleOf, needsOf } = useBuild()
const { set } = useEdit()
const notices = useNotices()
const drive = computed(() => props.axis.drive ?? {})
const homing = computed(() => props.axis.homing ?? {})
const choices = (...all: string[]) => all.map((value) => ({ value, title: value }))
const evidence = useEvidence()
const measures = [
  ['mass', 'Moving mass', 'kg'],
  ['top_speed', 'Top speed', 'mm/s'],
  ['acceleration', 'Acceleration', 'mm/s²'],
  ['force', 'Process force', 'N'],
  ['friction', 'Friction', 'N'],
  ['efficiency', 'Efficiency', '%'],
  ['incline', 'Incline, 90° lifts', '°'],
  ['ratio', 'Motor turns for one', ''],
  ['inertia', 'Further inertia', 'kg cm²'],
  ['unsupported', 'Screw between bearings', 'mm'],
  ['lever', 'Height above guides', 'mm'],
  ['spread', 'Outer blocks apart', 'mm'],
  ['shock', 'Shock on the guides, times', ''],
  ['hand_wheel', 'Hand wheel, radius', 'mm'],
] as const
const measured = [
  ['end_play', 'Axial play of the screw', 'µm'],
  ['turning_torque', 'Torque to turn the screw', 'N m'],
] as const
const bodies = computed(() => drive.value.turning ?? [])
const storeBodies = (now: typeof bodies.value) =>
  set(
    `What turns with ${props.axis.name}`,
    'axes',
    props.axis.ref,
    ['drive', 'turning'],
    drive.value.turning ?? null,
    now.length ? now : null,
  ).catch(notices.problem)
const save = (what: string, path: string[]) => (text: string, was: unknown) =>
  set(`${what} of ${props.axis.name}`, 'axes', props.axis.ref, path, was, text === '' ? null : text)
const saveFlag = (what: string, path: string[]) => (text: string, was: unknown) =>
  set(
    `${what} of ${props.axis.name}`,
    'axes',
    props.axis.ref,
    path,
    was === null ? null : was === 'yes',
    text === '' ? null : text === 'yes',
  )
const yes = (flag: boolean | undefined) => (flag === undefined ? null : flag ? 'yes' : 'no')
const others = computed(() =>
  (build.value?.needs ?? [])
    .filter((need) => !(drive.value.carries ?? []).includes(need.ref))
    .map((need) => ({ value: need.ref, title: need.role })),
)
const list = (what: string, path: [string, string], held: string[] | undefined, now: string[]) =>
  set(`${what} of ${props.axis.name}`, 'axes', props.axis.ref, path, held ?? null, now.length ? now : null).catch(
    notices.problem,
  )
</script>

<template>
  <div class="drive">
    <dl class="facts">
      <dt>Motors</dt>
      <dd>
        <span v-for="motor in drive.motors" :key="motor" class="small held"
          >{{ roleOf(motor) }}
          <button
            type="button"
            class="plain quiet"
            :aria-label="`remove ${roleOf(motor)} from ${axis.name}`"
            @click="
              list(
                'Motors',
                ['drive', 'motors'],
                drive.motors,
                (drive.motors ?? []).filter((one) => one !== motor),
              )
            "
          >
            remove
          </button></span
        >
        <select
          class="field"
          :aria-label="`A motor for ${axis.name}`"
          @change="
            list('Motors', ['drive', 'motors'], drive.motors, [
              ...(drive.motors ?? []),
              ($event.target as HTMLSelectElement).value,
            ])
            ;($event.target as HTMLSelectElement).value = ''
          "
        >
          <option value="">add …</option>
          <option
            v-for="one in needsOf('stepper_motor', 'servo_motor').filter(
              (one) => !(drive.motors ?? []).includes(one.value),
            )"
            :key="one.value"
            :value="one.value"
          >
            {{ one.title }}
          </option>
        </select>
      </dd>
      <dt>Screw or pulley</dt>
      <dd>
        <EditCell
          :label="`Screw or pulley of ${axis.name}`"
          :value="drive.by"
          :options="needsOf('drive_screw', 'pulley')"
          placeholder="none"
          :save="save('Drive', ['drive', 'by'])"
        />
      </dd>
      <dt>Board</dt>
      <dd>
        <EditCell
          :label="`Board of ${axis.name}`"
          :value="drive.board"
          :options="needsOf('controller_board')"
          placeholder="none"
          :save="save('Board', ['drive', 'board'])"
        />
      </dd>
      <dt>Bearings it runs on, without a rail</dt>
      <dd>
        <EditCell
          :label="`Bearings ${axis.name} runs on`"
          :value="axis.guides"
          :options="needsOf('bearing')"
          placeholder="none"
          :save="save('Bearings', ['guides'])"
        />
      </dd>
      <dt>Beam its rails lie on</dt>
      <dd>
        <EditCell
          :label="`Beam of ${axis.name}`"
          :value="drive.beam"
          :options="needsOf('extrusion')"
          placeholder="none"
          :save="save('Beam', ['drive', 'beam'])"
        />
      </dd>
      <dt>Ends of the screw</dt>
      <dd>
        <EditCell
          :label="`Ends of the screw of ${axis.name}`"
          :value="drive.support"
          :options="choices('fixed-free', 'supported', 'fixed-supported', 'fixed-fixed')"
          :save="save('Ends of the screw', ['drive', 'support'])"
        />
      </dd>
      <dt>Closed loop</dt>
      <dd>
        <EditCell
          :label="`Closed loop of ${axis.name}`"
          :value="yes(drive.closed_loop)"
          :options="choices('yes', 'no')"
          :save="saveFlag('Closed loop', ['drive', 'closed_loop'])"
        />
      </dd>
      <dt>Homes by</dt>
      <dd>
        <EditCell
          :label="`Homing of ${axis.name}`"
          :value="homing.by"
          :options="choices('switch', 'sensorless', 'probe', 'none')"
          :save="save('Homing', ['homing', 'by'])"
        />
      </dd>
      <dt>Switches</dt>
      <dd>
        <span v-for="sensor in homing.sensors" :key="sensor" class="small held"
          >{{ roleOf(sensor) }}
          <button
            type="button"
            class="plain quiet"
            :aria-label="`remove ${roleOf(sensor)} from the homing of ${axis.name}`"
            @click="
              list(
                'Switches',
                ['homing', 'sensors'],
                homing.sensors,
                (homing.sensors ?? []).filter((one) => one !== sensor),
              )
            "
          >
            remove
          </button></span
        >
        <select
          class="field"
          :aria-label="`A switch for ${axis.name}`"
          @change="
            list('Switches', ['homing', 'sensors'], homing.sensors, [
              ...(homing.sensors ?? []),
              ($event.target as HTMLSelectElement).value,
            ])
            ;($event.target as HTMLSelectElement).value = ''
          "
        >
          <option value="">add …</option>
          <option
            v-for="one in needsOf('limit_switch', 'sensor', 'probe').filter(
              (one) => !(homing.sensors ?? []).includes(one.value),
            )"
            :key="one.value"
            :value="one.value"
          >
            {{ one.title }}
          </option>
        </select>
      </dd>
      <dt>One sensor for both ends</dt>
      <dd>
        <EditCell
          :label="`One sensor for both ends of ${axis.name}`"
          :value="yes(homing.both_ends)"
          :options="choices('yes', 'no')"
          :save="saveFlag('One sensor for both ends', ['homing', 'both_ends'])"
        />
      </dd>
      <dt>Travel in the settings</dt>
      <dd>
        <EditCell
          figure
          :label="`Travel of ${axis.name} in the settings`"
          :value="homing.configured"
          unit="mm"
          :save="save('Travel in the settings', ['homing', 'configured'])"
        />
      </dd>
    </dl>
    <dl class="facts">
      <template v-for="[key, label, unit] in measures" :key="key"
        ><dt>{{ label }}</dt>
        <dd>
          <EditCell
            figure
            :label="`${label} of ${axis.name}`"
            :value="drive[key]"
            :unit="unit"
            :save="save(label, ['drive', key])"
          /></dd
      ></template>
      <dt>These rest on</dt>
      <dd>
        <EditCell
          :label="`What the figures of ${axis.name} rest on`"
          :value="drive.evidence"
          :options="evidence"
          placeholder="assumed"
          :save="save('Evidence', ['drive', 'evidence'])"
        />
      </dd>
      <template v-for="[key, label, unit] in measured" :key="key"
        ><dt>{{ label }}, as built</dt>
        <dd>
          <EditCell
            figure
            :label="`${label} of ${axis.name}, as built`"
            :value="drive[key]"
            :unit="unit"
            placeholder="not measured"
            :save="save(label, ['drive', key])"
          /></dd
      ></template>
      <dt>Load read while it worked</dt>
      <dd>
        <EditCell
          figure
          :label="`Load read on ${axis.name}`"
          :value="drive.measured_load"
          unit="%"
          placeholder="not read"
          :save="save('Load read', ['drive', 'measured_load'])"
        />
      </dd>
    </dl>
    <div class="wide">
      <h3>What moves with it</h3>
      <p class="small quiet">
        Its masses are summed where no moving mass is said, and checked against the one that is.
      </p>
      <p>
        <span v-for="need in drive.carries" :key="need" class="small chip"
          >{{ roleOf(need) }}
          <button
            type="button"
            class="plain quiet"
            :aria-label="`remove ${roleOf(need)} from ${axis.name}`"
            @click="
              list(
                'What moves',
                ['drive', 'carries'],
                drive.carries,
                (drive.carries ?? []).filter((one) => one !== need),
              )
            "
          >
            remove
          </button></span
        >
        <select
          class="field"
          :aria-label="`Something that moves with ${axis.name}`"
          @change="
            list('What moves', ['drive', 'carries'], drive.carries, [
              ...(drive.carries ?? []),
              ($event.target as HTMLSelectElement).value,
            ])
            ;($event.target as HTMLSelectElement).value = ''
          "
        >
          <option value="">add …</option>
          <option v-for="one in others" :key="one.value" :value="one.value">{{ one.title }}</option>
        </select>
      </p>
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
    </div>
  </div>
</template>

<style scoped>
.drive {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 32px;
}
.held {
  display: block;
}
.chip {
  margin-right: 12px;
  white-space: nowrap;
}
.wide {
  grid-column: 1 / -1;
}
.field {
  height: 24px;
  font-size: 13px;
  max-width: 130px;
}
@media (max-width: 900px) {
  .drive {
    grid-template-columns: 1fr;
  }
}
</style>
