<script setup lang="ts">
import { computed, ref } from 'vue'
import { shrunk } from '@/shared/pictures'
import { useBuild } from '@/shared/useBuild'
import { useAct } from '@/shared/useAct'
import VerdictMark from '@/shared/VerdictMark.vue'
import { useReadings, type Expected } from './useReadings'

/** One thing to measure: what should be there and why, what was read, and what that points to. */
const props = defineProps<{ expected: Expected; demo: boolean }>()
const { readings, store, simulated } = useReadings()
const { needs } = useBuild()
/** Typed here and not judged yet: the server has not answered, or cannot be reached. */
const kept = computed(() => {
  const { what, need, axis, port, scenario, value } = props.expected
  const last = readings.value
    .filter(
      (one) =>
        one.struck === undefined &&
        one.what === what &&
        (one.need ?? null) === need &&
        (one.axis ?? null) === axis &&
        (one.port ?? null) === port &&
        (one.scenario ?? null) === scenario &&
        (one.part === undefined || one.part === needs.value.get(need ?? '')?.choice),
    )
    .sort((a, b) => (a.at ?? 0) - (b.at ?? 0))
    .at(-1)

  return last === undefined || last.value === value ? null : last.value
})
const { busy, reason, act } = useAct()
const text = ref('')
const instrument = ref<{ instrument: string; accuracy: string; simulated: true } | null>(null)
const picture = ref<{ name: string; blob: Blob } | null>(null)
const photograph = (event: Event) =>
  act(async () => {
    const file = (event.target as HTMLInputElement).files?.[0]
    picture.value = file === undefined ? null : await shrunk(file)
  })
const keep = () =>
  act(async () => {
    if (text.value.trim() === '') return
    await store(props.expected, text.value, instrument.value ?? {}, picture.value)
    picture.value = null
    text.value = ''
    instrument.value = null
  })
const read = () =>
  act(async () => {
    const { value, instrument: name, accuracy } = await simulated(props.expected.key)
    text.value = value
    instrument.value = { instrument: name, accuracy, simulated: true }
  })
</script>

<template>
  <div class="line">
    <p class="head">
      <strong>{{ expected.label }}</strong>
      <span class="figure">{{ expected.band }}</span>
      <span v-if="!expected.asked" class="quiet small">if you can</span>
    </p>
    <p class="quiet small">{{ expected.why }} {{ expected.how }}</p>
    <p v-if="expected.value" class="read">
      <VerdictMark :verdict="expected.verdict" word :size="18" />
      <span class="figure">{{ expected.value }}</span>
      <span v-if="expected.simulated" class="quiet small">simulated</span>
    </p>
    <p v-if="kept" class="read">
      <span class="figure">{{ kept }}</span>
      <span class="unproven small">kept here, judged when the server answers</span>
    </p>
    <ul v-if="expected.points.length" class="small">
      <li v-for="point in expected.points" :key="point">{{ point }}</li>
    </ul>
    <form @submit.prevent="keep()">
      <input
        v-model="text"
        class="big"
        :aria-label="`Reading of ${expected.label}`"
        :placeholder="expected.unit ? `reading in ${expected.unit}` : 'reading with its unit'"
        :aria-invalid="reason !== ''"
      />
      <button type="submit" class="touch" :disabled="busy || text.trim() === ''">Store</button>
      <label class="pick small"
        >{{ picture ? '1 picture' : 'picture'
        }}<input
          type="file"
          accept="image/*"
          capture="environment"
          :aria-label="`Picture of ${expected.label}`"
          @change="photograph"
      /></label>
      <button v-if="demo" type="button" class="plain link small sim" @click="read()">simulated instrument</button>
    </form>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
  </div>
</template>

<style scoped>
.line {
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
.read {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 4px 0;
}
ul {
  padding-left: 20px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 4px;
}
input.big {
  width: 190px;
  min-height: 44px;
  padding: 0 10px;
  font: inherit;
  font-family: var(--figures);
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
}
.sim {
  min-height: 44px;
}
</style>
