<script setup lang="ts">
import { computed, shallowRef, watch } from 'vue'
import type { DerivedSteps } from '@/api/client'
import { laidOut } from '@/shared/layout'

/** What waits for what, from the first steps at the left to the covers at the right. */
type Draft = DerivedSteps['steps'][number]
const props = defineProps<{ steps: Draft[]; stateOf: (draft: Draft) => string }>()
const emit = defineEmits<{ picked: [draft: Draft] }>()
interface Drawn {
  boxes: { draft: Draft; x: number; y: number }[]
  lines: { key: string; points: string }[]
  width: number
  height: number
}
const drawn = shallowRef<Drawn>({ boxes: [], lines: [], width: 0, height: 0 })
const wide = 150
const high = 40

/** What a step waits for through another it waits for anyway is not drawn twice. */
const near = computed(() => {
  const after = new Map(props.steps.map((draft) => [draft.key, draft.after]))
  const reaches = (from: string, to: string, been = new Set<string>()): boolean =>
    (after.get(from) ?? []).some(
      (before) => before === to || (!been.has(before) && (been.add(before), true) && reaches(before, to, been)),
    )

  return new Map(
    props.steps.map((draft) => [
      draft.key,
      draft.after.filter(
        (before) => after.has(before) && !draft.after.some((other) => other !== before && reaches(other, before)),
      ),
    ]),
  )
})
let turn = 0
watch(
  () => props.steps,
  async (steps) => {
    const mine = ++turn
    const laid = await laidOut({
      id: 'root',
      layoutOptions: {
        'elk.algorithm': 'layered',
        'elk.direction': 'RIGHT',
        'elk.edgeRouting': 'ORTHOGONAL',
        'elk.layered.spacing.nodeNodeBetweenLayers': '28',
        'elk.spacing.nodeNode': '10',
        'elk.separateConnectedComponents': 'false',
      },
      children: steps.map((draft) => ({ id: draft.key, width: wide, height: high })),
      edges: steps.flatMap((draft) =>
        near.value.get(draft.key)!.map((before) => ({
          id: `${before} ${draft.key}`,
          sources: [before],
          targets: [draft.key],
        })),
      ),
    })
    if (mine !== turn) return
    const byKey = new Map(steps.map((draft) => [draft.key, draft]))
    drawn.value = {
      boxes: (laid.children ?? []).map((box) => ({ draft: byKey.get(box.id)!, x: box.x ?? 0, y: box.y ?? 0 })),
      lines: (laid.edges ?? []).flatMap((edge) => {
        const section = edge.sections?.[0]

        return section === undefined
          ? []
          : [
              {
                key: edge.id,
                points: [section.startPoint, ...(section.bendPoints ?? []), section.endPoint]
                  .map((point) => `${point.x},${point.y}`)
                  .join(' '),
              },
            ]
      }),
      width: laid.width ?? 0,
      height: laid.height ?? 0,
    }
  },
  { immediate: true },
)
</script>

<template>
  <div class="network" tabindex="0">
    <svg
      :width="drawn.width"
      :height="drawn.height"
      :viewBox="`0 0 ${drawn.width} ${drawn.height}`"
      role="group"
      aria-label="What waits for what; the list gives the same in words."
    >
      <polyline v-for="line in drawn.lines" :key="line.key" :points="line.points" />
      <foreignObject v-for="box in drawn.boxes" :key="box.draft.key" :x="box.x" :y="box.y" :width="wide" :height="high">
        <button
          type="button"
          class="plain box"
          :class="stateOf(box.draft)"
          :title="`${box.draft.title} (${box.draft.section}, ${stateOf(box.draft)})`"
          @click="emit('picked', box.draft)"
        >
          {{ box.draft.title }}
        </button>
      </foreignObject>
    </svg>
  </div>
</template>

<style scoped>
.network {
  overflow: auto;
  max-height: 70vh;
  border: 1px solid var(--rule);
}
polyline {
  fill: none;
  stroke: var(--ink);
  stroke-opacity: 0.45;
}
.box {
  width: 100%;
  height: 100%;
  padding: 2px 6px;
  overflow: hidden;
  font-size: 11px;
  line-height: 1.2;
  text-align: left;
  background: var(--sheet);
  border: 1px solid var(--rule);
}
.box.done,
.box.merged {
  opacity: 0.55;
}
.box.new {
  border-style: dashed;
}
.box.void {
  border: 2px solid var(--ink);
}
</style>
