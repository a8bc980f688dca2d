<script setup lang="ts">
import WorkedReadings from './WorkedReadings.vue'

/** Straight and square: the surface, its rails, what runs on them. */
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Straight</h1>
      <span class="quiet">readings as they were taken, and what they come to</span>
    </div>
    <p class="small quiet">
      The order that keeps what was done: surface, first rail, second rail to the first, screw and its bearings, then
      the tool. Each is read against the one before it.
    </p>
    <WorkedReadings group="straight"
      ><template #empty
        >Nothing was measured yet. Frame and first rail before anything hangs on them: later it costs an evening
        each.</template
      ></WorkedReadings
    >
  </div>
</template>
