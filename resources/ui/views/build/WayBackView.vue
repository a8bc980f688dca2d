<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { reasonOf, type WayBack } from '@/api/client'
import { words } from '@/shared/format'
import { useBuild, useCatalogue, useDerived } from '@/shared/useBuild'

/** What comes off to reach a part, in its order, and what has to be checked again once it is on. */
const route = useRoute()
const router = useRouter()
const { id, document: build } = useBuild()
const { data: catalogue } = useCatalogue()
const need = computed(() => String(route.params.need ?? ''))
const { data: way, isError, error } = useDerived<WayBack>('way-back', () => `way-back/${need.value}`)
const minutes = (hours: number) => (hours < 2 ? `${Math.round(hours * 60)} min` : `${hours.toFixed(1)} h`)
const cautions = computed(() => [...new Set((way.value?.off ?? []).flatMap((step) => step.cautions))])
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Way back</h1>
      <label
        >to
        <select
          class="field"
          aria-label="Part to reach"
          :value="need"
          @change="router.replace(`/builds/${id}/build/way-back/${($event.target as HTMLSelectElement).value}`)"
        >
          <option v-for="one in build?.needs" :key="one.ref" :value="one.ref">{{ one.role }}</option>
        </select></label
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="way">
      <p v-if="way.off.length === 0" class="empty">Nothing holds it in the model: no joint, lead or cover.</p>
      <p v-else>
        Off in about <span class="figure">{{ minutes(way.hours_off) }}</span>, on again in
        <span class="figure">{{ minutes(way.hours_on) }}</span><template v-if="way.mass"
          >; it weighs {{ way.mass }}</template
        >.
      </p>
      <p class="danger small">Unplugged, and waited for what is stored, before a hand goes in.</p>
      <p v-for="caution in cautions" :key="caution" class="danger small">
        <strong>{{ words(caution) }}</strong> {{ catalogue?.cautions[caution] }}
      </p>
      <ol v-if="way.off.length">
        <li v-for="step in way.off" :key="step.key">
          {{ step.title }} <span class="quiet small">{{ step.tools.join(', ') }}</span>
        </li>
      </ol>
      <template v-if="way.again.length">
        <h2>After it is on again</h2>
        <ul>
          <li v-for="again in way.again" :key="again">{{ again }}</li>
        </ul>
      </template>
      <p class="quiet small">On again the other way round. Times: common practice, no source.</p>
    </template>
  </div>
</template>

<style scoped>
li {
  min-height: 28px;
}
h2 {
  margin: 16px 0 4px;
}
</style>
