<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Printer } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { inUnit } from '@/shared/format'
import { freeRef, refFrom, toggled } from '@/shared/refs'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

/** Printers of the workshop: how much they hold, what they print, how quick they are, and how long a day they may run. */
const { document: build } = useBuild()
const { set, edit, remove } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const name = ref('')
const reason = ref('')
const printers = computed(() => build.value?.printers ?? [])
const plastics = computed(
  () =>
    catalogue.value?.families
      .find((one) => one.key === 'printed_part')
      ?.fields.find((field) => field.key === 'material')?.choices ?? [],
)
const sizes = [
  { path: 'length', head: 'Length', unit: 'mm' },
  { path: 'width', head: 'Width', unit: 'mm' },
  { path: 'height', head: 'Height', unit: 'mm' },
  { path: 'flow', head: 'Flow', unit: 'mm³/s' },
  { path: 'daily', head: 'A day', unit: 'h' },
] as const
const save = (printer: Printer, what: string, path: string, unit?: string) => (text: string, was: unknown) =>
  set(
    `${what} of ${printer.name}`,
    'printers',
    printer.ref,
    [path],
    was,
    text === '' ? null : unit === undefined ? text : inUnit(text, unit),
  )
function print(printer: Printer, plastic: string): void {
  set(
    `What ${printer.name} prints`,
    'printers',
    printer.ref,
    ['plastics'],
    printer.plastics ?? null,
    toggled<string>(printer.plastics, plastic),
  ).catch(notices.problem)
}
const finished = (printer: Printer) => (text: string) =>
  set(
    `${printer.name} prints ${text === 'yes' ? 'once this machine runs' : 'now'}`,
    'printers',
    printer.ref,
    ['finished'],
    printer.finished ?? null,
    text === 'yes' ? true : null,
  )
async function add(): Promise<void> {
  try {
    await edit(`Printer ${name.value}`, [
      {
        section: 'printers',
        create: {
          ref: freeRef(refFrom(name.value, 'printer'), (one) => printers.value.some((printer) => printer.ref === one)),
          name: name.value,
        },
      },
    ])
    name.value = ''
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <section aria-label="Printers">
    <h2>Printers</h2>
    <table v-if="printers.length" class="ledger stack" tabindex="0">
      <thead>
        <tr>
          <th>Printer</th>
          <th v-for="size in sizes" :key="size.path" class="num">{{ size.head }}</th>
          <th>Prints</th>
          <th>Is this machine</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="printer in printers" :key="printer.ref">
          <td><EditCell label="Printer" :value="printer.name" :save="save(printer, 'Name', 'name')" /></td>
          <td v-for="size in sizes" :key="size.path" class="num" :data-of="size.head">
            <EditCell
              figure
              :label="`${size.head} of ${printer.name}`"
              :value="printer[size.path]"
              :unit="size.unit"
              placeholder="not said"
              :save="save(printer, size.head, size.path, size.unit)"
            />
          </td>
          <td class="small">
            <label v-for="plastic in plastics" :key="plastic" class="plastic"
              ><input
                type="checkbox"
                :checked="printer.plastics?.includes(plastic as never)"
                :aria-label="`${printer.name} prints ${plastic}`"
                @change="print(printer, plastic)"
              />{{ plastic }}</label
            >
          </td>
          <td class="small">
            <EditCell
              :label="`${printer.name} is this machine`"
              :value="printer.finished ? 'yes' : 'no'"
              :options="[
                { value: 'no', title: 'no' },
                { value: 'yes', title: 'yes, once it runs' },
              ]"
              :save="finished(printer)"
            />
          </td>
          <td class="num">
            <button
              type="button"
              class="plain quiet small"
              :aria-label="`Delete ${printer.name}`"
              @click="remove(`Delete ${printer.name}`, printer.name, 'printers', printer.ref)"
            >
              delete
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <form class="fields" @submit.prevent="add()">
      <input v-model="name" class="field" aria-label="A further printer" placeholder="Bench printer" /><v-btn
        type="submit"
        size="small"
        :disabled="name.trim() === ''"
        >Add printer</v-btn
      ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
    </form>
    <p class="quiet small">
      Flow is what it lays down over a whole print, with its travels: weigh a print, and divide by its time. What it
      prints from then on puts it right.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 18px 0 4px;
}
.plastic {
  display: inline-flex;
  gap: 3px;
  align-items: center;
  margin-right: 8px;
  white-space: nowrap;
}
@media (max-width: 700px) {
  .plastic {
    min-height: 44px;
  }
}
</style>
