<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { reasonOf, type Upkeep } from '@/api/client'
import { written } from '@/shared/decimals'
import { onDay, percent } from '@/shared/format'
import { freshRef } from '@/shared/refs'
import { useAct } from '@/shared/useAct'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import VerdictMark from '@/shared/VerdictMark.vue'
import { me, seconds } from './useReadings'

/** A machine in use: its hours, what is due by them, how it drifts, and its reference pieces. */
const LinePlot = defineAsyncComponent(() => import('./LinePlot.vue'))
const { id, document: build } = useBuild()
const { edit } = useEdit()
const { busy, reason, act } = useAct()
const { data, isError, error } = useDerived<Upkeep>('upkeep', () => 'upkeep')
const when = (at: number | null) => onDay(at) || 'never'
const h = (value: number) => `${written(String(value))} h`
const doing = ref<string | null>(null)
const found = ref('')
const trouble = ref(false)
const reviewed = { key: 'review', title: 'Look at the whole of it again' }
const round = (task: { key: string; title: string }) =>
  act(async () => {
    const by = await me()
    await edit(`${task.title}: done`, [
      {
        section: 'rounds',
        create: {
          ref: freshRef('U', build.value?.rounds, false),
          task: task.key,
          at: seconds(),
          ...(found.value.trim() ? { found: found.value.trim() } : {}),
          ...(trouble.value ? { trouble: true } : {}),
          ...(by === undefined ? {} : { by }),
        },
      },
    ])
    doing.value = null
    found.value = ''
    trouble.value = false
  })
/** A reference piece: one line for each thing measured on it. */
const piece = ref({ piece: '', recipe: '', material: '', changed: '', features: '' })
const making = ref(false)
const keep = () =>
  act(async () => {
    const { features, ...words } = piece.value
    const by = await me()
    const read = features
      .split('\n')
      .map((line) => line.split(/[;\t]/).map((cell) => cell.trim()))
      .filter((cells) => cells[0])
      .map(([name, nominal, tolerance, measured]) => ({
        name,
        nominal,
        tolerance,
        ...(measured ? { measured } : {}),
      }))
    await edit(`Reference piece ${words.piece}`, [
      {
        section: 'tests',
        create: {
          ref: freshRef('T', build.value?.tests, false),
          at: seconds(),
          ...Object.fromEntries(Object.entries(words).filter(([, text]) => text.trim() !== '')),
          ...(read.length ? { features: read } : {}),
          ...(by === undefined ? {} : { by }),
        },
      },
    ])
    making.value = false
    piece.value = { piece: '', recipe: '', material: '', changed: '', features: '' }
  })
