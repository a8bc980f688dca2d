<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { reasonOf, upload } from '@/api/client'
import { today, words } from '@/shared/format'
import { nextRef } from '@/shared/refs'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'

/** A fault in a few seconds: what, how bad, on what, a picture. Cause, fix and cost come later. */
const open = defineModel<boolean>({ required: true })
const props = defineProps<{ step?: string }>()
const { id, document: build } = useBuild()
const { edit } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const panel = usePanel()
const what = ref('')
const severity = ref('defect')
const on = ref<string | null>(null)
const photo = ref<File | File[] | null>(null)
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
])
watch(open, (isOpen) => {
  if (isOpen && on.value === null) {
    on.value = props.step ? `step:${props.step}` : panel.open?.kind === 'part' ? `need:${panel.open.ref}` : null
  }
})

async function store(): Promise<void> {
  busy.value = true
  reason.value = ''
  try {
    const file = Array.isArray(photo.value) ? photo.value[0] : photo.value
    const photos = file
      ? [(await upload<{ name: string }>(`/api/builds/${id.value}/photos`, 'photo', file)).name]
      : undefined
    const [kind, ref] = (on.value ?? '').split(':')
    await edit(`Fault: ${what.value}`, [
      {
        section: 'faults',
        create: {
          ref: nextRef('X', build.value?.faults),
          what: what.value,
          severity: severity.value,
          found: today(),
          ...(kind && ref ? { [kind]: ref } : {}),
          ...(photos ? { photos } : {}),
        },
      },
    ])
    notices.say(
      severity.value === 'danger' ? 'Logged. The machine is not to be powered until it is put right.' : 'Logged.',
    )
    open.value = false
    what.value = ''
    on.value = null
    photo.value = null
    severity.value = 'defect'
  } catch (error) {
    reason.value = reasonOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog v-model="open" max-width="520" aria-label="Log a fault">
    <v-card rounded="sm" class="pa-5">
      <h2 class="mb-3">Log a fault</h2>
      <form @submit.prevent="store()">
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
        <v-autocomplete v-model="on" label="On which part or step" :items="places" clearable class="mb-3" />
        <v-file-input v-model="photo" label="Picture" accept="image/*" capture="environment" class="mb-3" />
        <p v-if="reason" class="danger" role="alert">{{ reason }} What you typed is kept.</p>
        <v-btn type="submit" variant="flat" color="primary" :loading="busy" :disabled="what.trim() === ''"
          >Log it<kbd class="keycap key">Ctrl Enter</kbd></v-btn
        >
        <v-btn @click="open = false">Close without storing</v-btn>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
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
.severities label:focus-within {
  outline: 2px solid var(--live);
}
.severities input {
  position: absolute;
  opacity: 0;
}
.key {
  color: inherit;
  border-color: currentColor;
}
</style>
