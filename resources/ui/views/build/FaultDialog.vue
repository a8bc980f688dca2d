<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { reasonOf } from '@/api/client'
import { useWaiting } from '@/offline/useWaiting'
import { today, words } from '@/shared/format'
import { shrunk } from '@/shared/pictures'
import { freshRef } from '@/shared/refs'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import PictureMarks from './PictureMarks.vue'

/**
 * A fault in a few seconds, with or without a network: what, how bad, on what, a picture with the spot marked. What is at hand is
 * offered: the part, lead and step one has before oneself. Cause, fix and cost come later.
 */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ step?: string }>()
const { document: build, roleOf } = useBuild()
const { edit } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const panel = usePanel()
const route = useRoute()
const waiting = useWaiting()
const what = ref('')
const severity = ref('defect')
const on = ref<string | null>(null)
const pictures = ref<{ name: string; blob: Blob; src: string; spots: { x: number; y: number }[] }[]>([])
const reason = ref('')
const busy = ref(false)
const says: Record<string, string> = {
  danger: 'can hurt someone or start a fire',
  stops_work: 'the build cannot go on',
  defect: 'works, but not as it should',
  blemish: 'looks only',
}

const places = computed(() => [
  ...(build.value?.steps ?? []).map((step) => ({ value: `step:${step.ref}`, title: `step: ${step.title}` })),
  ...(build.value?.needs ?? []).map((need) => ({ value: `need:${need.ref}`, title: need.role })),
  ...(build.value?.leads ?? []).map((lead) => ({
    value: `lead:${lead.ref}`,
    title: `lead ${lead.ref}: ${roleOf(lead.from.split('.')[0]!)} to ${roleOf(lead.to.split('.')[0]!)}`,
  })),
])
/** The step one is at, by what opened this or by the address. */
const stepRef = computed(() => props.step ?? (typeof route.params.step === 'string' ? route.params.step : undefined))
/** What is before one: the open panel, the step of the address, and what goes in or is joined at that step. */
const atHand = computed(() => {
  const shown = panel.open
  const step = build.value?.steps?.find((one) => one.ref === stepRef.value)
  const values = [
    ...(shown?.kind === 'part' ? [`need:${shown.ref}`] : []),
    ...(shown?.kind === 'lead' ? [`lead:${shown.ref}`] : []),
    ...(shown?.kind === 'step' ? [`step:${shown.ref}`] : []),
    ...(step ? [`step:${step.ref}`] : []),
    ...(step?.derived?.startsWith('lead/') ? [`lead:${step.derived.slice(5)}`] : []),
    ...Object.keys(step?.uses ?? {}).map((need) => `need:${need}`),
  ]

  return [...new Set(values)]
    .map((value) => places.value.find((place) => place.value === value))
    .filter((place) => place !== undefined)
    .slice(0, 5)
})
watch(open, (isOpen) => {
  if (isOpen && on.value === null) on.value = atHand.value[0]?.value ?? null
})

async function add(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  try {
    for (const file of input.files ?? []) {
      const picture = await shrunk(file)
      pictures.value.push({ ...picture, src: URL.createObjectURL(picture.blob), spots: [] })
    }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  } finally {
    input.value = ''
  }
}

