<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type SettingLine } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import EditCell from '@/shared/EditCell.vue'
import { nextRef } from '@/shared/refs'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

/**
 * What the fitted parts ask of settings and links, held against what was read from the machine; and what is temporary.
 */
const { document: build } = useBuild()
const { data: lines, isError, error } = useDerived<SettingLine[]>('settings', () => 'settings')
const { edit, set } = useEdit()
const notices = useNotices()
const only = ref<'all' | 'open' | 'differs'>('all')
const fresh = ref({ about: '', until: '' })
const reason = ref('')
const titles = {
  setting: 'Settings to read back',
  link: 'Jumper sheet',
  unknown: 'Noted, and asked for by nothing',
  temporary: 'Temporary, and to be undone',
} as const
const about = {
  setting: 'Read each from the machine before the first home; shipped files most of all.',
  link: 'With power off. Take a picture before the cover goes on.',
  unknown: 'A slip of the pen, or of a part that is gone. It is kept until it is taken out, and judged by nothing.',
  temporary: 'Each stays open until it is undone.',
} as const
const kinds = ['setting', 'link', 'unknown', 'temporary'] as const
const shown = computed(() =>
  (lines.value ?? []).filter(
    (line) =>
      only.value === 'all' ||
      (only.value === 'differs'
        ? ['differs', 'near'].includes(line.state)
        : !['agrees', 'differs', 'near'].includes(line.state) || (line.kind === 'temporary' && !line.done)),
  ),
)
const count = (state: string) => (lines.value ?? []).filter((line) => line.state === state).length
const marks = {
  agrees: 'holds',
  differs: 'danger',
  near: 'tight',
  'to be set': 'unproven',
  'set, not read back': 'unproven',
  'not read': 'unproven',
} as const

