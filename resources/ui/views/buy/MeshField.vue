<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Mesh } from '@/api/client'
import ErrandState from '@/shared/ErrandState.vue'
import FigureText from '@/shared/FigureText.vue'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useErrand } from '@/shared/useErrand'
import { saidOf } from '@/shared/specs'

/** The file of a printed part: its volume, surface and size are read from it, looked at, and then taken. */
const props = defineProps<{ part: string }>()
const { parts } = useBuild()
const { edit } = useEdit()
const { data: catalogue } = useCatalogue()
const units = ['mm', 'cm', 'in']
const { errand, send, again, stop } = useErrand<Mesh>('mesh')
const unit = ref('mm')
const file = ref<File | null>(null)
const mesh = ref<Mesh | null>(null)
const reason = ref('')
const busy = ref(false)
const part = computed(() => parts.value.get(props.part))
const labelOf = (key: string) =>
  catalogue.value?.families.find((one) => one.key === 'printed_part')?.fields.find((one) => one.key === key)?.label ??
  key
const said = (key: string) => saidOf(part.value?.specs?.[key]) ?? ''

function choose(event: Event): void {
  const input = event.target as HTMLInputElement
  file.value = input.files?.[0] ?? null
  input.value = ''
  unit.value = 'mm'
  void read()
}
const read = () => (file.value === null ? undefined : tell(() => send({ mesh: file.value!, unit: unit.value })))
async function tell(work: () => Promise<Mesh | null>): Promise<void> {
  busy.value = true
  reason.value = ''
  try {
    mesh.value = await work()
  } catch (error) {
    mesh.value = null
    reason.value = reasonOf(error)
  } finally {
    busy.value = false
  }
}
async function take(): Promise<void> {
  const name = file.value?.name ?? ''
  const specs = { ...mesh.value?.specs, file_version: name }
  try {
    await edit(`${part.value?.name}: ${name}`, [
      {
        section: 'parts',
        ref: props.part,
        set: Object.entries(specs).map(([key, value]) => ({
          path: ['specs', key],
          was: part.value?.specs?.[key] ?? null,
          to: { value, evidence: 'datasheet', source: name },
        })),
      },
    ])
    mesh.value = null
    file.value = null
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <span class="mesh">
    <label class="link small pick"
      ><input
        type="file"
        accept=".stl,model/stl"
        :aria-label="`STL file of ${part?.name}`"
        :disabled="busy"
        @change="choose"
      />{{ busy ? 'reading …' : 'read its STL' }}</label
    >
    <ErrandState v-if="errand" :errand="errand" what="Reading the file" @stop="stop()" @again="tell(again)" />
    <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
    <span v-if="mesh" class="read">
      <strong>{{ file?.name }}</strong>
      <span class="quiet small">{{ mesh.triangles.toLocaleString('en-GB') }} triangles, drawn in </span
      ><select v-model="unit" class="field" aria-label="Unit of the file" @change="read()">
        <option v-for="one in units" :key="one">{{ one }}</option>
      </select>
      <span v-for="doubt in mesh.doubts" :key="doubt" class="tight small doubt">{{ doubt }}</span>
      <span v-for="(value, key) in mesh.specs" :key="key" class="small line"
        >{{ labelOf(String(key)) }} <FigureText :value="value" /><span
          v-if="said(String(key)) && said(String(key)) !== value"
          class="quiet"
        >
          instead of {{ said(String(key)) }}</span
        ></span
      >
      <v-btn size="small" color="primary" variant="flat" @click="take()">Take these</v-btn
      ><v-btn size="small" @click="mesh = null">Leave them</v-btn>
    </span>
  </span>
</template>

<style scoped>
.read {
  display: block;
  border-left: 3px solid var(--live);
  padding: 4px 12px;
  margin: 4px 0;
  text-align: left;
}
.line,
.doubt {
  display: block;
}
</style>
