<script setup lang="ts">
import { computed, ref } from 'vue'
import { useQuery } from '@tanstack/vue-query'
import { api, reasonOf, type Bag, type BagLines, type ScrewInHand } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { freeRef, refFrom, toggled } from '@/shared/refs'
import { useAct } from '@/shared/useAct'
import { useInTurn } from '@/shared/useInTurn'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'

/** Bags of small parts: what they came with, what went in, what should be left, and which screw this one is. */
const { id, document: build, roleOf } = useBuild()
const { edit, set, remove } = useEdit()
const { data: catalogue } = useCatalogue()
const { data: ledger, isError, error } = useDerived<BagLines[]>('bags', () => 'bags')
const { reason, act } = useAct()
const inTurn = useInTurn()
const label = ref('')
const adding = ref<Record<string, string>>({})
const hand = ref({ length: '', thread: '', head: '' })
const asked = ref('')
const { data: found, error: unread } = useQuery({
  queryKey: computed(() => ['screw', id.value, asked.value]),
  queryFn: () => api.get<ScrewInHand[]>(`/api/builds/${id.value}/screw-in-hand?${asked.value}`),
  enabled: computed(() => asked.value !== ''),
  retry: false,
})
const heads = computed(
  () =>
    catalogue.value?.families.find((one) => one.key === 'screw')?.fields.find((field) => field.key === 'head')
      ?.choices ?? [],
)
const bags = computed(() => build.value?.bags ?? [])
const linesOf = (bag: Bag) => ledger.value?.find((one) => one.ref === bag.ref)?.lines ?? []
const short = computed(() => (ledger.value ?? []).flatMap((bag) => bag.lines.filter((line) => line.short > 0)).length)
const free = (bag: Bag) =>
  (build.value?.needs ?? []).filter((need) => !(bag.holds ?? []).some((line) => line.need === need.ref))

const count =
  (bag: Bag, i: number, what: 'expected' | 'found' | 'left') =>
  (text: string, was: unknown): Promise<void> =>
    set(
      `${what === 'left' ? 'Left in' : what === 'found' ? 'Found in' : 'Expected in'} ${bag.label}`,
      'bags',
      bag.ref,
      ['holds', i, what],
      was,
      text === '' ? null : /^\d+$/.test(text) ? Number(text) : text,
    )
const instead = (bag: Bag, i: number) => (text: string, was: unknown) =>
  set(`What went in for it, of ${bag.label}`, 'bags', bag.ref, ['holds', i, 'instead_of'], was, text || null)
const add = () =>
  act(async () => {
    await edit(`Bag ${label.value}`, [
      {
        section: 'bags',
        create: {
          ref: freeRef(refFrom(label.value, 'bag'), (one) => bags.value.some((bag) => bag.ref === one)),
          label: label.value,
        },
      },
    ])
    label.value = ''
  })
const put = (bag: Bag) =>
  act(async () => {
    const need = adding.value[bag.ref]!
    const quantity = build.value?.needs?.find((one) => one.ref === need)?.quantity ?? 1
    await set(`${roleOf(need)} in ${bag.label}`, 'bags', bag.ref, ['holds'], bag.holds ?? null, [
      ...(bag.holds ?? []),
      { need, expected: quantity },
    ])
    adding.value[bag.ref] = ''
  })
const take = (bag: Bag, i: number) =>
  act(() => {
    const left = (bag.holds ?? []).filter((_, at) => at !== i)

    return set(`A line of ${bag.label}`, 'bags', bag.ref, ['holds'], bag.holds ?? null, left.length ? left : null)
  })
const meant = (bag: Bag, step: string) =>
  act(() =>
    inTurn(() => {
      const held = build.value?.bags?.find((one) => one.ref === bag.ref)?.for

      return set(`What ${bag.label} is for`, 'bags', bag.ref, ['for'], held ?? null, toggled(held, step))
    }),
  )