/** The note of a line is made with its first word, and changed after that. */
const note = (line: SettingLine, member: 'value' | 'made') => (text: string, was: unknown) => {
  const what = `${line.label} ${member === 'made' ? 'set' : 'read'}`

  return line.setting === null
    ? edit(what, [
        {
          section: 'settings',
          create: { ref: nextRef('S-', build.value?.settings), kind: line.kind, about: line.key, [member]: text },
        },
      ])
    : set(what, 'settings', line.setting, [member], was, text === '' ? null : text)
}
function tick(line: SettingLine, done: boolean): void {
  const work =
    line.setting === null
      ? edit(`${line.label} ticked`, [
          {
            section: 'settings',
            create: { ref: nextRef('S-', build.value?.settings), kind: line.kind, about: line.key, done },
          },
        ])
      : set(`${line.label} ticked`, 'settings', line.setting, ['done'], line.done ? true : null, done ? true : null)
  work.catch(notices.problem)
}
function takeOut(line: SettingLine): void {
  if (line.setting === null) return
  edit(`${line.label} taken out`, [{ section: 'settings', ref: line.setting, delete: true }]).catch(notices.problem)
}
async function add(): Promise<void> {
  try {
    await edit(`Temporary: ${fresh.value.about}`, [
      {
        section: 'settings',
        create: {
          ref: nextRef('S-', build.value?.settings),
          kind: 'temporary',
          about: fresh.value.about,
          until: fresh.value.until,
        },
      },
    ])
    fresh.value = { about: '', until: '' }
    reason.value = ''
  } catch (problem) {
    reason.value = reasonOf(problem)
  }
}
const printed = () => window.print()
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Settings</h1>
      <span v-if="lines" class="quiet"
        >{{ count('agrees') }} agree, {{ count('differs') }} differ, {{ count('not read') }} not read yet</span
      >
      <span class="push noprint"
        ><span class="choices" role="group" aria-label="Which lines"
          ><button
            v-for="one in ['all', 'open', 'differs'] as const"
            :key="one"
            type="button"
            class="plain"
            :aria-pressed="only === one"
            @click="only = one"
          >
            {{ one }}
          </button></span
        >
        <v-btn @click="printed()">Print</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="lines && lines.length === 0" class="empty">
      Nothing to set yet. Drivers, heaters, sensors and axes each bring their lines; add parts, and give each axis its
      motors.
      <FirstAction path="choose/parts?add">Add a part</FirstAction>
    </p>
    <template v-for="kind in kinds" :key="kind">
      <section v-if="kind === 'temporary' || shown.some((line) => line.kind === kind)">
        <h2>{{ titles[kind] }}</h2>
        <p class="quiet small">{{ about[kind] }}</p>
        <table v-if="shown.some((line) => line.kind === kind)" class="ledger">
          <thead>
            <tr>
              <th class="tickoff">Done</th>
              <th>{{ kind === 'temporary' ? 'State' : 'What' }}</th>
              <th>{{ kind === 'temporary' ? 'Gone by' : 'Should be' }}</th>
              <th v-if="kind !== 'temporary'" class="value">Set to</th>
              <th v-if="kind !== 'temporary'" class="value">Read back</th>
              <th class="state">State</th>
              <th v-if="kind !== 'temporary'" class="wide-only">Follows from</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in shown.filter((one) => one.kind === kind)" :key="line.key">
              <td class="tickoff">
                <button v-if="kind === 'unknown'" type="button" class="plain" @click="takeOut(line)">Remove</button>
                <input
                  v-else
                  type="checkbox"
                  :checked="line.done"
                  :aria-label="`${line.label}: done`"
                  @change="tick(line, ($event.target as HTMLInputElement).checked)"
                />
              </td>
              <td>{{ line.label }}</td>
              <td class="figure">
                {{
                  kind === 'temporary'
                    ? line.until
                    : `${line.sense === 'at most' ? 'at most ' : ''}${[line.wants ?? 'not known', ...line.or].join(' or ')}`
                }}
              </td>
              <td v-if="kind !== 'temporary'">
                <EditCell
                  :label="`${line.label} was set to`"
                  :value="line.made"
                  :placeholder="line.planned ? `to be set to ${line.planned}` : 'not set'"
                  :save="note(line, 'made')"
                />
              </td>
              <td v-if="kind !== 'temporary'">
                <EditCell
                  :label="`${line.label} is`"
                  :value="line.value"
                  placeholder="not read"
                  :save="note(line, 'value')"
                />
              </td>
              <td :class="kind === 'temporary' ? (line.done ? 'holds' : 'tight') : marks[line.state]">
                {{ kind === 'temporary' ? (line.done ? 'undone' : 'still there') : line.state }}
              </td>
              <td v-if="kind !== 'temporary'" class="quiet small wide-only">{{ line.why }}</td>
            </tr>
          </tbody>
        </table>
        <form v-if="kind === 'temporary'" class="fields noprint" @submit.prevent="add()">
          <input
            v-model="fresh.about"
            class="field"
            size="34"
            aria-label="A temporary state"
            placeholder="USB power link, for flashing"
          /><input
            v-model="fresh.until"
            class="field"
            size="24"
            aria-label="Gone by"
            placeholder="before main power"
          /><v-btn type="submit" size="small" :disabled="fresh.about.trim() === ''">Add it</v-btn
          ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
        </form>
      </section>
    </template>
    <p class="quiet small mt-4">
      Runaway protection is tested, not believed: pull a sensor, then a heater, with power off whenever a plug is
      touched. A start word and a speed word are both needed before a spindle or torch relay closes.
    </p>
  </div>
</template>

<style scoped>
h2 {
  margin: 18px 0 0;
}
.tickoff {
  width: 48px;
}
.value {
  min-width: 100px;
}
.state {
  min-width: 84px;
}
input[type='checkbox'] {
  width: 18px;
  height: 18px;
}
@media (max-width: 700px) {
  table.ledger td,
  table.ledger th {
    padding: 8px 4px;
    white-space: normal;
  }
  .figure {
    white-space: normal;
  }
  .value,
  .state {
    min-width: 0;
  }
}
@media print {
  .noprint {
    display: none;
  }
}
</style>
