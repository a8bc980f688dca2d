<script setup lang="ts">
import { computed } from 'vue'
import { verdictOrder } from '@/shared/findings'
import { dayDone, hoursLeft, leftOut } from '@/shared/forecast'
import { money, percent } from '@/shared/format'
import { useBuild } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import VerdictMark from '@/shared/VerdictMark.vue'

/** The figures that never scroll away; each opens the view behind it, and what an edit changed is marked. */
const { id, overview } = useBuild()
const notices = useNotices()
const base = computed(() => `/builds/${id.value}`)
const end = computed(() => {
  const forecast = overview.value?.forecast
  if (!forecast) return ''
  return [forecast.date ? `done ${dayDone(forecast)}` : '', leftOut(forecast)].filter(Boolean).join('; ')
})
/** What the planned sum leaves out, as short as it can be told: "11 without a rate". */
const lacks = computed(() => {
  const [first, ...more] = overview.value?.money?.lacks ?? []

  return first === undefined ? '' : first.replace(/ parts? /, ' ') + (more.length > 0 ? ' …' : '')
})
</script>

<template>
  <nav v-if="overview" class="tally" aria-label="Tally">
    <router-link
      v-for="verdict in verdictOrder"
      :key="verdict"
      :to="`${base}/prove/fit?verdict=${verdict}`"
      class="count"
      :class="{ moved: notices.moved[verdict] !== undefined }"
      :title="verdict"
    >
      <VerdictMark :verdict="verdict" word :size="12" />
      <span class="figure"
        ><template v-if="notices.moved[verdict] !== undefined">{{ notices.moved[verdict] }} → </template
        >{{ overview.tally[verdict] }}</span
      >
    </router-link>
    <router-link
      v-if="overview.later + overview.accepted.length > 0"
      :to="`${base}/prove/fit`"
      class="sum"
      title="Not counted: what can only be told later, and what is accepted with a reason"
    >
      <span class="label">Apart</span>
      <span class="figure"
        >{{ overview.later }}<span class="unit">later</span
        ><template v-if="overview.accepted.length">
          {{ overview.accepted.length }}<span class="unit">accepted</span></template
        ></span
      >
    </router-link>
    <router-link v-if="overview.money" :to="`${base}/buy/money`" class="sum">
      <span class="label"
        >Planned<template v-if="overview.money.budget">
          of {{ money(overview.money.budget, overview.money.currency, false) }}</template
        ></span
      >
      <span class="figure" :class="{ fails: (overview.money.budget_used ?? 0) > 1 }"
        >{{ money(overview.money.planned, overview.money.currency, false)
        }}<span v-if="lacks" class="unit" :title="overview.money.lacks.join(', ')">+ {{ lacks }}</span></span
      >
    </router-link>
    <router-link :to="`${base}/prove/power`" class="sum">
      <span class="label">Fullest supply</span>
      <span
        v-if="overview.supply"
        class="figure"
        :class="{ fails: overview.supply.share > 1 }"
        :title="`${overview.supply.label}, ${overview.supply.scenario}`"
        >{{ percent(overview.supply.share) }}</span
      >
      <span v-else class="quiet">not known</span>
    </router-link>
    <router-link :to="`${base}/build/bench`" class="sum">
      <span class="label">Hours left</span>
      <span class="figure" :title="end">{{ hoursLeft(overview.forecast) }}<span class="unit">h</span></span>
    </router-link>
  </nav>
</template>

<style scoped>
.tally {
  display: flex;
  align-items: stretch;
  gap: 2px;
  font-size: 12.5px;
  line-height: 1.15;
  min-width: 0;
  overflow: hidden;
}
.tally a {
  display: flex;
  flex-direction: column;
  justify-content: center;
  padding: 0 6px;
  color: inherit;
  text-decoration: none;
  border-bottom: 2px solid transparent;
  white-space: nowrap;
}
.tally a:hover {
  border-bottom-color: var(--rule);
}
.count .figure {
  padding-left: 17px;
  font-size: 13px;
}
.count.moved {
  border-bottom-color: var(--live);
}
.label {
  color: var(--quiet);
  font-size: 12px;
}
@media (max-width: 700px) {
  .tally {
    flex-wrap: wrap;
    row-gap: 8px;
  }
}
</style>
