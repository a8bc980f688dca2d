<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, reasonOf, type Remedies, type Remedy, type RemedySet } from '@/api/client'
import { money } from '@/shared/format'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import VerdictMark from '@/shared/VerdictMark.vue'
import HelpWord from '@/shared/HelpWord.vue'

/** Several findings put right at once, at the least cost there is among the fixes found for each. */
const { id, document: build } = useBuild()
const { findings } = useFindings()
const { edit } = useEdit()
const notices = useNotices()
const wanted = ref<string[]>([])
const done = ref(0)
const state = ref<'choosing' | 'looking' | 'found'>('choosing')
const offers = ref<Remedy[]>([])
const set = ref<RemedySet | null>(null)
const reason = ref('')
let stop: AbortController | null = null
const short = computed(() => findings.value.filter((finding) => ['danger', 'fails'].includes(finding.verdict)))
const all = (keys: string[]) => (wanted.value = keys)
const titleOf = (key: string) => {
  const found = findings.value.find((finding) => finding.key === key)
  return found ? `${found.title}, ${found.subject.label}` : key
}

async function look(): Promise<void> {
  state.value = 'looking'
  done.value = 0
  reason.value = ''
  offers.value = []
  stop = new AbortController()
  try {
    for (const key of wanted.value) {
      const found = await api.get<Remedies>(`/api/builds/${id.value}/remedies/${key}`, stop.signal)
      offers.value = [
        ...offers.value,
        ...found.remedies.filter(
          (remedy) => !offers.value.some((one) => JSON.stringify(one.changes) === JSON.stringify(remedy.changes)),
        ),
      ]
      done.value++
    }
    set.value = await api.post<RemedySet>(`/api/builds/${id.value}/remedies`, {
      keys: wanted.value,
      offers: offers.value.map((one) => ({
        says: one.says,
        changes: one.changes,
        cured: Object.keys(one.cured),
        cost: Number(one.cost),
        buys: one.buys,
      })),
    })
    state.value = 'found'
  } catch (error) {
    reason.value = stop.signal.aborted ? '' : reasonOf(error)
    state.value = 'choosing'
  }
}
async function apply(): Promise<void> {
  try {
    await edit(`${set.value!.chosen.length} fixes together`, set.value!.changes)
    notices.say(`${set.value!.chosen.length} fixes made; u takes them all back.`)
    state.value = 'choosing'
    wanted.value = []
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <section class="aside together" aria-label="Fixes together">
    <template v-if="state === 'choosing'">
      <p>
        Which findings shall be put right together?
        <button type="button" class="plain link" @click="all(short.map((one) => one.key))">
          all {{ short.length }}
        </button>
        ·
        <button
          type="button"
          class="plain link"
          @click="all(short.filter((one) => one.verdict === 'danger').map((one) => one.key))"
        >
          the dangers
        </button>
        · <button type="button" class="plain link" @click="all([])">none</button>
      </p>
      <div class="list">
        <label v-for="finding in short" :key="finding.key"
          ><input v-model="wanted" type="checkbox" :value="finding.key" />
          <VerdictMark :verdict="finding.verdict" :size="12" />
          <HelpWord inside :check="finding.check"
            ><span class="figure quiet">{{ finding.check }}</span></HelpWord
          >
          {{ finding.subject.label }}</label
        >
      </div>
      <p>
        <v-btn size="small" color="primary" :disabled="wanted.length === 0" @click="look()"
          >Find the cheapest set</v-btn
        >
        <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
      </p>
    </template>
    <p v-else-if="state === 'looking'" role="status">
      Trying fixes for {{ titleOf(wanted[Math.min(done, wanted.length - 1)] ?? '') }}: {{ done }} of
      {{ wanted.length }}. <progress aria-label="Findings tried" :value="done" :max="wanted.length" />
      <v-btn size="small" @click="stop?.abort()">Stop</v-btn>
    </p>
    <template v-else-if="set">
      <p v-if="set.chosen.length === 0">No set of these fixes cures them without making something worse.</p>
      <template v-else>
        <p>
          <strong>{{ set.chosen.length }} fixes</strong> cure {{ wanted.length - set.left.length }} of
          {{ wanted.length }} findings for
          <span class="figure">{{ money((set.cost ?? 0).toFixed(2), build?.build.currency ?? '') }}</span>.
          {{
            set.proven || (set.gap ?? 1) < 0.005
              ? 'No set of the fixes found costs less.'
              : `At most ${money((set.gap ?? 0).toFixed(2), build?.build.currency ?? '')} could be saved by a set that was not tried.`
          }}
          The whole build was inspected with it: nothing gets worse.
        </p>
        <ol>
          <li v-for="i in set.chosen" :key="i">
            {{ offers[i]?.says }}
            <span class="quiet small">{{
              Number(offers[i]?.cost) === 0
                ? offers[i]?.buys
                  ? 'price not in the plan'
                  : 'nothing to buy'
                : money(offers[i]?.cost ?? '0', build?.build.currency ?? '')
            }}</span>
          </li>
        </ol>
      </template>
      <p v-if="set.left.length" class="fails small">No fix was found for: {{ set.left.map(titleOf).join('; ') }}.</p>
      <p>
        <v-btn v-if="set.chosen.length" size="small" color="primary" @click="apply()"
          >Apply all {{ set.chosen.length }}</v-btn
        >
        <v-btn size="small" @click="state = 'choosing'">Choose again</v-btn>
        <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
      </p>
    </template>
  </section>
</template>

<style scoped>
.together {
  font-size: 14px;
  margin-bottom: 14px;
}
.together p {
  margin: 4px 0;
}
progress {
  accent-color: var(--live);
  vertical-align: middle;
}
.list {
  columns: 2;
  max-height: 240px;
  overflow: auto;
}
.list label {
  display: block;
  break-inside: avoid;
  padding: 2px 0;
}
ol {
  margin: 4px 0;
  padding-left: 20px;
}
@media (max-width: 700px) {
  .list {
    columns: 1;
  }
}
</style>
