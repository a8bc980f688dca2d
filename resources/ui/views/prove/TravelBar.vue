<script setup lang="ts">
import { computed } from 'vue'
import type { AxisMotion } from '@/api/client'

/** One direction to scale: what takes travel, what is left, what is advertised, and a piece laid into it. */
const props = withDefaults(defineProps<{ axis: AxisMotion; scale: number; left?: number; wanted?: number }>(), {
  left: 0,
  wanted: 0,
})
const takers = computed(() => {
  let at = 0

  return props.axis.stack.slice(1).map((piece) => {
    const start = at
    at += piece.length
    return { ...piece, start }
  })
})
const whole = computed(() => props.axis.stack[0]!)
const start = computed(() => takers.value.reduce((sum, one) => sum + one.length, 0))
const usable = computed(() => Math.max(0, props.axis.usable ?? whole.value.length - start.value))
const narrow = computed(() => usable.value * props.scale < 96)
</script>

<template>
  <g>
    <rect class="whole" :x="left" y="8" :width="whole.length * scale" height="34" />
    <g v-for="piece in takers" :key="piece.what"
      ><title>{{ piece.what }}: {{ piece.length }} mm</title
      ><rect
        class="taker"
        :class="piece.kind"
        :x="left + piece.start * scale"
        y="8"
        :width="Math.max(1, piece.length * scale)"
        height="34"
      /><text
        v-if="piece.length * scale > piece.what.length * 5.6 + 6"
        class="in"
        :class="piece.kind"
        :x="left + (piece.start + piece.length / 2) * scale"
        y="29"
        text-anchor="middle"
        >{{ piece.what }}</text
      ></g
    >
    <rect class="usable" :x="left + start * scale" y="8" :width="usable * scale" height="34" />
    <text
      class="left-over"
      :x="narrow ? left + (start + usable) * scale + 8 : left + (start + usable / 2) * scale"
      :y="narrow || wanted === 0 ? 29 : 23"
      :text-anchor="narrow ? 'start' : 'middle'"
      >{{ usable.toFixed(0) }} mm left</text
    >
    <rect
      v-if="wanted > 0"
      class="piece"
      :class="{ not: wanted > usable }"
      :x="left + start * scale"
      y="29"
      :width="wanted * scale"
      height="9"
    />
    <g v-if="axis.advertised"
      ><line
        class="sold"
        :x1="left + start * scale"
        :x2="left + (start + axis.advertised) * scale"
        y1="52"
        y2="52"
      /><text class="quiet-text" :x="left + start * scale" y="65">sold as {{ axis.advertised }} mm</text></g
    >
  </g>
</template>

<style scoped>
.quiet-text {
  font: 11px var(--text);
  fill: var(--quiet);
}
.whole {
  fill: none;
  stroke: var(--ink);
}
.taker {
  fill: color-mix(in srgb, var(--ink) 22%, var(--paper));
  stroke: var(--paper);
}
.taker.block {
  fill: color-mix(in srgb, var(--ink) 62%, var(--paper));
}
.in {
  font: 11px var(--text);
  fill: var(--ink);
}
.in.block {
  fill: var(--paper);
}
.usable {
  fill: color-mix(in srgb, var(--live) 22%, var(--paper));
  stroke: var(--live);
}
.left-over {
  font: 600 12px var(--figures);
  fill: var(--ink);
}
.piece {
  fill: rgb(var(--v-theme-holds));
}
.piece.not {
  fill: rgb(var(--v-theme-fails));
}
.sold {
  stroke: var(--quiet);
  stroke-width: 2;
}
</style>
