<script setup lang="ts">
import { ref } from 'vue'
import { api, reasonOf, type Arrangements } from '@/api/client'
import { written } from '@/shared/decimals'
import { useBuild } from '@/shared/useBuild'
import { mm } from './geometry'
import { usePlaces } from './usePlaces'

/** Proposals for what stands in a cabinet or zone, each drawn on its back wall with what it gives; one is taken or none. */
const props = defineProps<{ place: string }>()
const { id, needs, roleOf } = useBuild()
const { places, edit } = usePlaces()
const found = ref<Arrangements | null>(null)
const reason = ref('')
const busy = ref(false)
type Proposal = Arrangements['proposals'][number]
const rects = (proposal: Proposal) =>
  proposal.rects.map(([x, y, width, height], i) => ({
    name: roleOf(proposal.places[i]?.need ?? ''),
    x,
    y: found.value!.wall[1]! - y! - height!,
    width,
    height,
  }))
async function ask(): Promise<void> {
  busy.value = true
  reason.value = ''
  try {
    found.value = await api.get<Arrangements>(`/api/builds/${id.value}/arrangements/${props.place}`)
  } catch (error) {
    reason.value = reasonOf(error)
  } finally {
    busy.value = false
  }
}
async function take(proposal: Proposal): Promise<void> {
  busy.value = true
  try {
    await edit(
      `${proposal.name}: arrange ${proposal.places.length} parts`,
      proposal.places.map((place) => {
        const held = places.value.get(place.ref)
        if (held === undefined) return { section: 'places', create: place }
        const keys = ['on', 'x', 'y', 'z', 'turned'] as const

        return {
          section: 'places',
          ref: place.ref,
          set: keys.map((key) => ({ path: [key], was: held[key] ?? null, to: place[key] ?? null })),
        }
      }),
    )
    found.value = null
  } catch (error) {
    reason.value = reasonOf(error)
  } finally {
    busy.value = false
  }
}
const metres = (value: number) => `${written((value / 1000).toFixed(1))} m`
</script>

<template>
  <section aria-label="Arrange it">
    <button type="button" class="plain link small" :disabled="busy" @click="ask()">arrange what stands in it</button>
    <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
    <template v-if="found">
      <p v-if="found.proposals.length === 0" class="fails small">
        There is no room for all of it on the back wall, with room for hands and heat: a larger one, or put some of it
        elsewhere.
      </p>
      <p v-if="found.without.length" class="unproven small">
        Left out, their size is not known or they stand in a row of their own:
        {{ found.without.map((need) => needs.get(need)?.role ?? need).join(', ') }}.
      </p>
      <div class="proposals">
        <article v-for="proposal in found.proposals" :key="proposal.name">
          <h3>{{ proposal.name }}</h3>
          <svg :viewBox="`0 0 ${found.wall[0]} ${found.wall[1]}`" role="img" :aria-label="proposal.name">
            <rect :width="found.wall[0]" :height="found.wall[1]" class="wall" />
            <g v-for="rect in rects(proposal)" :key="rect.name">
              <title>{{ rect.name }}</title>
              <rect :x="rect.x" :y="rect.y" :width="rect.width" :height="rect.height" />
            </g>
          </svg>
          <p class="small quiet">{{ proposal.why }}</p>
          <dl class="small">
            <dt>wall used</dt>
            <dd class="figure">{{ mm(proposal.used) }} of {{ mm(found.wall[1]!) }}</dd>
            <dt>leads between them</dt>
            <dd class="figure">{{ metres(proposal.leads) }}</dd>
            <dt>mains to the nearest signal</dt>
            <dd class="figure">{{ proposal.apart === null ? '–' : mm(proposal.apart) }}</dd>
          </dl>
          <v-btn size="small" color="primary" variant="flat" :loading="busy" @click="take(proposal)">Take this</v-btn>
        </article>
      </div>
    </template>
  </section>
</template>

<style scoped>
.proposals {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
}
article {
  width: 190px;
}
h3 {
  margin: 6px 0 2px;
}
svg {
  width: 100%;
  max-height: 220px;
}
rect {
  fill: var(--quiet);
  fill-opacity: 0.25;
  stroke: rgb(var(--v-theme-on-surface));
  stroke-width: 1px;
  vector-effect: non-scaling-stroke;
}
.wall {
  fill: none;
}
dl {
  display: grid;
  grid-template-columns: auto auto;
  gap: 0 8px;
}
dd {
  margin: 0;
  text-align: right;
}
</style>
