<script setup lang="ts">
import { computed } from 'vue'

/** A picture with spots marked on it; a touch sets one, a touch on a spot takes it away. */
type Spot = { x: number; y: number }
const props = defineProps<{ src: string; alt: string; spots: Spot[]; fixed?: boolean }>()
const emit = defineEmits<{ change: [spots: Spot[]] }>()
const numbered = computed(() => props.spots.map((spot, i) => ({ ...spot, number: i + 1 })))

function mark(event: MouseEvent): void {
  if (props.fixed) return
  const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
  // By key there is no place: the middle, to be seen and moved by another touch.
  const at = (offset: number, of: number) => (event.detail === 0 ? 500 : Math.round((offset / of) * 1000))
  emit('change', [
    ...props.spots,
    { x: at(event.clientX - box.left, box.width), y: at(event.clientY - box.top, box.height) },
  ])
}
</script>

<template>
  <div class="marks">
    <button type="button" class="picture" :disabled="fixed" aria-label="Mark a spot on the picture" @click="mark">
      <img :src="src" :alt="alt" />
    </button>
    <button
      v-for="spot in numbered"
      :key="spot.number"
      type="button"
      class="spot figure"
      :style="{ left: `${spot.x / 10}%`, top: `${spot.y / 10}%` }"
      :disabled="fixed"
      :aria-label="`Spot ${spot.number}; take it away`"
      @click="
        emit(
          'change',
          spots.filter((_, i) => i !== spot.number - 1),
        )
      "
    >
      {{ spot.number }}
    </button>
  </div>
</template>

<style scoped>
.marks {
  position: relative;
  margin: 6px 0;
}
.picture {
  display: block;
  width: 100%;
  padding: 0;
  background: none;
  border: 0;
  cursor: crosshair;
}
.picture:disabled {
  cursor: default;
}
img {
  display: block;
  width: 100%;
  border-radius: 2px;
}
.spot {
  position: absolute;
  width: 30px;
  height: 30px;
  padding: 0;
  font-size: 15px;
  font-weight: 600;
  color: #fff;
  background: rgb(0 0 0 / 55%);
  border: 3px solid #ffd400;
  border-radius: 50%;
  transform: translate(-50%, -50%);
  cursor: pointer;
}
</style>
