<script setup lang="ts">
import type { Finding } from '@/api/client'
import HelpTerms from './HelpTerms.vue'

/** Lines of working: what, formula, the numbers put in, and what came of it. */
defineProps<{ steps: Finding['working'] }>()
</script>

<template>
  <ol class="working">
    <li v-for="(step, i) in steps" :key="i">
      <span class="label"><HelpTerms :text="step.label" /></span>
      <span v-if="step.formula" class="figure formula"
        ><span>{{ step.formula }}</span
        ><template v-if="step.substituted && step.substituted !== step.result"><br />= {{ step.substituted }}</template
        ><template v-if="step.result"
          ><br />= <strong>{{ step.result }}</strong></template
        ></span
      >
    </li>
  </ol>
</template>

<style scoped>
.working {
  margin: 0;
  padding: 0;
  list-style: none;
}
.working li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  font-size: 13.5px;
}
.label {
  font-size: 13px;
}
.formula {
  display: block;
  white-space: normal;
  padding-left: 12px;
}
</style>
