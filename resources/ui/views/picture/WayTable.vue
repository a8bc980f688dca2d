<script setup lang="ts">
import { computed } from 'vue'
import type { MachinePicture } from '@/api/client'
import FigureText from '@/shared/FigureText.vue'
import { usePanel } from '@/shared/usePanel'
import { mm } from './geometry'

/** How long each lead has to be by the way it goes; a length that was typed stays, and is held against it. */
const { picture, shown } = defineProps<{ picture: MachinePicture; shown: string[] }>()
const emit = defineEmits<{ show: [lead: string] }>()
const panel = usePanel()
const known = computed(() => picture.ways.filter((way) => way.waits === null))
const waits = computed(() => picture.ways.filter((way) => way.waits !== null))
</script>

<template>
  <section aria-label="Ways of the leads">
    <h2>Ways of the leads</h2>
    <p v-if="known.length === 0" class="quiet small">No lead has both its ends placed yet.</p>
    <table v-else class="ledger stack">
      <thead>
        <tr>
          <th>Lead</th>
          <th class="num">Way</th>
          <th class="num">Cut it to</th>
          <th class="num">Typed</th>
          <th class="wide-only">It runs</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="way in known" :key="way.lead">
          <td class="lead">
            <label
              ><input
                type="checkbox"
                :checked="shown.includes(way.lead)"
                :aria-label="`Draw ${way.label}`"
                @change="emit('show', way.lead)"
              />
            </label>
            <button type="button" class="plain link" @click="panel.show({ kind: 'lead', ref: way.lead })">
              {{ way.label }}
            </button>
          </td>
          <td class="num figure" data-of="Way">{{ mm(way.bare ?? 0) }}</td>
          <td class="num" data-of="Cut it to"><FigureText :value="way.cut ?? ''" /></td>
          <td class="num" data-of="Typed"><FigureText v-if="way.typed" :value="way.typed" /></td>
          <td class="small quiet wide-only">
            {{ way.parts.map((part) => `${part.what} ${mm(part.mm)}`).join(', ')
            }}<span v-if="way.passes.length" class="passes"
              >. Its loop passes {{ way.passes.join(', ') }}: tie it up, or lead it through a chain</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="waits.length" class="small quiet">
      {{ waits.length }} more wait:
      <span v-for="way in waits.slice(0, 6)" :key="way.lead">{{ way.lead }} ({{ way.waits }}) </span
      ><span v-if="waits.length > 6">…</span>
    </p>
  </section>
</template>

<style scoped>
.lead {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
