<script setup lang="ts">
import { ref } from 'vue'
import { reasonOf, upload } from '@/api/client'
import { useBuildId } from '@/shared/useBuild'

/** What was found of it, in words and in a picture: good, or not good on so many pieces. */
const props = defineProps<{ what: string; pieces: number }>()
const emit = defineEmits<{
  done: []
  found: [good: boolean, found: { what: string; pieces?: number; notes?: string; photos?: string[] }]
}>()
const id = useBuildId()
const bad = ref('1')
const notes = ref('')
const files = ref<File[]>([])
const reason = ref('')
const busy = ref(false)

async function store(good: boolean): Promise<void> {
  const count = Number(bad.value)
  if (!good && (!Number.isInteger(count) || count < 1 || count > props.pieces)) {
    reason.value = `Of ${props.pieces} that are here, 1 to ${props.pieces} can be bad.`

    return
  }
  busy.value = true
  reason.value = ''
  try {
    const photos: string[] = []
    for (const file of files.value) {
      photos.push((await upload<{ name: string }>(`/api/builds/${id.value}/photos`, 'photo', file)).name)
    }
    emit('found', good, {
      what: props.what,
      ...(good ? {} : { pieces: count }),
      ...(notes.value.trim() ? { notes: notes.value.trim() } : {}),
      ...(photos.length ? { photos } : {}),
    })
  } catch (error) {
    reason.value = reasonOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="fields" @submit.prevent="store(false)">
    <label class="small"
      >on <input v-model="bad" class="field few" inputmode="numeric" aria-label="Bad pieces" /> of
      {{ props.pieces }}</label
    >
    <input v-model="notes" class="field words" aria-label="What was found" placeholder="what was found" />
    <label class="link small pick"
      ><input
        type="file"
        accept="image/*"
        capture="environment"
        multiple
        aria-label="Pictures of it"
        @change="files = [...(($event.target as HTMLInputElement).files ?? [])]"
      />{{ files.length ? `${files.length} ${files.length === 1 ? 'picture' : 'pictures'}` : 'picture' }}</label
    >
    <v-btn size="small" :loading="busy" @click="store(true)">It is good</v-btn>
    <v-btn type="submit" size="small" color="primary" variant="flat" :loading="busy">Not good: claim it</v-btn>
    <v-btn size="small" @click="emit('done')">Close without storing</v-btn>
    <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
  </form>
</template>

<style scoped>
.few {
  width: 56px;
}
.words {
  flex: 1 1 220px;
}
@media (max-width: 700px) {
  .field {
    height: 44px;
  }
}
</style>
