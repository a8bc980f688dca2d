<script setup lang="ts">
import { computed, ref } from 'vue'
import { Problem, reasonOf } from '@/api/client'
import { inUnit, today, whole } from '@/shared/format'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'

/** What came off a printer: good pieces, failed ones, what one of them weighs and how long the run took. */
const props = defineProps<{ part: string | null; printer: string | null; pieces: number; fit: boolean }>()
const emit = defineEmits<{ done: [] }>()
const { document: build, parts } = useBuild()
const { edit } = useEdit()
const printed = computed(() =>
  [...parts.value.values()]
    .filter((one) => one.family === 'printed_part')
    .map((one) => ({ value: one.ref, title: one.name })),
)
const printers = computed(() => (build.value?.printers ?? []).map((one) => ({ value: one.ref, title: one.name })))
const form = ref({
  part: props.part ?? printed.value[0]?.value ?? '',
  printer: props.printer ?? printers.value[0]?.value ?? null,
  good: String(props.pieces),
  failed: '0',
  mass: '',
  time: '',
  fit: props.fit,
  notes: '',
})
const reasons = ref<Record<string, string | undefined>>({})

async function store(): Promise<void> {
  const { part, printer, good, failed, mass, time, fit, notes } = form.value
  try {
    await edit(`Printed: ${parts.value.get(part)?.name ?? part}`, [
      {
        section: 'prints',
        create: {
          ref: nextRef('R', build.value?.prints),
          part,
          ...(printer ? { printer } : {}),
          date: today(),
          good: whole(good),
          failed: whole(failed),
          ...(mass ? { mass: inUnit(mass, 'g') } : {}),
          ...(time ? { time: inUnit(time, 'h') } : {}),
          ...(fit ? { fit: true } : {}),
          ...(notes ? { notes } : {}),
        },
      },
    ])
    emit('done')
  } catch (error) {
    const at = error instanceof Problem ? error.body.errors?.[0]?.pointer.split('/').at(-1) : undefined
    reasons.value = { [at !== undefined && at in form.value ? at : 'all']: reasonOf(error) }
  }
}
</script>

<template>
  <v-card rounded="sm" class="pa-5">
    <h2 class="mb-3">What came off the printer</h2>
    <form @submit.prevent="store()">
      <v-select v-model="form.part" label="Part" :items="printed" :error-messages="reasons.part" class="mb-3" />
      <v-select
        v-model="form.printer"
        label="Printer"
        :items="printers"
        clearable
        :error-messages="reasons.printer"
        class="mb-3"
      />
      <div class="pair">
        <v-text-field v-model="form.good" label="Good pieces" inputmode="numeric" :error-messages="reasons.good" />
        <v-text-field v-model="form.failed" label="Failed" inputmode="numeric" :error-messages="reasons.failed" />
        <v-text-field v-model="form.mass" label="One of them weighs" suffix="g" :error-messages="reasons.mass" />
        <v-text-field v-model="form.time" label="The run took" suffix="h" :error-messages="reasons.time" />
      </div>
      <v-checkbox v-model="form.fit" label="It is a fit piece, not one to build with" density="compact" hide-details />
      <v-text-field v-model="form.notes" label="Notes" :error-messages="reasons.notes" class="mt-3" />
      <p v-if="reasons.all" class="danger" role="alert">{{ reasons.all }}</p>
      <v-btn type="submit" variant="flat" color="primary" class="mt-3">Store</v-btn>
      <v-btn class="mt-3" @click="emit('done')">Close without storing</v-btn>
    </form>
  </v-card>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
