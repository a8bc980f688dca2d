<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, reasonOf, type CuttingData } from '@/api/client'
import FigureText from '@/shared/FigureText.vue'

/** Feed, power and rim speed of a cut, worked out as it is typed. */
const asked = ref({ diameter: 6, flutes: 2, speed: 12000, chip: 0.05, step_over: 40, depth: 3, material: 'hardwood' })
const materials = ['softwood', 'hardwood', 'plywood', 'MDF', 'acrylic', 'plastic', 'aluminium', 'brass', 'steel']
const fields = [
  ['diameter', 'Cutter', 'mm', 0.1],
  ['flutes', 'Flutes', '', 1],
  ['speed', 'Speed', 'rpm', 100],
  ['chip', 'Chip', 'mm', 0.01],
  ['step_over', 'Step-over', '% of it', 1],
  ['depth', 'Depth', 'mm', 0.1],
] as const
const found = ref<CuttingData | null>(null)
const reason = ref('')
let asking = 0
watch(
  asked,
  async (now) => {
    const mine = ++asking
    try {
      const answer = await api.get<CuttingData>(
        `/api/cutting-data?${new URLSearchParams(Object.entries(now).map(([key, value]) => [key, String(value)]))}`,
      )
      if (mine === asking) [found.value, reason.value] = [answer, '']
    } catch (error) {
      if (mine === asking) [found.value, reason.value] = [null, reasonOf(error)]
    }
  },
  { deep: true, immediate: true },
)
</script>

<template>
  <section>
    <h2>Cutting data</h2>
    <div class="fields">
      <label v-for="[key, label, unit, step] in fields" :key="key" class="small"
        >{{ label }}
        <input
          v-model.number="asked[key]"
          class="field"
          type="number"
          :step="step"
          :aria-label="`${label}${unit ? `, ${unit}` : ''}`"
        /><span class="unit">{{ unit }}</span></label
      >
      <label class="small"
        >in
        <select v-model="asked.material" class="field" aria-label="Material">
          <option v-for="one in materials" :key="one">{{ one }}</option>
        </select></label
      >
    </div>
    <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
    <dl v-if="found" class="across">
      <div>
        <dt>Feed</dt>
        <dd><FigureText :value="found.feed.toFixed(0)" unit="mm/min" /></dd>
      </div>
      <div>
        <dt>Feed raised for the thin chip</dt>
        <dd class="figure">{{ found.thinning.toFixed(2) }} times</dd>
      </div>
      <div>
        <dt>Material removed</dt>
        <dd><FigureText :value="found.removal.toFixed(1)" unit="mm³/s" /></dd>
      </div>
      <div>
        <dt>Asks of the spindle</dt>
        <dd><FigureText :value="found.power.toFixed(0)" unit="W" /></dd>
      </div>
      <div>
        <dt>Speed at the rim</dt>
        <dd><FigureText :value="found.rim.toFixed(1)" unit="m/s" /></dd>
      </div>
    </dl>
    <p class="aside small">
      On a light or hand-pushed gantry cut conventionally: push against the turning cutter. A climb cut pulls itself in.
      Clamps below the lowest tool point, cover on, eyes and ears protected, dust drawn off without starving the spindle
      of air.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 24px 0 4px;
}
.fields input {
  width: 84px;
}
</style>
