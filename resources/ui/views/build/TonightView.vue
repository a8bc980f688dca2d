<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { reasonOf, type Evening } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { words } from '@/shared/format'
import { useBuild, useCatalogue, useDerived } from '@/shared/useBuild'

/** What fits into so many hours, what to lay out for it, and how to leave it. */
const route = useRoute()
const router = useRouter()
const { id, document: build } = useBuild()
const { data: catalogue } = useCatalogue()
const hours = computed(() => (/^\d+(\.\d+)?$/.test(String(route.query.hours ?? '')) ? String(route.query.hours) : '2'))
const { data: evening, isError, error } = useDerived<Evening>('evening', () => `evening?hours=${hours.value}`)
const lengths = ['0.5', '1', '1.5', '2', '3', '4', '6', '8']
const place = (ref: string) => `/builds/${id.value}/build/bench/${ref}`
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Tonight</h1>
      <label
        >with
        <select
          class="field"
          aria-label="Hours there are"
          :value="hours"
          @change="router.replace({ query: { hours: ($event.target as HTMLSelectElement).value } })"
        >
          <option v-for="one in lengths" :key="one">{{ one }}</option>
        </select>
        hours</label
      >
      <router-link class="link" :to="`/builds/${id}/build/bench`">Bench</router-link>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="!build?.steps?.length" class="empty">
      There are no steps yet.
      <FirstAction path="build/derived">Steps from the model</FirstAction>
    </p>
    <template v-else-if="evening">
      <p v-if="evening.steps.length === 0" class="empty">
        {{
          evening.blocked.length
            ? 'Nothing can be finished tonight: what is in the way stands below.'
            : `Nothing fits into ${hours} hours.`
        }}
      </p>
      <template v-else>
        <ol class="steps">
          <li v-for="step in evening.steps" :key="step.ref">
            <router-link class="link" :to="place(step.ref)">{{ step.title }}</router-link>
            <span class="quiet"
              >{{ step.minutes }} min<template v-if="step.assumed">, since no guide time is given</template></span
            >
          </li>
        </ol>
        <p class="quiet small">{{ Math.round(evening.left * 60) }} min are left, at your own pace; no step is cut.</p>
        <h2>Lay out</h2>
        <p v-if="evening.tools.length">{{ evening.tools.join(', ') }}</p>
        <p v-if="evening.parts.length">{{ evening.parts.map((one) => `${one.pieces} × ${one.role}`).join(', ') }}</p>
      </template>
      <p v-for="caution in evening.cautions" :key="caution" class="danger small">
        <strong>{{ words(caution) }}</strong> {{ catalogue?.cautions[caution] }}
      </p>
      <h2>Leave it so</h2>
      <ul>
        <li v-for="one in evening.leave" :key="one">{{ one }}</li>
      </ul>
      <template v-if="evening.blocked.length">
        <h2>In the way of the rest</h2>
        <p v-for="one in evening.blocked" :key="one.ref" class="small">
          <router-link class="link" :to="place(one.ref)">{{ one.title }}</router-link>
          <span class="quiet"> {{ one.why }}</span>
        </p>
      </template>
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 16px 0 4px;
}
.steps li {
  min-height: 44px;
  padding: 8px 0;
}
.steps .quiet {
  margin-left: 8px;
}
</style>
