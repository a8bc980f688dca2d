<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf } from '@/api/client'
import { amountOf } from '@/shared/decimals'
import { today } from '@/shared/format'
import { useMayChange } from '@/shared/roles'
import { useBuild, useEdit } from '@/shared/useBuild'

/** Asks for the rate of each currency that something is priced in and nothing turns into the build's: where it is missed. */
const { document: build, overview } = useBuild()
const { edit } = useEdit()
const may = useMayChange()
const missing = computed(() => overview.value?.money?.without_rate ?? [])
const own = computed(() => build.value?.build.currency ?? '')
const typed = ref<Record<string, string>>({})
const reason = ref('')
async function keep(from: string): Promise<void> {
  const worth = (typed.value[from] ?? '').trim()
  try {
    await edit(`Rate of ${from}`, [
      {
        section: 'rates',
        create: {
          from,
          to: own.value,
          worth: /^\d+,\d+$/.test(worth) ? worth.replace(',', '.') : (amountOf(worth) ?? worth),
          date: today(),
        },
      },
    ])
    reason.value = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <form
    v-for="from in may ? missing : []"
    :key="from"
    class="ask"
    :aria-label="`Rate of ${from}`"
    @submit.prevent="keep(from)"
  >
    What is 1 {{ from }} worth today?
    <input
      v-model="typed[from]"
      class="field"
      inputmode="decimal"
      size="8"
      :aria-label="`What one ${from} is worth in ${own}`"
    />
    {{ own }}
    <v-btn type="submit" size="small" color="primary" :disabled="!typed[from]">Keep the rate</v-btn>
    <span class="quiet small">Prices in {{ from }} are in no sum until then.</span>
  </form>
  <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
</template>

<style scoped>
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 6px 10px;
  margin: 6px 0;
  background: var(--sheet);
  border-left: 3px solid var(--live);
}
</style>
