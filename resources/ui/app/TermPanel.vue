<script setup lang="ts">
import { computed, ref } from 'vue'
import { useCatalogue } from '@/shared/useBuild'

/** The words of the trade and the checks, each with what it is and how to find it out. */
const props = defineProps<{ word: string }>()
const { data: catalogue } = useCatalogue()
const typed = ref(props.word)
const all = computed(() => [
  ...(catalogue.value?.checks ?? []).map(({ id, title, means, find }) => ({ word: `${id} ${title}`, means, find })),
  ...(catalogue.value?.terms ?? []),
])
const shown = computed(() => {
  const wanted = typed.value.toLowerCase().trim()
  const whole = all.value.filter((one) => one.word.toLowerCase() === wanted)

  return whole.length > 0 ? whole : all.value.filter((one) => one.word.toLowerCase().includes(wanted))
})
</script>

<template>
  <h2>What words mean</h2>
  <input v-model="typed" class="field mt-2 mb-2" type="search" aria-label="Word or check" placeholder="Word or check" />
  <dl>
    <template v-for="one in shown" :key="one.word">
      <dt>{{ one.word }}</dt>
      <dd>
        {{ one.means }} <span class="quiet">{{ one.find }}</span>
      </dd>
    </template>
  </dl>
  <p v-if="shown.length === 0" class="quiet">No word is written so here.</p>
</template>

<style scoped>
dt {
  font-weight: 600;
  margin-top: 10px;
}
dd {
  margin: 0;
}
</style>
