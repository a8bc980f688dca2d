<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Part } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { useCatalogue, useEdit } from '@/shared/useBuild'
import { channelFields, familyPorts, powerFields, signalFields, usePortSpecs } from '@/shared/usePortSpecs'

/** The ports of a part: those of its family, and its own, with their limits. */
const props = defineProps<{ part: Part }>()
const { edit } = useEdit()
const { valueOf, store } = usePortSpecs()
const { data: catalogue } = useCatalogue()
const adding = ref(false)
const fresh = ref({ name: '', kind: 'outlet', fed_from: '' })
const reason = ref('')

const family = computed(() => catalogue.value?.families.find((one) => one.key === props.part.family))
const own = computed(() => props.part.ports ?? [])
const given = computed(() => familyPorts(family.value, props.part))
const ports = computed(() => [
  ...given.value.map((port) => ({
    name: port.name,
    kind: port.kind,
    at: own.value.findIndex((one) => one.name === port.name),
  })),
  ...own.value
    .map((port, at) => ({ name: port.name, kind: port.kind ?? '', at }))
    .filter((port) => !given.value.some((one) => one.name === port.name)),
])
const inlets = computed(() => ports.value.filter((port) => port.kind === 'inlet').map((port) => port.name))
/** A channel of a board says what it is for; what carries power has ratings, what speaks has levels. */
const fieldsOf = (kind: string) => [
  ...(kind === 'signal' ? signalFields : ['phase', 'earth'].includes(kind) ? [] : powerFields),
  ...(family.value?.abilities.includes('has channels') && (kind === 'signal' || kind === 'outlet')
    ? channelFields
    : []),
]
const kinds = [
  { value: 'outlet', title: 'passes power on' },
  { value: 'inlet', title: 'takes power in' },
  { value: 'source', title: 'holds a voltage of its own' },
  { value: 'signal', title: 'signal' },
]

async function add(): Promise<void> {
  const port = {
    name: fresh.value.name,
    kind: fresh.value.kind,
    ...(fresh.value.kind === 'outlet' && fresh.value.fed_from ? { fed_from: fresh.value.fed_from } : {}),
  }
  try {
    await edit(`Port ${port.name} of ${props.part.name}`, [
      {
        section: 'parts',
        ref: props.part.ref,
        set: [{ path: ['ports'], was: props.part.ports ?? null, to: [...own.value, port] }],
      },
    ])
    adding.value = false
    fresh.value = { ...fresh.value, name: '' }
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
async function drop(at: number): Promise<void> {
  try {
    await edit(`Delete port ${own.value[at]?.name} of ${props.part.name}`, [
      {
        section: 'parts',
        ref: props.part.ref,
        set: [
          {
            path: ['ports'],
            was: props.part.ports ?? null,
            to: own.value.length > 1 ? own.value.filter((_, i) => i !== at) : null,
          },
        ],
      },
    ])
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

function toggleAdding(): void {
  adding.value = !adding.value
  fresh.value.fed_from = inlets.value[0] ?? ''
}
</script>

<template>
  <h3 class="mt-4 mb-1">
    Ports
    <button type="button" class="plain link small" @click="toggleAdding">add a port</button>
  </h3>
  <form v-if="adding" class="adding" @submit.prevent="add()">
    <input v-model="fresh.name" aria-label="Name of the port" placeholder="heater0" size="9" />
    <select v-model="fresh.kind" aria-label="What it does">
      <option v-for="kind in kinds" :key="kind.value" :value="kind.value">{{ kind.title }}</option>
    </select>
    <select v-if="fresh.kind === 'outlet'" v-model="fresh.fed_from" aria-label="Fed from">
      <option v-for="inlet in inlets" :key="inlet" :value="inlet">from {{ inlet }}</option>
    </select>
    <v-btn type="submit" size="small" color="primary" :disabled="fresh.name === ''">Add</v-btn>
  </form>
  <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
  <p v-if="ports.length === 0" class="quiet small">None: it takes no lead.</p>
  <ul class="ports small">
    <li v-for="port in ports" :key="port.name">
      <span class="figure">{{ port.name }}</span>
      <span class="quiet"
        >{{ port.kind
        }}<template v-if="port.at >= 0 && own[port.at]?.fed_from"> from {{ own[port.at]!.fed_from }}</template></span
      >
      <span v-for="field in fieldsOf(port.kind)" :key="field.key" class="limit"
        ><span class="quiet">{{ field.title }}</span>
        <EditCell
          :figure="field.unit !== undefined"
          :label="`${field.title} of port ${port.name}`"
          :value="valueOf(part, port.name, field.key)"
          :unit="field.unit"
          :options="field.options"
          :save="store(part, port.name, field)"
      /></span>
      <button
        v-if="port.at >= 0 && !given.some((one) => one.name === port.name)"
        type="button"
        class="plain link"
        :aria-label="`Delete port ${port.name}`"
        @click="drop(port.at)"
      >
        delete
      </button>
    </li>
  </ul>
</template>

<style scoped>
.ports {
  list-style: none;
  padding: 0;
  margin: 0;
}
.ports li {
  padding: 4px 0;
  border-bottom: 1px solid var(--rule);
}
.limit {
  margin-left: 12px;
  white-space: nowrap;
  display: inline-block;
}
.adding {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 4px 0;
}
input,
select {
  font: inherit;
  font-size: 13px;
  height: 26px;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 0 4px;
}
</style>
