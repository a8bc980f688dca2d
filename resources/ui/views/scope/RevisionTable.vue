<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { today } from '@/shared/format'
import { nextRef } from '@/shared/refs'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'

/** Dated states of the machine, its kit, its parts and its documents, and what each changes. */
const { document: build } = useBuild()
const { set, edit } = useEdit()
const { data: catalogue } = useCatalogue()
const fresh = ref({ of: 'document', name: '', revision: '' })
const reason = ref('')
const revisions = computed(() => [...(build.value?.revisions ?? [])].sort((a, b) => b.date.localeCompare(a.date)))
const list = (keys: readonly string[] | undefined) => (keys ?? []).map((key) => ({ value: key, title: key }))
const parts = computed(() => (build.value?.parts ?? []).map((part) => ({ value: part.ref, title: part.name })))
const save =
  (ref: string, path: string, flag = false) =>
  (text: string, was: unknown) =>
    set(
      'Revision',
      'revisions',
      ref,
      [path],
      was === 'yes' ? true : was === 'no' ? null : was,
      text === '' ? null : flag ? (text === 'yes' ? true : null) : text,
    )

async function add(): Promise<void> {
  try {
    await edit(`Revision ${fresh.value.revision} of ${fresh.value.name}`, [
      { section: 'revisions', create: { ref: nextRef('R', build.value?.revisions), ...fresh.value, date: today() } },
    ])
    fresh.value = { of: 'document', name: '', revision: '' }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <h2>Revisions</h2>
  <table v-if="revisions.length" class="ledger">
    <thead>
      <tr>
        <th>Of</th>
        <th>What</th>
        <th>Revision</th>
        <th>Date</th>
        <th>State</th>
        <th>Part</th>
        <th>Governs</th>
        <th>What it changes</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in revisions" :key="one.ref">
        <td class="quiet">{{ one.of }}</td>
        <td><EditCell label="What has the revision" :value="one.name" :save="save(one.ref, 'name')" /></td>
        <td class="figure"><EditCell label="Revision" :value="one.revision" :save="save(one.ref, 'revision')" /></td>
        <td class="figure">
          <EditCell label="Date of the revision" :value="one.date" :save="save(one.ref, 'date')" />
        </td>
        <td>
          <EditCell
            label="State of the revision"
            :value="one.state"
            :otherwise="'in hand'"
            :options="list(catalogue?.revision_states)"
            :save="save(one.ref, 'state')"
          />
        </td>
        <td class="small">
          <EditCell label="Part of the revision" :value="one.part" :options="parts" :save="save(one.ref, 'part')" />
        </td>
        <td>
          <EditCell
            label="Governs where documents disagree"
            :value="one.governs ? 'yes' : 'no'"
            :options="list(['yes', 'no'])"
            :save="save(one.ref, 'governs', true)"
          />
        </td>
        <td class="small">
          <EditCell
            long
            label="What the revision changes"
            :value="one.effect"
            placeholder="not said"
            :save="save(one.ref, 'effect')"
          />
        </td>
      </tr>
    </tbody>
  </table>
  <form class="fields" @submit.prevent="add()">
    <select v-model="fresh.of" class="field" aria-label="Revision of">
      <option v-for="of in catalogue?.revision_of" :key="of">{{ of }}</option></select
    ><input v-model="fresh.name" class="field" aria-label="What has a revision" placeholder="Assembly manual" /><input
      v-model="fresh.revision"
      class="field"
      aria-label="Its revision"
      placeholder="1.4"
      size="6"
    /><v-btn type="submit" size="small" :disabled="fresh.name === '' || fresh.revision === ''">Add it</v-btn
    ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
  </form>
</template>

<style scoped>
h2 {
  margin: 24px 0 4px;
}
</style>
