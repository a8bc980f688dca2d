<script setup lang="ts">
import QRCode from 'qrcode'
import { computed, ref, watch } from 'vue'
import type { Order } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild, useDerived } from '@/shared/useBuild'

/** Labels for the bags a build comes in, on sheets of A4: what is in it, for which places, and its page on a phone. */
const { id, document: build, needs } = useBuild()
const { data: order } = useDerived<Order>('order', () => 'order')
const only = ref<'here' | 'all'>('here')
const lines = computed(() =>
  (order.value?.wanted ?? []).filter((line) => only.value === 'all' || line.here + line.owned > 0),
)
const codes = ref(new Map<string, string>())
const address = (part: string) => {
  const need = [...needs.value.values()].find((one) => one.choice === part)

  return `${window.location.origin}/builds/${id.value}/choose/parts${need === undefined ? '' : `?part=${need.ref}`}`
}
watch(
  lines,
  async (now) => {
    const made = await Promise.all(
      now.map(async (line): Promise<[string, string]> => [
        line.part,
        await QRCode.toDataURL(address(line.part), { margin: 0, width: 160, errorCorrectionLevel: 'M' }),
      ]),
    )
    codes.value = new Map(made)
  },
  { immediate: true },
)
const print = () => window.print()
</script>

<template>
  <div class="view">
    <div class="view-head controls">
      <h1>Labels for bags</h1>
      <span class="quiet">three to a row and eight rows on A4, without margins of the printer's own</span>
      <span class="choices" role="group" aria-label="Which parts"
        ><button type="button" class="plain" :aria-pressed="only === 'here'" @click="only = 'here'">what is here</button
        ><button type="button" class="plain" :aria-pressed="only === 'all'" @click="only = 'all'">
          all parts
        </button></span
      >
      <span class="push"><v-btn color="primary" :disabled="lines.length === 0" @click="print()">Print</v-btn></span>
    </div>
    <p v-if="order && lines.length === 0" class="empty">
      Nothing is here yet, so there is nothing to label.
      <FirstAction path="buy/orders">See what is ordered</FirstAction>
    </p>
    <div v-else class="sheet">
      <article v-for="line in lines" :key="line.part" class="label">
        <img v-if="codes.get(line.part)" :src="codes.get(line.part)" :alt="`Opens ${line.name}`" />
        <div>
          <strong>{{ line.name }}</strong>
          <span class="roles">{{ line.roles.slice(0, 2).join(', ') }}{{ line.roles.length > 2 ? ' …' : '' }}</span>
          <span class="figure"
            >{{ line.needed }} needed<template v-if="line.spare">, {{ line.spare }} spare</template></span
          >
          <span class="roles">{{ build?.build.name }}</span>
        </div>
      </article>
    </div>
  </div>
</template>

<style scoped>
.sheet {
  display: grid;
  grid-template-columns: repeat(auto-fill, 66mm);
  max-width: 200mm;
  color: #000;
}
.label {
  display: grid;
  grid-template-columns: 24mm 1fr;
  gap: 3mm;
  width: 66mm;
  height: 34mm;
  padding: 3mm;
  overflow: hidden;
  background: #fff;
  border: 0.2mm dashed #999;
  break-inside: avoid;
  font-size: 9pt;
  line-height: 1.25;
}
.label img {
  width: 24mm;
  height: 24mm;
}
.label strong,
.label span {
  display: block;
}
.roles {
  font-size: 8pt;
  color: #444;
}
@media print {
  .controls {
    display: none;
  }
  .view {
    padding: 0;
  }
}
</style>
