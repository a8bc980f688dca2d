<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { stages } from '@/app/stages'

const route = useRoute()
const stage = computed(() => stages.find((one) => one.key === route.params.stage))
</script>

<template>
  <div class="view empty">
    <h1>{{ stage?.title }}</h1>
    <p>{{ stage?.about }}</p>
    <p class="quiet">
      This stage is not here yet. Nothing in it is counted in the tally, and nothing waits for you in it.
    </p>
  </div>
</template>
