<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, reasonOf, type Scope, type Variant, type VariantDiff } from '@/api/client'
import { day, money } from '@/shared/format'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { verdictOrder } from '@/shared/findings'
import { useNotices } from '@/shared/useNotices'
import VerdictMark from '@/shared/VerdictMark.vue'
import RevisionTable from './RevisionTable.vue'
import HelpWord from '@/shared/HelpWord.vue'

const { id, document: build } = useBuild()
const { edit } = useEdit()
const router = useRouter()
const notices = useNotices()
const { data: variants, refetch } = useDerived<Variant[]>('variants', () => 'variants')
const { data: scope } = useDerived<Scope>('scope', () => 'scope')
const other = ref<number | null>(null)
const { data: diff } = useDerived<VariantDiff>('variants', () =>
  other.value === null ? '' : `variants/${other.value}`,
)
const name = ref('')
const reason = ref('')
const scaling = computed(() => scope.value?.scaling ?? [])
const changed = computed(() => (diff.value?.parts ?? []).filter((row) => !row.same))
/** The list's own rule must give what the list says; where it does, the size's count is taken. */
const stale = computed(() => scaling.value.filter((row) => row.wanted !== null && row.wanted !== row.written))

async function fork(): Promise<void> {
  reason.value = ''
  try {
    const { id: forked } = await api.post<{ id: number }>(`/api/builds/${id.value}/variants`, { name: name.value })
    name.value = ''
    await refetch()
    notices.say('The variant is made; changes in it leave this build alone.')
    await router.push(`/builds/${forked}/scope/variants`)
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

async function takeCounts(): Promise<void> {
  try {
    await edit(
      'Counts for this size',
      stale.value.map((row) => ({
        section: 'needs',
        ref: row.need,
        set: [{ path: ['quantity'], was: row.written, to: row.wanted }],
      })),
    )
  } catch (error) {
    notices.problem(error)
  }
}
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Variants</h1>
      <span class="quiet">change a copy, then see what the change did</span>
    </div>
    <form class="fields" @submit.prevent="fork()">
      <input
        v-model="name"
        class="field"
        aria-label="Name of the variant"
        :placeholder="`${build?.build.name}, longer`"
        size="28"
      /><v-btn type="submit" color="primary" size="small" :disabled="name.trim() === ''">Fork this build</v-btn
      ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
    </form>
    <p v-if="(variants ?? []).length === 0" class="quiet">
      No variant yet. Fork the build, change what you like in the copy, and compare the two here.
    </p>
    <table v-else class="ledger narrow">
      <thead>
        <tr>
          <th>Variant</th>
          <th>Is</th>
          <th class="num">Changed</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in variants" :key="one.id" :class="{ picked: other === one.id }">
          <td>
            <router-link class="link" :to="`/builds/${one.id}/scope/variants`">{{ one.name }}</router-link>
          </td>
          <td class="quiet">{{ one.relation === 'origin' ? 'what this was forked from' : 'a fork' }}</td>
          <td class="num quiet">{{ day(one.changed) }}</td>
          <td>
            <v-btn size="small" @click="other = other === one.id ? null : one.id">{{
              other === one.id ? 'Close' : 'Compare'
            }}</v-btn>
          </td>
        </tr>
      </tbody>
    </table>
    <template v-if="diff && other !== null">
      <h2>{{ diff.sides[0]!.name }} beside {{ diff.sides[1]!.name }}</h2>
      <table class="ledger narrow">
        <thead>
          <tr>
            <th />
            <th v-for="side in diff.sides" :key="side.name" class="num">{{ side.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="verdict in verdictOrder" :key="verdict">
            <td><VerdictMark :verdict="verdict" word /></td>
            <td v-for="side in diff.sides" :key="side.name" class="num figure">{{ side.tally[verdict] }}</td>
          </tr>
          <tr>
            <td>Planned</td>
            <td v-for="side in diff.sides" :key="side.name" class="num figure">
              {{ money(side.planned, side.currency)
              }}<span v-if="side.unpriced" class="unproven small"> at least, {{ side.unpriced }} open</span>
            </td>
          </tr>
          <tr>
            <td>Mass of what is weighed</td>
            <td v-for="side in diff.sides" :key="side.name" class="num figure">
              {{ side.mass }}<span class="unit">{{ side.unweighed }} not weighed</span>
            </td>
          </tr>
          <tr v-for="(load, i) in diff.sides[0]!.watts" :key="load.scenario">
            <td>From the wall, {{ load.scenario }}</td>
            <td v-for="side in diff.sides" :key="side.name" class="num figure">
              {{ side.watts[i] ? `${side.watts[i]!.watts} W` : '–' }}
            </td>
          </tr>
          <tr>
            <td>Hours left</td>
            <td v-for="side in diff.sides" :key="side.name" class="num figure">
              {{ side.hours }}<span class="unit">h</span>
            </td>
          </tr>
        </tbody>
      </table>
      <h2>Parts that differ</h2>
      <p v-if="changed.length === 0" class="quiet">
        None: both have the same {{ diff.parts.length }} needs with the same parts.
      </p>
      <table v-else class="ledger">
        <tbody>
          <tr v-for="row in changed" :key="row.need">
            <td>{{ row.role }}</td>
            <td :class="{ quiet: !row.one }">{{ row.one ?? 'not in it' }}</td>
            <td :class="{ quiet: !row.other }">{{ row.other ?? 'not in it' }}</td>
          </tr>
        </tbody>
      </table>
      <h2>Verdicts that differ</h2>
      <p v-if="diff.findings.length === 0" class="quiet">None.</p>
      <table v-else class="ledger">
        <tbody>
          <tr v-for="row in diff.findings" :key="row.key">
            <td class="figure">
              <HelpWord :check="row.key.split('/')[0]">{{ row.key.split('/')[0] }}</HelpWord>
            </td>
            <td>
              {{ row.title }}<span class="quiet small"> {{ row.subject }}</span>
            </td>
            <td v-for="side in [row.one, row.other]" :key="String(side)">
              <VerdictMark v-if="side" :verdict="side" word /><span v-else class="quiet">not asked</span>
            </td>
          </tr>
        </tbody>
      </table>
    </template>

    <h2>What another size means</h2>
    <p v-if="scaling.length === 0" class="quiet small">
      No need follows the machine's size yet. In a part's panel, say that its count or length follows x, y or z.
    </p>
    <table v-else class="ledger narrow">
      <thead>
        <tr>
          <th>Need</th>
          <th>Along</th>
          <th class="num">In the list</th>
          <th class="num">At {{ build?.brief?.kit_size?.x ?? '?' }} × {{ build?.brief?.kit_size?.y ?? '?' }}</th>
          <th class="num">At {{ scope?.work_area.x ?? '?' }} × {{ scope?.work_area.y ?? '?' }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in scaling" :key="row.need">
          <td>
            {{ row.role
            }}<span v-if="row.missing.length" class="unproven small block"
              >Not known yet: {{ row.missing.join('; ') }}.</span
            >
          </td>
          <td>{{ row.along }}</td>
          <td class="num figure">{{ row.written }}</td>
          <td class="num figure">{{ row.as === 'count' ? (row.counted ?? '–') : (row.cut_written ?? '–') }}</td>
          <td class="num figure" :class="{ fails: row.wanted !== null && row.wanted > row.written }">
            {{ row.as === 'count' ? (row.wanted ?? '–') : (row.cut_wanted ?? '–') }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="stale.length">
      <v-btn size="small" color="primary" @click="takeCounts()"
        >{{ stale.length === 1 ? 'Take the count' : `Take the ${stale.length} counts` }} of this size</v-btn
      >
    </p>
    <RevisionTable />
  </div>
</template>

<style scoped>
h2 {
  margin: 24px 0 4px;
}
.narrow {
  max-width: 820px;
}
.block {
  display: block;
}
</style>
