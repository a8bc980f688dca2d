<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, reasonOf, type Harness, type Loom } from '@/api/client'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import HelpTerms from '@/shared/HelpTerms.vue'

/** The list to cut and crimp from: plan it first, then cut wire. Each lead is ticked off when it is made. */
const { id, document: build } = useBuild()
const { data: list, isError, error } = useDerived<Harness>('harness', () => 'harness')
const { set } = useEdit()
const notices = useNotices()
const panel = usePanel()
const use = ref('')
const minutes = ref(2)
const rows = computed(() => (list.value?.rows ?? []).filter((row) => use.value === '' || row.use === use.value))
const hours = computed(() => (((list.value?.joints ?? 0) * minutes.value) / 60).toFixed(1))
const tick = (ref: string, made: boolean) =>
  set(
    `${ref} ${made ? 'made' : 'not made'}`,
    'leads',
    ref,
    ['made'],
    build.value?.leads?.find((lead) => lead.ref === ref)?.made ?? null,
    made ? true : null,
  ).catch(notices.problem)
const labels = () => window.print()
const price = ref('')
const loom = ref<Loom | null>(null)
const reason = ref('')
const hold = () =>
  api
    .get<Loom>(
      `/api/builds/${id.value}/harness/loom?${new URLSearchParams({ price: price.value, minutes: String(minutes.value) })}`,
    )
    .then((found) => {
      loom.value = found
      reason.value = ''
    })
    .catch((problem: unknown) => (reason.value = reasonOf(problem)))
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Harness</h1>
      <span v-if="list" class="quiet">{{ list.made }} of {{ list.rows.length }} leads made</span>
      <select v-model="use" class="field noprint" aria-label="Use of the leads">
        <option value="">every lead</option>
        <option v-for="one in ['mains', 'power', 'motor', 'signal', 'earth']" :key="one">{{ one }}</option>
      </select>
      <span class="push noprint"
        ><v-btn :href="`/api/builds/${id}/harness.csv`">CSV</v-btn
        ><v-btn @click="labels()">Print with labels</v-btn></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="list?.rows.length === 0" class="empty">
      No lead is planned yet. Add leads under Leads: what to cut, crimp and buy follows from them.
      <FirstAction path="prove/leads?propose">Propose leads</FirstAction>
    </p>
    <template v-else-if="list">
      <p class="aside small">
        Mains leads are for somebody practised; local code and a licensed electrician decide. Cut nothing before its row
        lacks nothing.
      </p>
      <table class="ledger list">
        <thead>
          <tr>
            <th>Made</th>
            <th>Lead</th>
            <th>From</th>
            <th>To</th>
            <th class="num">Cores</th>
            <th>Size</th>
            <th class="num">Run</th>
            <th class="num">Cut</th>
            <th>Moves</th>
            <th>Ends</th>
            <th class="num">Pull test</th>
            <th><HelpTerms text="Fuse" /></th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="row in rows"
            :key="row.ref"
            :class="{ done: row.made, picked: panel.open?.kind === 'lead' && panel.open.ref === row.ref }"
            @click="panel.show({ kind: 'lead', ref: row.ref })"
          >
            <td @click.stop>
              <input
                type="checkbox"
                :checked="row.made"
                :aria-label="`${row.ref} is made`"
                @change="tick(row.ref, ($event.target as HTMLInputElement).checked)"
              />
            </td>
            <td class="figure">
              <button type="button" class="plain">{{ row.ref }}</button><span class="quiet small block">{{
                row.use
              }}</span>
            </td>
            <td>
              {{ row.ends[0]!.at }}<span class="quiet small ml-2">{{ row.ends[0]!.port }}</span>
            </td>
            <td>
              {{ row.ends[1]!.at }}<span class="quiet small ml-2">{{ row.ends[1]!.port }}</span>
            </td>
            <td class="num figure">{{ row.cores }}</td>
            <td class="figure">
              {{ row.size ?? '–' }}<span class="quiet small block">{{ row.stranding }}</span>
            </td>
            <td class="num figure">{{ row.length ?? '–' }}</td>
            <td class="num figure">
              <strong>{{ row.cut ?? '–' }}</strong>
            </td>
            <td>{{ row.route ?? '–' }}</td>
            <td class="small">
              <span v-for="(end, i) in row.ends" :key="i" class="block"
                >{{ end.pieces ? `${end.pieces} × ` : '' }}{{ end.contact ?? end.termination ?? 'not said' }}</span
              ><span v-if="row.missing.length" class="unproven block">lacks {{ row.missing.join(', ') }}</span>
            </td>
            <td class="num figure">{{ row.pull === null ? '' : `${row.pull} N` }}</td>
            <td class="small">{{ row.protection }}</td>
          </tr>
        </tbody>
      </table>
      <div class="two noprint">
        <div>
          <h2>Ends and contacts to have</h2>
          <table class="ledger">
            <tbody>
              <tr v-for="one in list.contacts" :key="one.what">
                <td>{{ one.what }}</td>
                <td class="num figure">{{ one.pieces }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <div>
          <h2>Wire to have</h2>
          <table class="ledger">
            <tbody>
              <tr v-for="one in list.conductors" :key="one.what">
                <td>{{ one.what }}</td>
                <td class="num figure">{{ one.metres }} m</td>
              </tr>
            </tbody>
          </table>
          <p class="small">
            {{ list.joints }} joints at
            <input
              v-model.number="minutes"
              class="field"
              type="number"
              min="0.5"
              step="0.5"
              aria-label="Minutes a joint"
              style="width: 64px"
            />
            minutes: <span class="figure">{{ hours }} h</span> to make it.
          </p>
          <form class="fields small asks" @submit.prevent="hold()">
            <label
              >A made-up loom costs
              <input v-model="price" class="field" inputmode="decimal" size="7" aria-label="Price of a made-up loom" />
              <span class="unit">{{ build?.build.currency }}</span></label
            ><v-btn type="submit" size="small" :disabled="price === ''">Compare with making it</v-btn>
          </form>
          <p v-if="loom" class="small">{{ loom.says }}</p>
          <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
        </div>
      </div>
      <section class="labels" aria-label="Labels">
        <div v-for="row in rows" :key="row.ref" class="label">
          <strong>{{ row.ref }}</strong> {{ row.ends[0]!.need }}.{{ row.ends[0]!.port }} → {{ row.ends[1]!.need }}.{{
            row.ends[1]!.port
          }}
        </div>
      </section>
    </template>
  </div>
</template>

<style scoped>
.list td {
  vertical-align: top;
  padding-top: 5px;
}
.block {
  display: block;
}
tr.done td {
  color: var(--quiet);
}
input[type='checkbox'] {
  width: 18px;
  height: 18px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 40px;
}
h2 {
  margin: 24px 0 4px;
}
.labels {
  display: none;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .list {
    display: block;
    overflow-x: auto;
  }
}
@media print {
  .noprint {
    display: none;
  }
  .labels {
    display: grid;
    grid-template-columns: repeat(3, 1fr);
    gap: 3mm;
    break-before: page;
    padding-top: 4mm;
  }
  .label {
    border: 0.3mm dashed;
    padding: 2mm;
    font-size: 9pt;
  }
}
</style>
