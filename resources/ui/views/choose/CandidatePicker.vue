<script setup lang="ts">
import { computed, ref, toRef } from 'vue'
import { api, reasonOf, type EditResult, type Need } from '@/api/client'
import { uuid } from '@/shared/refs'
import { money } from '@/shared/format'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useLibrary } from './useLibrary'

/** A further candidate for a need: from the workshop's library, or another part this build knows already. */
const props = defineProps<{ need: Need }>()
const emit = defineEmits<{ done: [] }>()
const { id, query, document: build } = useBuild()
const { set, absorb } = useEdit()
const words = ref('')
const reason = ref('')
const { lines, total, stale } = useLibrary(
  computed(() => query.data.value?.workshop ?? 0),
  words,
  toRef(() => props.need.family),
)
const here = computed(() =>
  (build.value?.parts ?? []).filter(
    (part) =>
      part.family === props.need.family &&
      !(props.need.candidates ?? []).includes(part.ref) &&
      part.name.toLowerCase().includes(words.value.toLowerCase()),
  ),
)

async function guarded(work: () => Promise<unknown>): Promise<void> {
  try {
    await work()
    emit('done')
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
const adopt = (item: number) =>
  guarded(async () =>
    absorb(
      await api.post<EditResult>(`/api/builds/${id.value}/needs/${props.need.ref}/candidates`, {
        library: item,
        key: uuid(),
      }),
    ),
  )
const take = (part: string) =>
  guarded(() =>
    set(`A candidate for ${props.need.role}`, 'needs', props.need.ref, ['candidates'], props.need.candidates ?? null, [
      ...(props.need.candidates ?? []),
      part,
    ]),
  )
</script>

<template>
  <v-card rounded="sm" class="pa-4">
    <h2>A candidate for {{ props.need.role }}</h2>
    <input
      v-model="words"
      class="field mt-2 mb-2"
      type="search"
      aria-label="Words of the part"
      placeholder="Words of the part"
      autofocus
    />
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <div class="list">
      <template v-if="here.length"
        ><h3>In this build already</h3>
        <button v-for="part in here" :key="part.ref" type="button" class="plain row" @click="take(part.ref)">
          <span>{{ part.name }}</span>
        </button></template
      >
      <h3>In the library, {{ total }}</h3>
      <button
        v-for="line in lines"
        :key="line.id"
        type="button"
        class="plain row"
        :disabled="stale"
        @click="adopt(line.id)"
      >
        <span>{{ line.name }}<span v-if="line.example" class="quiet small"> example</span></span
        ><span class="quiet small specs">{{ line.key_specs }}</span
        ><span class="figure">{{ line.price ? money(line.price, line.currency ?? '') : '' }}</span>
      </button>
      <p v-if="total === 0" class="quiet small">
        The library has no such part. Add one in Library, or add a part of this build.
      </p>
    </div>
  </v-card>
</template>

<style scoped>
.list {
  max-height: 60vh;
  overflow: auto;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1.3fr) minmax(0, 1fr) 80px;
  gap: 12px;
  width: 100%;
  padding: 5px 4px;
  border-bottom: 1px solid var(--rule);
  text-align: left;
}
.row:hover {
  color: var(--live);
}
.row .figure {
  text-align: right;
}
.specs {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
h3 {
  margin: 10px 0 2px;
}
</style>
