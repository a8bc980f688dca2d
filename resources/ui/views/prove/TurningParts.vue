<script setup lang="ts">
import { ref } from 'vue'
import { api, reasonOf, type TurningParts } from '@/api/client'
import FigureText from '@/shared/FigureText.vue'

/**
 * Inertia of what turns with the screw, segment by segment: a hollow shaft weighs less and resists more than its mass
 * says.
 */
const emit = defineEmits<{ use: [inertia: string] }>()
const segments = ref([{ outer: 35, bore: 12, length: 40, material: 'aluminium' }])
const found = ref<TurningParts | null>(null)
const reason = ref('')
async function sum(): Promise<void> {
  try {
    found.value = await api.post<TurningParts>('/api/turning-parts', { segments: segments.value })
    reason.value = ''
  } catch (error) {
    found.value = null
    reason.value = reasonOf(error)
  }
}

function add(): void {
  segments.value.push({ outer: 20, bore: 0, length: 20, material: 'steel' })
  found.value = null
}

function drop(at: number): void {
  segments.value.splice(at, 1)
  found.value = null
}
</script>

<template>
  <details>
    <summary class="small">Work out the further inertia from couplings, pulleys, nuts</summary>
    <div v-for="(segment, i) in segments" :key="i" class="fields small">
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
      <FigureText v-if="found?.parts[i] !== undefined" :value="found.parts[i]!.toFixed(4)" unit="kg cm²" /><button
        type="button"
        class="plain link"
        :disabled="segments.length === 1"
        @click="drop(i)"
      >
        out
      </button>
    </div>
    <p class="small">
      <button type="button" class="plain link" @click="add()">one more</button>
      <v-btn size="small" @click="sum()">Sum up</v-btn>
      <template v-if="found"
        ><strong class="figure">{{ found.inertia }} kg cm²</strong>, {{ found.mass }} kg
        <button type="button" class="plain link" @click="emit('use', `${found.inertia} kg cm²`)">
          take it
        </button></template
      >
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
summary {
  cursor: pointer;
  color: var(--live);
}
</style>
