<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, reasonOf, type Lead, type ProposedLeads } from '@/api/client'
import { inUnit } from '@/shared/format'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import { laidOut, type ProposedRow } from './proposedRows'

/** The leads a build still wants, to be taken as they are or changed first, many in one edit. */
const { need = '' } = defineProps<{ need?: string }>()
const emit = defineEmits<{ added: [count: number] }>()
const { id, document: build, portName } = useBuild()
const { edit } = useEdit()
const { data, isFetching } = useQuery({
  queryKey: computed(() => ['proposed-leads', id.value, need]),
  queryFn: () => api.get<ProposedLeads>(`/api/builds/${id.value}/proposed-leads${need ? `?need=${need}` : ''}`),
})

const rows = ref<ProposedRow[]>([])
const reason = ref('')
const busy = ref(false)
watch(data, (now) => (rows.value = laidOut(now?.leads ?? [], rows.value)), { immediate: true })
const taken = computed(() => rows.value.filter((row) => row.taken))
const all = computed({
  get: () => taken.value.length === rows.value.length,
  set: (value: boolean) => rows.value.forEach((row) => (row.taken = value)),
})

async function add(): Promise<void> {
  const leads = [...(build.value?.leads ?? [])]
  const changes = taken.value.map((row) => {
    const ref = nextRef('W', leads)
    const create = {
      ...row.lead.entry,
      ref,
      from: row.from,
      conductor: { ...row.lead.entry.conductor, size: row.size },
      // A bare number is in millimetres, as its field says.
      length: inUnit(row.length, 'mm').trim() || undefined,
    }
    leads.push(create as Lead)

    return { section: 'leads' as const, create }
  })
  busy.value = true
  reason.value = ''
  try {
    await edit(changes.length === 1 ? `Add lead ${changes[0]!.create.ref}` : `Add ${changes.length} leads`, changes)
    emit('added', changes.length)
  } catch (error) {
    reason.value = reasonOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="proposed" aria-label="Proposed leads" @submit.prevent="add()">
    <p v-if="isFetching && data === undefined" class="quiet" role="status">Looking for far ends …</p>
    <p v-else-if="rows.length === 0 && (data?.open ?? []).length === 0" class="quiet" role="status">
      Every port has its lead.
    </p>
    <template v-if="rows.length">
      <div class="scroll">
        <table class="ledger">
          <thead>
            <tr>
              <th><input v-model="all" type="checkbox" aria-label="Take all" /></th>
              <th>From</th>
              <th>To</th>
              <th class="num roomy">Current</th>
              <th class="num">Size</th>
              <th class="num">Length</th>
              <th class="roomy">Why</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="row in rows"
              :key="`${row.lead.from} ${row.lead.to}`"
              :class="{ quiet: !row.taken }"
              :title="row.lead.why"
            >
              <td><input v-model="row.taken" type="checkbox" :aria-label="`Take ${portName(row.lead.to)}`" /></td>
              <td>
                <select
                  v-if="row.lead.others.length"
                  v-model="row.from"
                  :aria-label="`From, for ${portName(row.lead.to)}`"
                >
                  <option v-for="port in [row.lead.from, ...row.lead.others]" :key="port" :value="port">
                    {{ portName(port) }}
                  </option>
                </select>
                <template v-else>{{ portName(row.from) }}</template>
              </td>
              <td>{{ portName(row.lead.to) }}</td>
              <td class="num figure roomy">{{ row.lead.current ?? '–' }}</td>
              <td class="num">
                <input
                  v-model="row.size"
                  class="field figure"
                  size="8"
                  :aria-label="`Size to ${portName(row.lead.to)}`"
                />
              </td>
              <td class="num">
                <input
                  v-model="row.length"
                  class="field figure"
                  size="7"
                  placeholder="in mm"
                  :aria-label="`Length in mm to ${portName(row.lead.to)}`"
                />
              </td>
              <td class="small quiet roomy">{{ row.lead.why }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
      <p class="foot">
        <v-btn type="submit" color="primary" variant="flat" :loading="busy" :disabled="taken.length === 0">{{
          taken.length === 1 ? 'Add this lead' : `Add ${taken.length} leads`
        }}</v-btn>
        <span class="small quiet"
          >Sized at 80 % of what a conductor may carry among others, and 3 % of drop where the length is known; a plan,
          to be judged like any other lead.</span
        >
      </p>
    </template>
    <p v-for="one in data?.open ?? []" :key="one.port" class="small open">
      <strong>{{ portName(one.port) }}</strong> stays open: {{ one.why }}.
    </p>
  </form>
</template>

<style scoped>
.proposed {
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 8px 12px 10px;
  margin-bottom: 10px;
  container-type: inline-size;
}
.scroll {
  overflow-x: auto;
}
@container (max-width: 620px) {
  .roomy {
    display: none;
  }
}
.num .field {
  text-align: right;
  height: 26px;
}
select {
  font: inherit;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  max-width: 240px;
}
.foot {
  display: flex;
  gap: 16px;
  align-items: center;
  margin: 10px 0 0;
}
.open {
  margin: 6px 0 0;
}
</style>
