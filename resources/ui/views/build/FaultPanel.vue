<script setup lang="ts">
import { computed } from 'vue'
import { reasonOf, upload } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { day, words } from '@/shared/format'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

const props = defineProps<{ faultRef: string }>()
const { id, document: build } = useBuild()
const { set } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const fault = computed(() => build.value?.faults?.find((one) => one.ref === props.faultRef))
const list = (keys: string[] | undefined) => (keys ?? []).map((key) => ({ value: key, title: words(key) }))
const steps = computed(() => (build.value?.steps ?? []).map((step) => ({ value: step.ref, title: step.title })))
const needs = computed(() => (build.value?.needs ?? []).map((need) => ({ value: need.ref, title: need.role })))
const store = (what: string, path: string) => (text: string, was: unknown) =>
  set(`${what} of “${fault.value!.what}”`, 'faults', fault.value!.ref, [path], was, text === '' ? null : text)

async function add(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file === undefined) return
  try {
    const { name } = await upload<{ name: string }>(`/api/builds/${id.value}/photos`, 'photo', file)
    await set('A picture', 'faults', fault.value!.ref, ['photos'], fault.value!.photos ?? null, [
      ...(fault.value!.photos ?? []),
      name,
    ])
  } catch (error) {
    notices.say(reasonOf(error), true)
  } finally {
    input.value = ''
  }
}
</script>

<template>
  <template v-if="fault">
    <h2><EditCell long label="What is wrong" :value="fault.what" :save="store('What', 'what')" /></h2>
    <p class="quiet small">Found {{ day(fault.found) }}</p>
    <dl class="facts">
      <dt>State</dt>
      <dd>
        <EditCell
          label="State"
          :value="fault.state ?? 'open'"
          :options="list(catalogue?.fault_states)"
          :save="store('State', 'state')"
        />
      </dd>
      <dt>How bad</dt>
      <dd>
        <EditCell
          label="How bad"
          :value="fault.severity"
          :options="list(catalogue?.severities)"
          :save="store('Severity', 'severity')"
        />
      </dd>
      <dt>Kind</dt>
      <dd>
        <EditCell
          label="Kind"
          :value="fault.kind"
          :options="list(catalogue?.fault_kinds)"
          :save="store('Kind', 'kind')"
        />
      </dd>
      <dt>Part</dt>
      <dd><EditCell label="Part" :value="fault.need" :options="needs" :save="store('Part', 'need')" /></dd>
      <dt>Step</dt>
      <dd><EditCell label="Step" :value="fault.step" :options="steps" :save="store('Step', 'step')" /></dd>
      <dt>Cost</dt>
      <dd>
        <EditCell figure label="Cost" :value="fault.cost" :save="store('Cost', 'cost')" /><span class="unit">{{
          build?.build.currency
        }}</span>
      </dd>
      <dt>Time lost</dt>
      <dd><EditCell figure label="Time lost" :value="fault.lost" unit="h" :save="store('Time lost', 'lost')" /></dd>
    </dl>
    <h3>Cause</h3>
    <EditCell long label="Cause" :value="fault.cause" placeholder="not known yet" :save="store('Cause', 'cause')" />
    <h3>Fix</h3>
    <EditCell long label="Fix" :value="fault.fix" placeholder="none yet" :save="store('Fix', 'fix')" />
    <h3>Pictures</h3>
    <img
      v-for="photo in fault.photos"
      :key="photo"
      :src="`/api/builds/${id}/photos/${photo}`"
      :alt="`Picture of: ${fault.what}`"
    />
    <label class="link small"
      ><input type="file" accept="image/*" capture="environment" @change="add" />Add a picture</label
    >
  </template>
  <p v-else class="quiet">This fault is not in the build any more.</p>
</template>

<style scoped>
h3 {
  margin: 16px 0 2px;
}
img {
  display: block;
  max-width: 100%;
  margin: 6px 0;
  border-radius: 2px;
}
label input {
  position: absolute;
  opacity: 0;
  width: 1px;
}
label {
  cursor: pointer;
  color: var(--live);
  text-decoration: underline;
}
label:focus-within {
  outline: 2px solid var(--live);
}
</style>
