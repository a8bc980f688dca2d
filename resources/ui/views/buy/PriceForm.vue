<script setup lang="ts">
import { computed, ref } from 'vue'
import { Problem, reasonOf, type Change } from '@/api/client'
import { day, money, today, whole } from '@/shared/format'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import { later } from './prices'

/** Offers for a part, a new one, and what was really paid. */
const props = defineProps<{ part: string }>()
const emit = defineEmits<{ done: [] }>()
const { document: build, parts } = useBuild()
const { edit } = useEdit()
const suppliers = computed(() => build.value?.suppliers ?? [])
const offers = computed(() => (build.value?.offers ?? []).filter((offer) => offer.part === props.part))
const form = ref({
  supplier: suppliers.value[0]?.ref ?? '',
  name: '',
  currency: build.value?.build.currency ?? 'GBP',
  price: '',
  pack: '1',
  pieces: '1',
  paid: '',
})
const what = ref<'offer' | 'paid'>('offer')
const reasons = ref<Record<string, string | undefined>>({})

/** What this supplier asked before for such a pack: it becomes the price of an earlier day. */
const same = computed(() =>
  offers.value.find((one) => one.supplier === form.value.supplier && String(one.pack ?? 1) === form.value.pack),
)
const supplierOf = (ref: string) => suppliers.value.find((one) => one.ref === ref)

async function store(): Promise<void> {
  const changes: Change[] = []
  let supplier = form.value.supplier
  if (supplier === '') {
    supplier = nextRef('supplier-', build.value?.suppliers)
    changes.push({
      section: 'suppliers',
      create: { ref: supplier, name: form.value.name, currency: form.value.currency.toUpperCase() },
    })
  }
  changes.push(
    same.value !== undefined && what.value === 'offer'
      ? {
          section: 'offers',
          ref: same.value.ref,
          set: [{ path: ['price'], was: same.value.price, to: form.value.price }, ...later(same.value)],
        }
      : what.value === 'offer'
        ? {
            section: 'offers',
            create: {
              ref: nextRef('O', build.value?.offers),
              part: props.part,
              supplier,
              price: form.value.price,
              pack: whole(form.value.pack),
              date: today(),
            },
          }
        : {
            section: 'purchases',
            create: {
              ref: nextRef('B', build.value?.purchases),
              part: props.part,
              supplier,
              pieces: whole(form.value.pieces),
              paid: form.value.paid,
              date: today(),
            },
          },
  )
  try {
    await edit(
      `${what.value === 'offer' ? 'Price' : 'Paid'} for ${parts.value.get(props.part)?.name ?? props.part}`,
      changes,
    )
    emit('done')
  } catch (error) {
    const at = error instanceof Problem ? error.body.errors?.[0]?.pointer.split('/').at(-1) : undefined
    reasons.value = { [at !== undefined && at in form.value ? at : 'all']: reasonOf(error) }
  }
}
async function drop(ref: string): Promise<void> {
  try {
    await edit('Delete a price', [{ section: 'offers', ref, delete: true }])
  } catch (error) {
    reasons.value = { all: reasonOf(error) }
  }
}
</script>

<template>
  <v-card rounded="sm" class="pa-5">
    <h2 class="mb-2">{{ parts.get(part)?.name }}</h2>
    <ul class="offers">
      <li v-for="offer in offers" :key="offer.ref">
        <span class="figure">{{ money(offer.price, supplierOf(offer.supplier)?.currency ?? '') }}</span> for
        {{ offer.pack ?? 1 }}, {{ supplierOf(offer.supplier)?.name }}, {{ offer.date }}
        <span v-for="was in offer.past" :key="was.date" class="quiet small"
          >, {{ money(was.price, supplierOf(offer.supplier)?.currency ?? '') }} on {{ day(was.date) }}</span
        >
        <button type="button" class="plain link small" @click="drop(offer.ref)">delete</button>
      </li>
    </ul>
    <div class="choices mb-3" role="group" aria-label="What to note">
      <button type="button" class="plain" :aria-pressed="what === 'offer'" @click="what = 'offer'">A price</button
      ><button type="button" class="plain" :aria-pressed="what === 'paid'" @click="what = 'paid'">What I paid</button>
    </div>
    <form @submit.prevent="store()">
      <v-select
        v-model="form.supplier"
        label="Supplier"
        :items="[
          ...suppliers.map((one) => ({ value: one.ref, title: `${one.name} (${one.currency})` })),
          { value: '', title: 'A new supplier' },
        ]"
        :error-messages="reasons.supplier"
        class="mb-3"
      />
      <template v-if="form.supplier === ''">
        <v-text-field v-model="form.name" label="Name of the supplier" :error-messages="reasons.name" class="mb-3" />
        <v-text-field v-model="form.currency" label="Its currency" :error-messages="reasons.currency" class="mb-3" />
      </template>
      <div class="pair">
        <template v-if="what === 'offer'">
          <v-text-field
            v-model="form.price"
            label="Price of a pack"
            placeholder="12.50"
            :error-messages="reasons.price"
          /><v-text-field v-model="form.pack" label="Pieces in a pack" :error-messages="reasons.pack" />
        </template>
        <template v-else>
          <v-text-field
            v-model="form.paid"
            label="Paid in all"
            placeholder="12.50"
            :error-messages="reasons.paid"
          /><v-text-field v-model="form.pieces" label="Pieces" :error-messages="reasons.pieces" />
        </template>
      </div>
      <p v-if="reasons.all" class="danger" role="alert">{{ reasons.all }}</p>
      <v-btn type="submit" variant="flat" color="primary" class="mt-3">Store</v-btn>
      <v-btn class="mt-3" @click="emit('done')">Close without storing</v-btn>
    </form>
  </v-card>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.offers {
  padding-left: 18px;
  margin: 0 0 10px;
}
</style>
