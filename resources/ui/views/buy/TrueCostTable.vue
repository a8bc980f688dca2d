<script setup lang="ts">
import type { TrueCost } from '@/api/client'
import { money } from '@/shared/format'
import { useDerived } from '@/shared/useBuild'

/** What the machine really costs: by why each thing is bought, the drawer at its real value, and when to stop. */
const { data: cost } = useDerived<TrueCost>('true-cost', () => 'true-cost')
const titles: Record<string, string> = {
  core: 'The machine itself',
  safety: 'Safety',
  quality: 'Quality',
  convenience: 'Convenience',
  backup: 'Backup',
  tools: 'Tools',
  consumables: 'Used up',
  spares: 'Spares',
}
const cash = (amount: string | undefined) => money(amount, cost.value?.currency ?? '')
</script>

<template>
  <section v-if="cost">
    <h2>True cost, so far and to come</h2>
    <div class="two">
      <dl class="facts">
        <template v-for="(amount, key) in cost.classes" :key="key"
          ><dt :class="{ quiet: amount === '0.00' }">{{ titles[key] ?? key }}</dt>
          <dd class="figure" :class="{ quiet: amount === '0.00' }">{{ cash(amount) }}</dd></template
        >
        <dt>Shipping, duty, tax, fees</dt>
        <dd class="figure">{{ cash(cost.toll) }}</dd>
        <dt>Contingency</dt>
        <dd class="figure">{{ cash(cost.contingency) }}</dd>
      </dl>
      <dl class="facts">
        <dt>From the drawer, at its real value</dt>
        <dd class="figure">{{ cash(cost.drawer) }}</dd>
        <dt>Faults</dt>
        <dd class="figure">{{ cash(cost.faults) }}</dd>
        <dt>So far</dt>
        <dd class="figure">{{ cash(cost.so_far) }}</dd>
        <dt>Still to come</dt>
        <dd class="figure">{{ cash(cost.to_come) }}</dd>
        <dt><strong>The whole machine</strong></dt>
        <dd class="figure">
          <strong>{{ cash(cost.whole) }}</strong><span v-if="cost.open.length" class="unproven small block"
            >at least: {{ cost.open.length }} open</span
          >
        </dd>
      </dl>
      <p v-if="cost.limit" class="aside" :class="{ fails: !cost.limit.worth_it }">{{ cost.limit.says }}</p>
      <p v-else class="quiet small">
        Describe another route with all its prices, and this says above which sum going on is not worth it.
      </p>
    </div>
    <p v-if="cost.drawer_unpriced.length" class="unproven small">
      No price tells what these are worth from the drawer: {{ cost.drawer_unpriced.join(', ') }}.
    </p>
  </section>
</template>

<style scoped>
h2 {
  margin: 24px 0 4px;
}
.two {
  display: grid;
  grid-template-columns: 260px 300px minmax(0, 1fr);
  gap: 40px;
  align-items: start;
}
.block {
  display: block;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    gap: 8px;
  }
}
</style>