const anyway = computed(() => data.value?.hours[0]?.hours ?? 0)
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Upkeep</h1>
      <span v-if="data" class="quiet">{{ h(anyway) }} in use</span>
      <router-link class="link" :to="`/builds/${id}/run/jobs`">Log a job</router-link>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="data">
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
      <dl class="across">
        <div v-for="one in data.hours" :key="one.what">
          <dt>{{ one.what }}</dt>
          <dd class="figure">{{ h(one.hours) }}</dd>
        </div>
      </dl>
      <h2>Due by hours</h2>
      <table class="ledger stack">
        <thead>
          <tr>
            <th>What</th>
            <th class="num">Since</th>
            <th class="num">Every</th>
            <th class="wide-only">Last</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="task in data.due" :key="task.key">
            <tr>
              <td>
                <span :class="{ tight: task.due }">{{ task.title }}{{ task.due ? ', due' : '' }}</span>
                <span class="quiet small block">{{ task.why }}</span>
              </td>
              <td class="num figure" data-of="Since">{{ h(task.since) }}</td>
              <td class="num figure" data-of="Every">{{ h(task.every) }}</td>
              <td class="small quiet wide-only">
                {{ when(task.last) }}<span v-if="task.found" class="block">{{ task.found }}</span>
              </td>
              <td>
                <button type="button" class="plain link small" @click="doing = doing === task.key ? null : task.key">
                  done now
                </button>
              </td>
            </tr>
            <tr v-if="doing === task.key">
              <td colspan="5">
                <form class="fields" @submit.prevent="round(task)">
                  <input v-model="found" class="field" aria-label="What was found" placeholder="what was found" />
                  <label class="small"><input v-model="trouble" type="checkbox" /> look again sooner</label>
                  <v-btn type="submit" size="small" color="primary" variant="flat" :loading="busy">Store</v-btn>
                </form>
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <template v-if="data.next.length">
        <h2>Next, safety before looks</h2>
        <ul>
          <li v-for="one in data.next" :key="one.what + one.why">
            <router-link class="link" :to="`/builds/${id}/${one.where}`">{{ one.what }}</router-link>: {{ one.why }}
            <button
              v-if="one.what === reviewed.title"
              type="button"
              class="plain link small"
              :disabled="busy"
              @click="round(reviewed)"
            >
              done now
            </button>
          </li>
        </ul>
      </template>
      <template v-if="data.upgrades.length">
        <h2>Still to be fitted</h2>
        <ul aria-label="Upgrades">
          <li v-for="one in data.upgrades" :key="one.need">
            <router-link class="link" :to="`/builds/${id}/choose/parts?part=${one.need}`">{{ one.what }}</router-link>
            <span class="quiet"
              >{{ one.why }}<template v-if="one.begun">, begun</template
              ><template v-if="one.itself">, this machine can make it</template></span
            >
          </li>
        </ul>
      </template>
      <h2>Drift</h2>
      <p v-if="data.trends.length === 0" class="quiet">
        Nothing was read twice yet. The same reading after some months says what wears.
      </p>
      <section v-for="one in data.trends" :key="one.what + one.where" :aria-label="`${one.what} of ${one.where}`">
        <h3>
          {{ one.what }} of {{ one.where }}
          <span class="figure quiet"
            >{{ written(String(one.first)) }} → {{ written(String(one.last)) }} {{ one.unit
            }}<template v-if="one.drift !== null">, {{ percent(one.drift) }}</template></span
          >
        </h3>
        <p v-if="one.says" class="tight small">{{ one.says }}</p>
        <LinePlot
          v-if="one.points.length > 2"
          :lines="[{ name: one.what, points: one.points }]"
          :y="one.unit"
          :label="`${one.what} of ${one.where} over time`"
        />
      </section>
      <h2>Reference pieces</h2>
      <p class="small quiet">
        One piece, made again after each single change, sliced for this machine; held only against its like.
        <button type="button" class="plain link" @click="making = !making">add one</button>
      </p>
      <form v-if="making" class="piece" @submit.prevent="keep()">
        <div class="fields">
          <input v-model="piece.piece" class="field" aria-label="Which piece" placeholder="which piece" />
          <input
            v-model="piece.recipe"
            class="field"
            aria-label="Slice or tool path"
            placeholder="slice or tool path"
          />
          <input v-model="piece.material" class="field" aria-label="Material of the piece" placeholder="material" />
          <input
            v-model="piece.changed"
            class="field"
            aria-label="What was changed"
            placeholder="the one thing changed"
          />
        </div>
        <textarea
          v-model="piece.features"
          class="field"
          rows="4"
          aria-label="What was measured, a line each"
          placeholder="long side; 200 mm; 0.3 mm; 199.9 mm"
        />
        <v-btn type="submit" size="small" color="primary" variant="flat" :loading="busy" :disabled="!piece.piece"
          >Store</v-btn
        >
      </form>
      <template v-for="group in data.pieces" :key="group.piece + group.recipe + group.material">
        <h3>
          {{ group.piece }}
          <span class="quiet small">{{ [group.recipe, group.material].filter(Boolean).join(', ') }}</span>
        </h3>
        <table class="ledger stack">
          <thead>
            <tr>
              <th>When</th>
              <th>Changed</th>
              <th>Measured</th>
              <th>Verdict</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="made in group.made" :key="made.ref">
              <td class="small">{{ when(made.at) }}</td>
              <td>{{ made.changed }}</td>
              <td class="small">
                <span v-for="feature in made.features" :key="feature.name" class="block"
                  >{{ feature.name }}:
                  <span class="figure" :class="{ fails: feature.verdict === 'fails' }">{{
                    feature.measured ?? 'not measured'
                  }}</span>
                  <span class="quiet"> of {{ feature.nominal }} ± {{ feature.tolerance }}</span></span
                >
              </td>
              <td><VerdictMark :verdict="made.verdict" word /></td>
            </tr>
          </tbody>
        </table>
      </template>
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
}
h3 {
  margin: 10px 0 2px;
}
.block {
  display: block;
}
.piece {
  max-width: 760px;
}
ul {
  padding-left: 20px;
}
</style>