async function store(): Promise<void> {
  busy.value = true
  reason.value = ''
  try {
    const [kind, ref] = (on.value ?? '').split(':')
    // A fault on a part or lead at a step says the step too.
    const at = stepRef.value
    const marks = pictures.value.flatMap((one) => one.spots.map((spot) => ({ photo: one.name, ...spot })))
    await edit(
      `Fault: ${what.value}`,
      [
        {
          section: 'faults',
          create: {
            ref: freshRef('X', build.value?.faults, waiting.cut),
            what: what.value,
            severity: severity.value,
            found: today(),
            ...(at && build.value?.steps?.some((step) => step.ref === at) ? { step: at } : {}),
            ...(kind && ref ? { [kind]: ref } : {}),
            ...(pictures.value.length ? { photos: pictures.value.map((one) => one.name) } : {}),
            ...(marks.length ? { marks } : {}),
          },
        },
      ],
      pictures.value.map(({ name, blob }) => ({ name, blob })),
    )
    notices.say(
      severity.value === 'danger' ? 'Logged. The machine is not to be powered until it is put right.' : 'Logged.',
    )
    open.value = false
    what.value = ''
    on.value = null
    pictures.value.forEach((one) => URL.revokeObjectURL(one.src))
    pictures.value = []
    severity.value = 'defect'
  } catch (error) {
    reason.value = reasonOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog v-model="open" max-width="520" scrollable aria-label="Log a fault">
    <v-card rounded="sm" class="pa-5">
      <h2 class="mb-3">Log a fault</h2>
      <form class="form" @submit.prevent="store()">
        <v-textarea
          v-model="what"
          label="What is wrong"
          rows="2"
          auto-grow
          autofocus
          class="mb-3"
          @keydown.ctrl.enter.prevent="what.trim() && store()"
        />
        <fieldset class="severities">
          <legend class="small quiet">How bad</legend>
          <label
            v-for="one in catalogue?.severities"
            :key="one"
            :class="{ on: severity === one, danger: one === 'danger' }"
            ><input v-model="severity" type="radio" name="severity" :value="one" /><strong>{{ words(one) }}</strong
            ><span class="small quiet">{{ says[one] }}</span></label
          >
        </fieldset>
        <div v-if="atHand.length" class="hand" role="group" aria-label="On what is at hand">
          <button
            v-for="place in atHand"
            :key="place.value"
            type="button"
            class="plain"
            :aria-pressed="on === place.value"
            @click="on = on === place.value ? null : place.value"
          >
            {{ place.title }}
          </button>
        </div>
        <v-autocomplete
          v-model="on"
          label="On which part, lead or step"
          :items="places"
          clearable
          hide-details
          class="mb-3"
        />
        <template v-for="picture in pictures" :key="picture.name">
          <PictureMarks
            :src="picture.src"
            alt="The picture to be logged"
            :spots="picture.spots"
            @change="(spots) => (picture.spots = spots)"
          />
          <p class="quiet small">
            Touch the spot.
            <button
              type="button"
              class="plain link"
              @click="pictures = pictures.filter((one) => one.name !== picture.name)"
            >
              Leave this picture out
            </button>
          </p>
        </template>
        <label class="picture"
          ><input type="file" accept="image/*" capture="environment" multiple @change="add" />Add a picture</label
        >
        <p v-if="reason" class="danger" role="alert">{{ reason }} What you typed is kept.</p>
        <p>
          <v-btn type="submit" variant="flat" color="primary" :loading="busy" :disabled="what.trim() === ''"
            >Log it<kbd class="keycap key">Ctrl Enter</kbd></v-btn
          >
          <v-btn @click="open = false">Close without storing</v-btn>
        </p>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  padding-top: 8px;
  overflow: auto;
}
.form .v-btn {
  min-height: 44px;
}
.severities {
  border: 0;
  padding: 0;
  margin: 0 0 14px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.severities label {
  display: grid;
  min-height: 44px;
  padding: 4px 10px;
  border: 1px solid var(--rule);
  border-radius: 2px;
  cursor: pointer;
}
.severities label.on {
  border-color: currentColor;
  box-shadow: inset 0 -3px 0 currentColor;
}
.severities label:focus-within,
.picture:focus-within {
  outline: 2px solid var(--live);
}
.severities input,
.picture input {
  position: absolute;
  width: 1px;
  opacity: 0;
}
.hand {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 8px;
}
.hand button {
  min-height: 44px;
  padding: 4px 12px;
  text-align: left;
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.hand button[aria-pressed='true'] {
  border-color: var(--live);
  box-shadow: inset 0 -3px 0 var(--live);
}
.picture {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  color: var(--live);
  text-decoration: underline;
  cursor: pointer;
}
.key {
  color: inherit;
  border-color: currentColor;
}
</style>
