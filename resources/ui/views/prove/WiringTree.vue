<script setup lang="ts">
import { computed } from 'vue'
import type { Verdict, Wiring } from '@/api/client'
import { written } from '@/shared/decimals'
import { percent } from '@/shared/format'
import { useBuild } from '@/shared/useBuild'
import VerdictMark from '@/shared/VerdictMark.vue'

/** The wiring as a list from the wall to the loads, for where a drawing would be a thumbnail. */
const { map, shown, scenario, worst } = defineProps<{
  map: Wiring
  shown: Set<string>
  scenario: string
  worst: Map<string, Verdict>
}>()
const emit = defineEmits<{ open: [ref: string] }>()
const { roleOf } = useBuild()

interface Branch {
  key: string
  deep: number
  need: string
  run?: { ref: string; says: string; load: string }
}
const needOf = (port: string) => port.split('.')[0] ?? ''

const branches = computed<Branch[]>(() => {
  const runs = [
    ...map.leads.map((lead) => ({ ...lead, seat: false })),
    ...map.seats.map((seat) => ({ ...seat, fill: null, load: null, seat: true })),
  ].filter((run) => shown.has(run.ref))
  const out = new Map<string, typeof runs>()
  for (const run of runs) out.set(needOf(run.from), [...(out.get(needOf(run.from)) ?? []), run])
  const fed = new Set(runs.map((run) => needOf(run.to)))
  const list: Branch[] = []
  const done = new Set<string>()
  function walk(need: string, deep: number): void {
    if (done.has(need)) return
    done.add(need)
    for (const run of out.get(need) ?? []) {
      const amps = run.amps[scenario] as number | undefined
      list.push({
        key: run.ref,
        deep,
        need: needOf(run.to),
        run: {
          ref: run.ref,
          says: [
            run.seat ? 'slot' : run.ref,
            amps === undefined ? '' : written(`${amps.toFixed(1)} A`),
            run.fill === null ? '' : `${percent(run.fill)} full`,
          ]
            .filter(Boolean)
            .join(' · '),
          load: run.load === 'danger' || run.load === 'tight' ? run.load : 'quiet',
        },
      })
      walk(needOf(run.to), deep + 1)
    }
  }
  const roots = [...out.keys()].filter((need) => !fed.has(need))
  // What feeds itself in a ring is begun where it comes first.
  for (const need of [...roots, ...out.keys()]) {
    if (done.has(need)) continue
    list.push({ key: `root ${need}`, deep: 0, need })
    walk(need, 1)
  }

  return list
})
</script>

<template>
  <ol class="tree" aria-label="Wiring from the wall to the loads">
    <li v-for="branch in branches" :key="branch.key" :style="{ paddingLeft: `${branch.deep * 14}px` }">
      <button type="button" class="plain" @click="emit('open', branch.run?.ref ?? branch.need)">
        <VerdictMark v-if="worst.get(branch.need)" :verdict="worst.get(branch.need)!" :size="12" />
        {{ roleOf(branch.need) }}
        <span v-if="branch.run" class="small figure" :class="branch.run.load">{{ branch.run.says }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.tree {
  list-style: none;
  margin: 0;
  padding: 0 0 16px;
  overflow: auto;
}
li {
  border-bottom: 1px solid var(--rule);
}
button {
  width: 100%;
  min-height: 36px;
  padding: 4px 0;
  text-align: left;
}
</style>
