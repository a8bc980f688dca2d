<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type LookAhead } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { written } from '@/shared/decimals'
import { percent } from '@/shared/format'
import { useBuild, useDerived } from '@/shared/useBuild'

/** Before each step that closes something in: what has to be in by then, and what a miss costs. */
const { id, document: build } = useBuild()
const { data: ahead, isError, error } = useDerived<LookAhead>('look-ahead', () => 'look-ahead')
const all = ref(false)
const isDone = (state: string | null) => state === 'done' || state === 'skipped'
const closing = computed(() => (ahead.value?.closing ?? []).filter((one) => all.value || !isDone(one.state)))
const missing = (one: LookAhead['closing'][number]) => one.within.filter((part) => part.is_in === false)
const hours = (value: number) => `${written(value.toFixed(1))} h`
/** Closed, and something that belongs under it is not in. */
const missed = computed(() =>
  (ahead.value?.closing ?? []).filter((one) => one.state === 'done' && missing(one).length > 0),
)
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Look ahead</h1>
      <span v-if="ahead" class="quiet">what each step closes in, of {{ hours(ahead.hours) }} in all</span>
      <span class="choices push" role="group" aria-label="Which steps"
        ><button type="button" class="plain" :aria-pressed="!all" @click="all = false">still open</button
        ><button type="button" class="plain" :aria-pressed="all" @click="all = true">all</button></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="ahead && ahead.closing.length === 0" class="empty">
      Nothing is closed in by anything: no joint holds a part that something else sits behind, and no cover is on the
      list.
      <FirstAction path="build/derived">Steps from the model</FirstAction>
    </p>
    <template v-else-if="ahead">
      <section v-if="missed.length" class="missed" aria-label="Closed too early">
        <h2 class="fails">Closed, and something is not in</h2>
        <p v-for="one in missed" :key="one.key">
          “{{ one.title }}” is done.
          <template v-for="part in missing(one)" :key="part.ref"
            >{{ part.what }} is not in:
            <router-link v-if="part.section === 'needs'" class="link" :to="`/builds/${id}/build/way-back/${part.ref}`"
              >{{ part.off }} {{ part.off === 1 ? 'step' : 'steps' }} back, {{ hours(part.hours) }}</router-link
            ><template v-else>{{ hours(part.hours) }}</template
            >.
          </template>
        </p>
      </section>
      <p v-if="!build?.steps?.length" class="quiet">
        There are no steps yet, so nobody knows what is in.
        <router-link class="link" :to="`/builds/${id}/build/derived`">Steps from the model</router-link>
      </p>
      <section v-for="one in closing" :key="one.key" class="closing" :aria-label="one.title">
        <h2>
          <router-link v-if="one.step" class="link" :to="`/builds/${id}/build/bench/${one.step}`">{{
            one.title
          }}</router-link><template v-else>{{ one.title }}</template>
          <span class="quiet small">{{ one.section }}{{ isDone(one.state) ? ', done' : '' }}</span>
        </h2>
        <table class="ledger stack">
          <thead>
            <tr>
              <th>Has to be in</th>
              <th>Is it</th>
              <th class="num">To reach it after</th>
              <th class="num">Of the build</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="part in one.within" :key="`${part.section}/${part.ref}`">
              <td>{{ part.what }}</td>
              <td :class="part.is_in === false ? 'fails' : 'quiet'" class="small">
                {{ part.is_in === null ? 'nobody has said' : part.is_in ? 'is in' : 'not yet' }}
              </td>
              <td class="num figure" data-of="To reach it after">
                <router-link
                  v-if="part.section === 'needs'"
                  class="link"
                  :to="`/builds/${id}/build/way-back/${part.ref}`"
                  >{{ hours(part.hours) }}</router-link><template v-else>{{ hours(part.hours) }}</template>
              </td>
              <td class="num figure" data-of="Of the build">{{ percent(part.share) }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <p v-if="closing.length === 0" class="quiet">All that closes something in is done.</p>
    </template>
  </div>
</template>

<style scoped>
.closing h2 {
  margin: 18px 0 2px;
}
.missed {
  padding: 8px 0;
}
</style>
