<script setup lang="ts">
import { computed } from 'vue'
import EditCell from '@/shared/EditCell.vue'
import FindingList from '@/shared/FindingList.vue'
import { itemsOf } from '@/shared/lists'
import { useBuild, useCatalogue, useEdit, useEvidence } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { usePanel } from '@/shared/usePanel'

/** A joint's screws and what they pass through, for the check of their length. */
const props = defineProps<{ mateRef: string }>()
const { document: build, roleOf, needsOf } = useBuild()
const { set, remove } = useEdit()
const { findings } = useFindings()
const panel = usePanel()
const own = computed(() =>
  findings.value.filter(
    (finding) => finding.subject.kind === 'mate' && finding.subject.ref.split('/')[0] === props.mateRef,
  ),
)
const { data: catalogue } = useCatalogue()
const mate = computed(() => build.value?.mates?.find((one) => one.ref === props.mateRef))
const screws = computed(() => needsOf('screw'))
const into = computed(() =>
  (catalogue.value?.screw_into ?? []).map((one) => ({ value: one, title: one.replace('_', ' ') })),
)
const materials = ['steel', 'brass', 'cast', 'aluminium', 'plastic'].map((one) => ({ value: one, title: one }))
const evidence = useEvidence()
const label = (what: string) => `${what} of joint ${props.mateRef}`
const store = (at: number, what: string, key: string) => (text: string, was: unknown) =>
  set(
    label(what),
    'mates',
    props.mateRef,
    ['screws', at, key],
    was,
    text === '' ? null : key === 'count' && /^\d+$/.test(text) ? Number(text) : text,
  )
const storeLayers = (at: number, what: string, key: 'clamped' | 'washers') => (text: string) =>
  set(
    label(what),
    'mates',
    props.mateRef,
    ['screws', at, key],
    mate.value?.screws?.[at]?.[key] ?? null,
    text.trim() === ''
      ? null
      : itemsOf(text.replaceAll('+', ';')).map((one) => (/^[\d.,\s]+$/.test(one) ? `${one} mm` : one)),
  )

async function drop(): Promise<void> {
  if (await remove(`Delete joint ${props.mateRef}`, 'The joint', 'mates', props.mateRef)) panel.close()
}
</script>

<template>
  <template v-if="mate">
    <h2>{{ mate.kind }}</h2>
    <p>{{ roleOf(mate.between[0] ?? '') }} to {{ roleOf(mate.between[1] ?? '') }}</p>
    <template v-for="(stack, at) in mate.screws" :key="at">
      <h3>Screws</h3>
      <dl class="facts">
        <dt>Screw</dt>
        <dd><EditCell label="Screw" :value="stack.screw" :options="screws" :save="store(at, 'Screw', 'screw')" /></dd>
        <dt>Count</dt>
        <dd><EditCell figure label="Count" :value="stack.count" :save="store(at, 'Count', 'count')" /></dd>
        <dt>Clamped, with commas</dt>
        <dd>
          <EditCell
            label="Clamped"
            :value="(stack.clamped ?? []).join(' + ')"
            :save="storeLayers(at, 'Clamped', 'clamped')"
          />
        </dd>
        <dt>Washers, with commas</dt>
        <dd>
          <EditCell
            label="Washers"
            :value="(stack.washers ?? []).join(' + ')"
            :save="storeLayers(at, 'Washers', 'washers')"
          />
        </dd>
        <dt>Goes into</dt>
        <dd><EditCell label="Goes into" :value="stack.into" :options="into" :save="store(at, 'Into', 'into')" /></dd>
        <dt>Material of the thread</dt>
        <dd>
          <EditCell
            label="Material of the thread"
            :value="stack.material"
            :options="materials"
            :save="store(at, 'Material', 'material')"
          />
        </dd>
        <dt>Usable thread depth</dt>
        <dd>
          <EditCell
            figure
            label="Usable thread depth"
            :value="stack.depth"
            unit="mm"
            :save="store(at, 'Depth', 'depth')"
          />
        </dd>
        <dt>Room behind a nut</dt>
        <dd>
          <EditCell figure label="Room behind a nut" :value="stack.room" unit="mm" :save="store(at, 'Room', 'room')" />
        </dd>
        <dt>These rest on</dt>
        <dd>
          <EditCell
            label="These rest on"
            :value="stack.evidence"
            :options="evidence"
            :save="store(at, 'Evidence', 'evidence')"
          />
        </dd>
      </dl>
    </template>
    <FindingList :findings="own" none="Nothing yet: describe its screws." />
    <p class="mt-5"><button type="button" class="plain link small" @click="drop()">Delete this joint</button></p>
  </template>
  <p v-else class="quiet">This joint is not in the build any more.</p>
</template>

<style scoped>
h3 {
  margin: 14px 0 2px;
}
</style>
