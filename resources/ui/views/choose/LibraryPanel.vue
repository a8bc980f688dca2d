<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, Problem, reasonOf, type EditResult, type Family, type LibraryEntry, type LibraryItem } from '@/api/client'
import { uuid } from '@/shared/refs'
import EditCell from '@/shared/EditCell.vue'
import HelpWord from '@/shared/HelpWord.vue'
import { money, today } from '@/shared/format'
import { useBuild, useCatalogue, useEdit, useEvidence, useFieldHelp } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'

/** One part of the library: its sheet, prices, faults and pairings; and the needs of this build it could fill. */
const props = defineProps<{ item: number }>()
const { id, needs } = useBuild()
const { absorb } = useEdit()
const { data: catalogue } = useCatalogue()
const helpOf = useFieldHelp()
const client = useQueryClient()
const panel = usePanel()
const notices = useNotices()
const query = useQuery({
  queryKey: computed(() => ['library-item', props.item]),
  queryFn: () => api.get<LibraryItem>(`/api/library/${props.item}`),
  retry: false,
})
const entry = computed(() => query.data.value?.entry)
const part = computed(() => entry.value?.part)
const family = computed<Family | undefined>(() =>
  catalogue.value?.families.find((one) => one.key === part.value?.family),
)
const allFields = ref(false)
const offer = ref({ supplier: '', price: '', currency: 'GBP', pack: 1 })
const pairing = ref({ with: '', what: '' })
const fault = ref({ what: '', severity: 'defect' })
const reason = ref('')
type Spec = { value: string | boolean; evidence?: string; source?: string }
const specOf = (key: string) => part.value?.specs?.[key] as Spec | undefined
/** An empty sheet is shown whole: there is all of it to fill in. */
const bare = computed(() => Object.keys(part.value?.specs ?? {}).length === 0)
const fields = computed(() =>
  (family.value?.fields ?? []).filter(
    (field) => allFields.value || bare.value || specOf(field.key) !== undefined || field.checks.length > 0,
  ),
)
const evidence = useEvidence()
const fitting = computed(() => [...needs.value.values()].filter((need) => need.family === part.value?.family))
const shown = (key: string) => {
  const spec = specOf(key)
  return spec === undefined ? null : typeof spec.value === 'boolean' ? (spec.value ? 'yes' : 'no') : spec.value
}

/** Puts the entry as it should be; another screen's change in between is told and nothing is lost. */
async function put(change: (entry: LibraryEntry) => LibraryEntry): Promise<void> {
  const held = query.data.value!
  try {
    const item = await api.put<LibraryItem>(`/api/library/${props.item}`, {
      entry: change(structuredClone(JSON.parse(JSON.stringify(held.entry)) as LibraryEntry)),
      version: held.version,
    })
    client.setQueryData(['library-item', props.item], item)
    void client.invalidateQueries({ queryKey: ['library'] })
  } catch (error) {
    if (error instanceof Problem && error.body.status === 409) {
      void query.refetch()
      throw new Error('Another screen changed this part just now. You see it as it is; store again what you typed.', {
        cause: error,
      })
    }
    throw error
  }
}
const setSpec = (key: string) => (text: string) =>
  put((held) => {
    const specs = { ...(held.part.specs ?? {}) } as Record<string, Spec>
    if (text === '') delete specs[key]
    else
      specs[key] = {
        evidence: 'listing',
        ...specs[key],
        value: family.value?.fields.find((field) => field.key === key)?.kind === 'flag' ? text === 'yes' : text,
      }

    return { ...held, part: { ...held.part, specs: specs as LibraryEntry['part']['specs'] } }
  })
const setEvidence = (key: string) => (text: string) =>
  put((held) => ({
    ...held,
    part: {
      ...held.part,
      specs: {
        ...held.part.specs,
        [key]: { ...(held.part.specs?.[key] as object), evidence: text },
      } as LibraryEntry['part']['specs'],
    },
  }))
const setPart = (path: 'name' | 'notes') => (text: string) =>
  put((held) => ({ ...held, part: { ...held.part, [path]: text || undefined } }))
const setOwn = (path: 'revision' | 'spares') => (text: string) =>
  put((held) => ({ ...held, [path]: text || undefined }))