const look = () => (asked.value = new URLSearchParams(hand.value).toString())
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Bags</h1>
      <span v-if="bags.length" class="quiet"
        >{{ bags.length }} {{ bags.length === 1 ? 'bag' : 'bags'
        }}<template v-if="short">, {{ short }} {{ short === 1 ? 'line' : 'lines' }} short</template></span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <form class="hand asks" aria-label="The screw in hand" @submit.prevent="look()">
      <strong>The screw in hand</strong>
      <input
        v-model="hand.length"
        class="field"
        aria-label="Length under the head"
        placeholder="11.9 mm long"
        size="12"
      />
      <input
        v-model="hand.thread"
        class="field"
        aria-label="Thread, measured or by name"
        placeholder="2.9 mm, or M3"
        size="12"
      />
      <select v-model="hand.head" class="field" aria-label="Head">
        <option value="">any head</option>
        <option v-for="head in heads" :key="head" :value="head">{{ head }}</option>
      </select>
      <v-btn type="submit" size="small" :disabled="!hand.length.trim()">Which is it?</v-btn>
      <span v-if="unread" class="danger" role="alert">{{ reasonOf(unread) }}</span>
      <span v-else-if="found && found.length === 0" class="fails">None of the list is like that.</span>
      <ul v-else-if="found" class="found">
        <li v-for="one in found" :key="one.need">
          <strong>{{ one.part }}</strong>: {{ one.role }}
          <span class="quiet">{{ one.off }}{{ one.bags.length ? `, in ${one.bags.join(', ')}` : '' }}</span>
        </li>
      </ul>
    </form>
    <p v-if="bags.length === 0" class="empty">
      No bag is listed. Note what each came with as it is opened: what steps use is taken off, what is short is
      explained by an optional step or a substitution, and what one bag has over is offered where another runs short.
    </p>
    <section v-for="bag in bags" :key="bag.ref" class="bag" :aria-label="bag.label">
      <h2>
        {{ bag.label }}
        <button
          type="button"
          class="plain link small"
          :aria-label="`Delete ${bag.label}`"
          @click="remove(`Delete bag ${bag.label}`, bag.label, 'bags', bag.ref)"
        >
          delete
        </button>
      </h2>
      <table v-if="bag.holds?.length" class="ledger stack">
        <thead>
          <tr>
            <th>What</th>
            <th class="num">Expected</th>
            <th class="num">Found</th>
            <th class="num">Went in</th>
            <th class="num">Should be left</th>
            <th class="num">Left</th>
            <th class="num">Still to come</th>
            <th>State</th>
            <th>Went in for</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(line, i) in linesOf(bag)" :key="line.need">
            <td>{{ line.role }}</td>
            <td class="num" data-of="Expected">
              <EditCell
                figure
                :label="`Expected of ${line.role}`"
                :value="line.expected"
                :save="count(bag, i, 'expected')"
              />
            </td>
            <td class="num" data-of="Found">
              <EditCell
                figure
                :label="`Found of ${line.role}`"
                :value="line.found"
                placeholder="count"
                :save="count(bag, i, 'found')"
              />
            </td>
            <td class="num figure" data-of="Went in">{{ line.used }}</td>
            <td class="num figure" data-of="Should be left">{{ line.due }}</td>
            <td class="num" data-of="Left">
              <EditCell
                figure
                :label="`Left of ${line.role}`"
                :value="line.counted"
                placeholder="count"
                :save="count(bag, i, 'left')"
              />
            </td>
            <td class="num figure" data-of="Still to come">{{ line.to_come }}</td>
            <td :class="line.short ? 'fails' : 'quiet'" class="small">
              {{ line.short ? `${line.short} short` : line.state }}
              <span v-for="why in line.why" :key="why" class="quiet why">{{ why }}</span>
            </td>
            <td>
              <EditCell
                :label="`What ${line.role} went in for`"
                :value="bag.holds?.[i]?.instead_of"
                :options="
                  (build?.needs ?? [])
                    .filter((need) => need.ref !== line.need)
                    .map((need) => ({ value: need.ref, title: need.role }))
                "
                placeholder="itself"
                :save="instead(bag, i)"
              />
            </td>
            <td>
              <button type="button" class="plain link small" :aria-label="`remove ${line.role}`" @click="take(bag, i)">
                remove
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <form class="add" @submit.prevent="put(bag)">
        <select
          :value="adding[bag.ref] ?? ''"
          class="field"
          :aria-label="`What is in ${bag.label}`"
          @change="adding[bag.ref] = ($event.target as HTMLSelectElement).value"
        >
          <option value="">what is in it …</option>
          <option v-for="need in free(bag)" :key="need.ref" :value="need.ref">{{ need.role }}</option>
        </select>
        <v-btn type="submit" size="small" :disabled="!adding[bag.ref]">Add</v-btn>
        <details>
          <summary class="small quiet">
            for {{ bag.for?.length ? `${bag.for.length} ${bag.for.length === 1 ? 'step' : 'steps'}` : 'any step' }}
          </summary>
          <label v-for="step in build?.steps" :key="step.ref" class="small"
            ><input type="checkbox" :checked="bag.for?.includes(step.ref)" @change="meant(bag, step.ref)" />
            {{ step.title }}</label
          >
        </details>
      </form>
    </section>
    <form class="add" @submit.prevent="add()">
      <input v-model="label" class="field" aria-label="Label of a bag" placeholder="Bag 4: gantry screws" />
      <v-btn type="submit" color="primary" variant="flat" :disabled="!label.trim()">Add a bag</v-btn>
    </form>
  </div>
</template>

<style scoped>
.hand {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 8px 0 12px;
  border-bottom: 1px solid var(--rule);
}
.found {
  flex-basis: 100%;
  padding-left: 18px;
  margin: 0;
}
.bag h2 {
  margin: 16px 0 4px;
}
.bag h2 button {
  font: 400 13px var(--text);
}
.why {
  display: block;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 8px;
}
details label {
  display: block;
}
</style>
