<script setup lang="ts">
import { ref } from 'vue'
import { api, reasonOf, type Axis, type TurningParts } from '@/api/client'
import FigureText from '@/shared/FigureText.vue'

/**
 * Inertia of what turns with the screw, segment by segment: a hollow shaft weighs less and resists more than its mass
 * says.
 */
const emit = defineEmits<{ keep: [bodies: Body[]] }>()
type Body = NonNullable<NonNullable<Axis['drive']>['turning']>[number]
const segments = ref([
  { name: 'Coupling', ratio: 1, outer: 35, bore: 12, length: 40, material: 'aluminium' as Body['material'] },
])
const found = ref<TurningParts | null>(null)
const reason = ref('')
async function sum(): Promise<void> {
  try {
    found.value = await api.post<TurningParts>('/api/turning-parts', {
      segments: segments.value.map(({ outer, bore, length, material }) => ({ outer, bore, length, material })),
    })
    reason.value = ''
  } catch (error) {
    found.value = null
    reason.value = reasonOf(error)
  }
}

function keep(): void {
  emit(
    'keep',
    segments.value.map(({ name, ratio, outer, bore, length, material }) => ({
      name: name || 'Turning part',
      outer: `${outer} mm`,
      ...(bore > 0 ? { bore: `${bore} mm` } : {}),
      length: `${length} mm`,
      material,
      ...(ratio === 1 ? {} : { ratio: String(ratio) }),
    })),
  )
}

function add(): void {
  segments.value.push({ name: 'Pulley', ratio: 1, outer: 20, bore: 0, length: 20, material: 'steel' })
  found.value = null
}

function drop(at: number): void {
  segments.value.splice(at, 1)
  found.value = null
}
</script>

<template>
  <details>
    <summary class="small">Add couplings, pulleys, nuts by their sizes</summary>
    <div v-for="(segment, i) in segments" :key="i" class="fields small">
      <input v-model="segment.name" class="field name" :aria-label="`Name of segment ${i + 1}`" />
      <label
        >Outside
        <input
          v-model.number="segment.outer"
          class="field"
          type="number"
          step="0.1"
          :aria-label="`Outside of segment ${i + 1}, mm`" /></label
      ><label
        >bore
        <input
          v-model.number="segment.bore"
          class="field"
          type="number"
          step="0.1"
          :aria-label="`Bore of segment ${i + 1}, mm`" /></label
      ><label
        >length
        <input
          v-model.number="segment.length"
          class="field"
          type="number"
          step="0.1"
          :aria-label="`Length of segment ${i + 1}, mm`" /></label
      ><span class="unit">mm</span>
      <select v-model="segment.material" class="field" :aria-label="`Material of segment ${i + 1}`">
        <option v-for="one in ['steel', 'aluminium', 'brass', 'plastic']" :key="one">{{ one }}</option>
      </select>
      <label
        >turns for one
        <input
          v-model.number="segment.ratio"
          class="field"
          type="number"
          step="0.1"
          min="0.001"
          :aria-label="`Turns of segment ${i + 1} for one of the screw`"
      /></label>
      <FigureText v-if="found?.parts[i] !== undefined" :value="found.parts[i]!.toFixed(4)" unit="kg cm²" /><button
        type="button"
        class="plain link"
        :disabled="segments.length === 1"
        @click="drop(i)"
      >
        remove
      </button>
    </div>
    <p class="small">
      <button type="button" class="plain link" @click="add()">Add another part</button>
      <v-btn size="small" @click="sum()">Add them up</v-btn>
      <template v-if="found"
        ><strong class="figure">{{ found.inertia }} kg cm²</strong>, {{ found.mass }} kg
      </template>
      <v-btn size="small" @click="keep()">Store this with the axis</v-btn>
      <span v-if="reason" class="danger" role="alert">{{ reason }}</span>
    </p>
    <p class="quiet small">
      ½·m·(r_o² + r_i²) each, bores taken out. Left out: bearings and seals. Inertia goes with the fourth power of the
      diameter: measure it.
    </p>
  </details>
</template>

<style scoped>
.fields input {
  width: 72px;
}
.fields input.name {
  width: 130px;
}
summary {
  cursor: pointer;
  color: var(--live);
}
</style>