const options = (field: Family['fields'][number]) =>
  (field.kind === 'flag' ? ['yes', 'no'] : field.kind === 'choice' ? field.choices : undefined)?.map((one) => ({
    value: one,
    title: one,
  }))

async function guarded(work: () => Promise<unknown>, after: () => void): Promise<void> {
  reason.value = ''
  try {
    await work()
    after()
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
const addOffer = () =>
  guarded(
    () => put((held) => ({ ...held, offers: [...(held.offers ?? []), { ...offer.value, date: today() }] })),
    () => (offer.value = { ...offer.value, price: '' }),
  )
const addFault = () =>
  guarded(
    () => put((held) => ({ ...held, faults: [...(held.faults ?? []), { ...fault.value, reports: 1 }] })),
    () => (fault.value.what = ''),
  )
const addPairing = () =>
  guarded(
    () => put((held) => ({ ...held, pairings: [...(held.pairings ?? []), { ...pairing.value, bad: 1, good: 0 }] })),
    () => (pairing.value = { with: '', what: '' }),
  )
const report = (i: number, which: 'bad' | 'good') =>
  guarded(
    () =>
      put((held) => ({
        ...held,
        pairings: (held.pairings ?? []).map((one, j) => (j === i ? { ...one, [which]: (one[which] ?? 0) + 1 } : one)),
      })),
    () => undefined,
  )
const again = (i: number) =>
  guarded(
    () =>
      put((held) => ({
        ...held,
        faults: (held.faults ?? []).map((one, j) => (j === i ? { ...one, reports: (one.reports ?? 1) + 1 } : one)),
      })),
    () => undefined,
  )
const adopt = (need: string) =>
  guarded(
    async () =>
      absorb(
        await api.post<EditResult>(`/api/builds/${id.value}/needs/${need}/candidates`, {
          library: props.item,
          key: uuid(),
        }),
      ),
    () => {
      notices.say('It is a candidate now; Compare shows what it would turn.')
      void query.refetch()
    },
  )

async function remove(): Promise<void> {
  await guarded(
    () => api.delete(`/api/library/${props.item}`),
    () => {
      panel.close()
      void client.invalidateQueries({ queryKey: ['library'] })
      notices.say('It is out of the library; “Undo the last change” brings it back.')
    },
  )
}
</script>

<template>
  <p v-if="query.isError.value" class="quiet">This part is not in the library any more.</p>
  <template v-else-if="entry && part">
    <h2><EditCell label="Name of the part" :value="part.name" :save="setPart('name')" /></h2>
    <p class="quiet small">{{ family?.title }} · {{ part.ref }}</p>
    <p v-if="entry.example" class="aside small unproven">
      An invented example to start with. Check every value against the part you really buy.
    </p>
    <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
    <div v-if="fitting.length" class="fields">
      <span class="small quiet">Candidate for</span
      ><v-btn v-for="need in fitting.slice(0, 6)" :key="need.ref" size="small" @click="adopt(need.ref)">{{
        need.role
      }}</v-btn>
    </div>
    <p v-if="query.data.value!.used_in.length" class="small">Chosen in {{ query.data.value!.used_in.join('; ') }}.</p>
    <table class="ledger">
      <thead>
        <tr>
          <th>Spec</th>
          <th class="num">Value</th>
          <th>Rests on</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="field in fields" :key="field.key">
          <td>
            <HelpWord :lines="helpOf(field)">{{ field.label }}</HelpWord><span
              v-if="field.checks.length"
              class="quiet small ml-2"
              >{{ field.checks.join(' ') }}</span
            ><span v-else-if="!field.compared" class="quiet small ml-2">read by no check</span>
          </td>
          <td class="num">
            <EditCell
              :figure="field.dimension !== null"
              :label="field.label"
              :value="shown(field.key)"
              :unit="field.unit"
              :options="options(field)"
              :save="setSpec(field.key)"
            />
          </td>
          <td class="small">
            <EditCell
              v-if="specOf(field.key)"
              :label="`What ${field.label} rests on`"
              :value="specOf(field.key)!.evidence"
              :otherwise="'assumed'"
              :options="evidence"
              :save="setEvidence(field.key)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="!bare" class="small">
      <button type="button" class="plain link" @click="allFields = !allFields">
        {{ allFields ? 'Only what is given or read by a check' : 'The whole sheet' }}
      </button>
    </p>
    <dl class="facts">
      <dt>Revision</dt>
      <dd><EditCell label="Revision" :value="entry.revision" placeholder="not said" :save="setOwn('revision')" /></dd>
      <dt>Spares to keep</dt>
      <dd>
        <EditCell
          figure
          label="Spares to keep"
          :value="entry.spares"
          unit="%"
          placeholder="none"
          :save="setOwn('spares')"
        />
      </dd>
    </dl>
    <h3>Prices</h3>
    <ul class="plain-list">
      <li v-for="(one, i) in entry.offers" :key="i">
        <span class="figure">{{ money(one.price, one.currency) }}</span><template v-if="(one.pack ?? 1) > 1">
          for {{ one.pack }}</template
        >, {{ one.supplier }}, {{ one.date
        }}<span v-if="one.lead_days" class="quiet small ml-2">{{ one.lead_days }} days</span>
      </li>
    </ul>
    <form class="fields" @submit.prevent="addOffer()">
      <input v-model="offer.supplier" class="field" aria-label="Supplier" placeholder="Supplier" size="14" /><input
        v-model="offer.price"
        class="field"
        aria-label="Price"
        placeholder="Price"
        size="6"
      /><input v-model="offer.currency" class="field" aria-label="Currency" size="4" /><input
        v-model.number="offer.pack"
        class="field"
        type="number"
        min="1"
        aria-label="Pieces in the pack"
        style="width: 60px"
      /><v-btn type="submit" size="small" :disabled="offer.supplier === '' || offer.price === ''">Add</v-btn>
    </form>
    <h3>Known faults</h3>
    <ul class="plain-list">
      <li v-for="(one, i) in entry.faults" :key="i">
        <span :class="one.severity === 'danger' ? 'danger' : ''">{{ one.what }}</span>
        <span class="quiet small">{{ one.severity.replace('_', ' ') }}, {{ one.reports ?? 1 }} reports</span>
        <button type="button" class="plain link small" @click="again(i)">mine has it too</button
        ><span v-if="one.fix" class="small block">{{ one.fix }}</span>
      </li>
    </ul>
    <form class="fields" @submit.prevent="addFault()">
      <input
        v-model="fault.what"
        class="field"
        aria-label="What is wrong with it"
        placeholder="What is wrong with it"
        size="26"
      /><select v-model="fault.severity" class="field" aria-label="How bad">
        <option v-for="one in catalogue?.severities" :key="one" :value="one">
          {{ one.replace('_', ' ') }}
        </option></select
      ><v-btn type="submit" size="small" :disabled="fault.what === ''">Add it</v-btn>
    </form>
    <h3>Does not go with</h3>
    <ul class="plain-list">
      <li v-for="(one, i) in entry.pairings" :key="i">
        {{ one.with }}<span class="small block">{{ one.what }}</span
        ><span class="quiet small"
          >{{ one.bad }} say it failed
          <button type="button" class="plain link" @click="report(i, 'bad')">mine failed too</button> ·
          {{ one.good }} say it worked
          <button type="button" class="plain link" @click="report(i, 'good')">mine works too</button></span
        >
      </li>
    </ul>
    <form class="fields" @submit.prevent="addPairing()">
      <input v-model="pairing.with" class="field" aria-label="With what" placeholder="With what" size="16" /><input
        v-model="pairing.what"
        class="field"
        aria-label="What happens"
        placeholder="What happens"
        size="20"
      /><v-btn type="submit" size="small" :disabled="pairing.with === '' || pairing.what === ''">Add it</v-btn>
    </form>
    <h3>Notes</h3>
    <EditCell long label="Notes" :value="part.notes" placeholder="none" :save="setPart('notes')" />
    <p class="mt-5">
      <button type="button" class="plain link small" @click="remove()">Remove from the library</button>
    </p>
  </template>
</template>

<style scoped>
h3 {
  margin: 16px 0 2px;
}
.plain-list {
  list-style: none;
  padding: 0;
  margin: 0;
  font-size: 14px;
}
.plain-list li {
  padding: 3px 0;
}
.block {
  display: block;
}
table.ledger th {
  background: var(--sheet);
}
</style>
