<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Zone } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { freeRef, refFrom } from '@/shared/refs'
import { useBuild, useEdit, useEvidence } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'

/** Places with an air of their own: what stands in them, how warm they get, and whether their heat gets out. */
const { document: build, roleOf, needsOf } = useBuild()
const { set, edit, remove } = useEdit()
const { findings } = useFindings()
const notices = useNotices()
const panel = usePanel()
const fresh = ref({ name: '', kind: 'cabinet' })
const reason = ref('')
const kinds = ['cabinet', 'chamber', 'enclosure', 'open']
const zones = computed(() => build.value?.zones ?? [])
const boxes = computed(() => needsOf('cabinet'))
const evidence = useEvidence()
const placed = computed(() => new Set(zones.value.flatMap((zone) => zone.holds ?? [])))
const loose = computed(() => (build.value?.needs ?? []).filter((need) => !placed.value.has(need.ref)))
const heatOf = (zone: string) => findings.value.find((finding) => finding.key === `E23/${zone}`)
const save = (zone: Zone, what: string, path: string) => (text: string, was: unknown) =>
  set(`${what} of ${zone.name}`, 'zones', zone.ref, [path], was, text === '' ? null : text)
const hold = (zone: Zone, holds: string[]) =>
  set(
    `What stands in ${zone.name}`,
    'zones',
    zone.ref,
    ['holds'],
    zone.holds ?? null,
    holds.length ? holds : null,
  ).catch(notices.problem)

async function add(): Promise<void> {
  try {
    await edit(`Place ${fresh.value.name}`, [
      {
        section: 'zones',
        create: {
          ref: freeRef(refFrom(fresh.value.name, 'zone'), (one) => zones.value.some((zone) => zone.ref === one)),
          name: fresh.value.name,
          kind: fresh.value.kind,
        },
      },
    ])
    fresh.value.name = ''
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <section class="mt-7">
    <h2>Cabinets and other places</h2>
    <p v-if="zones.length === 0" class="quiet small">
      None is described. With a cabinet and what stands in it, its heat and the air it needs are worked out.
    </p>
    <table v-else class="ledger">
      <thead>
        <tr>
          <th>Heat</th>
          <th>Place</th>
          <th>Kind</th>
          <th>Box</th>
          <th class="num">Hottest air</th>
          <th>Rests on</th>
          <th>Stands in it</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="zone in zones" :key="zone.ref">
          <td>
            <button
              v-if="heatOf(zone.ref)"
              type="button"
              class="plain"
              :aria-label="`Heat of ${zone.name}`"
              :title="heatOf(zone.ref)!.headline"
              @click="panel.show({ kind: 'working', key: `E23/${zone.ref}` })"
            >
              <VerdictMark :verdict="heatOf(zone.ref)!.verdict" />
            </button>
          </td>
          <td><EditCell label="Place" :value="zone.name" :save="save(zone, 'Name', 'name')" /></td>
          <td>
            <EditCell
              :label="`Kind of ${zone.name}`"
              :value="zone.kind"
              :options="kinds.map((value) => ({ value, title: value }))"
              :save="save(zone, 'Kind', 'kind')"
            />
          </td>
          <td>
            <EditCell
              :label="`Box of ${zone.name}`"
              :value="zone.box"
              :options="boxes"
              placeholder="none"
              :save="save(zone, 'Box', 'box')"
            />
          </td>
          <td class="num">
            <EditCell
              figure
              :label="`Hottest air in ${zone.name}`"
              :value="zone.temperature"
              unit="°C"
              :save="save(zone, 'Temperature', 'temperature')"
            />
          </td>
          <td class="small">
            <EditCell
              :label="`What the air of ${zone.name} rests on`"
              :value="zone.evidence"
              :options="evidence"
              placeholder="assumed"
              :save="save(zone, 'Evidence', 'evidence')"
            />
          </td>
          <td class="small holds">
            <span v-for="need in zone.holds" :key="need" class="held"
              >{{ roleOf(need) }}
              <button
                type="button"
                class="plain quiet"
                :aria-label="`remove ${roleOf(need)} from ${zone.name}`"
                @click="
                  hold(
                    zone,
                    (zone.holds ?? []).filter((one) => one !== need),
                  )
                "
              >
                remove
              </button></span
            >
            <select
              class="field"
              :aria-label="`Put something into ${zone.name}`"
              @change="
                hold(zone, [...(zone.holds ?? []), ($event.target as HTMLSelectElement).value])
                ;($event.target as HTMLSelectElement).value = ''
              "
            >
              <option value="">put in …</option>
              <option v-for="need in loose" :key="need.ref" :value="need.ref">{{ need.role }}</option>
            </select>
          </td>
          <td>
            <button
              type="button"
              class="plain link small"
              :aria-label="`Delete ${zone.name}`"
              @click="remove(`Delete ${zone.name}`, zone.name, 'zones', zone.ref)"
            >
              delete
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="fields" @submit.prevent="add()">
      <input v-model="fresh.name" class="field" aria-label="A further place" placeholder="Control cabinet" /><select
        v-model="fresh.kind"
        class="field"
        aria-label="Kind of place"
      >
        <option v-for="kind in kinds" :key="kind">{{ kind }}</option></select
      ><v-btn type="submit" size="small" :disabled="fresh.name.trim() === ''">Add place</v-btn
      ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
    </form>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 6px;
}
td {
  vertical-align: top;
  padding-top: 5px;
}
.holds {
  max-width: 420px;
}
.held {
  display: inline-block;
  margin-right: 12px;
  white-space: nowrap;
}
.field {
  height: 24px;
  font-size: 13px;
  max-width: 120px;
}
</style>
