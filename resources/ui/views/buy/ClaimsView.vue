<script setup lang="ts">
import { computed } from 'vue'
import { reasonOf, type Claim } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { day, money } from '@/shared/format'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

/** What is to be claimed of suppliers, with its evidence, as a letter to send. */
const { id } = useBuild()
const { edit } = useEdit()
const notices = useNotices()
const { data: claims, isError, error } = useDerived<Claim[]>('claims', () => 'claims')
const open = computed(() => (claims.value ?? []).filter((one) => one.open))
const titles = { open: 'Open again', sent: 'It is sent', settled: 'It is settled', refused: 'It is refused' } as const
const states = ['open', 'sent', 'settled', 'refused'] as const

/** What is settled or refused stays so, unless all of it is opened again. */
const moved = (order: Claim, state: (typeof states)[number]) =>
  order.lines.filter((line) => state === 'open' || (line.claim !== 'settled' && line.claim !== 'refused'))
async function become(order: Claim, state: (typeof states)[number]): Promise<void> {
  try {
    await edit(
      `Claim on ${order.order}: ${state}`,
      moved(order, state).map((line) => ({
        section: 'purchases',
        ref: line.purchase,
        set: [{ path: ['claim'], was: line.claim, to: state }],
      })),
    )
    notices.say(`The claim on ${order.order} is ${state}; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
async function copy(text: string): Promise<void> {
  await navigator.clipboard.writeText(text)
  notices.say('The letter is on the clipboard.')
}
const photosOf = (order: Claim) => order.lines.flatMap((line) => line.found.flatMap((look) => look.photos))
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Claims</h1>
      <span v-if="claims?.length" class="quiet">{{ open.length }} of {{ claims.length }} not settled</span>
      <router-link class="link" :to="`/builds/${id}/buy/arrivals`">Arrivals</router-link>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="claims && claims.length === 0" class="empty">
      Nothing that came is short, wrong or bad.
      <FirstAction path="buy/arrivals">Look at what came</FirstAction>
    </p>
    <section v-for="order in claims" :key="order.order" :aria-label="order.order" class="claim">
      <h2>
        {{ order.order }}
        <span class="quiet small"
          >{{ order.supplier }}<template v-if="order.claim_by">, by {{ day(order.claim_by) }}</template
          ><template v-if="Number(order.amount) > 0">, {{ money(order.amount, order.currency) }}</template></span
        >
      </h2>
      <ul class="small">
        <li v-for="line in order.lines" :key="line.purchase">
          <strong>{{ line.name }}</strong><template v-if="line.article">, {{ line.article }}</template
          ><template v-if="line.lot">, lot {{ line.lot }}</template
          >: {{ line.bought }} ordered, {{ line.received }} came<span v-if="line.short" class="tight"
            >, {{ line.short }} missing</span
          ><span v-if="line.returned" class="fails">, {{ line.returned }} sent back</span
          ><span class="quiet">; {{ line.claim === null ? 'not claimed yet' : `claim ${line.claim}` }}</span>
          <span v-for="look in line.found" :key="look.what" class="fails block"
            >{{ look.what }}<template v-if="look.pieces">, on {{ look.pieces }}</template
            ><template v-if="look.notes">: {{ look.notes }}</template></span
          >
          <span v-for="reading in line.readings" :key="reading.what" class="fails block"
            >{{ reading.what }}: measured {{ reading.read }}, by the listing {{ reading.between }}</span
          >
        </li>
      </ul>
      <div class="photos">
        <img
          v-for="photo in photosOf(order)"
          :key="photo"
          :src="`/api/builds/${id}/photos/${photo}`"
          :alt="`Picture for the claim on ${order.order}`"
        />
      </div>
      <details v-if="order.open">
        <summary class="small link">The letter</summary>
        <pre class="letter">{{ order.text }}</pre>
        <v-btn size="small" @click="copy(order.text)">Copy the letter</v-btn>
      </details>
      <p class="acts">
        <v-btn
          v-for="state in states.filter((one) => one !== 'open')"
          :key="state"
          size="small"
          :aria-label="`${titles[state]}: ${order.order}`"
          @click="become(order, state)"
          >{{ titles[state] }}</v-btn
        >
        <v-btn v-if="!order.open" size="small" :aria-label="`Open again: ${order.order}`" @click="become(order, 'open')"
          >Open again</v-btn
        >
      </p>
    </section>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
.claim {
  border-bottom: 1px solid var(--rule);
  padding-bottom: 8px;
}
h2 {
  margin: 14px 0 4px;
}
.block {
  display: block;
  padding-left: 12px;
}
.letter {
  white-space: pre-wrap;
  font-family: var(--text);
  border-left: 3px solid var(--rule);
  padding: 4px 12px;
  margin: 6px 0;
}
.photos {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
img {
  max-width: 180px;
}
.acts {
  margin: 6px 0 0;
}
summary {
  cursor: pointer;
  min-height: 28px;
}
</style>
