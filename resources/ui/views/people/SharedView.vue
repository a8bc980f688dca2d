<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, reasonOf } from '@/api/client'
import { forgetAnswers } from '@/offline/caches'
import { whoIsHere } from '@/shared/session'

/** The way in by a link that shows one build. Whoever is signed in stays who they are. */
const route = useRoute()
const router = useRouter()
const reason = ref('')
onMounted(async () => {
  try {
    const { build } = await api.post<{ build: number }>(`/api/shared/${String(route.params.token)}`)
    await forgetAnswers()
    await whoIsHere(true)
    await router.replace(`/builds/${build}`)
  } catch (error) {
    reason.value = reasonOf(error)
  }
})
</script>

<template>
  <main class="view empty">
    <template v-if="reason">
      <h1>This link shows nothing</h1>
      <p role="alert">{{ reason }}</p>
    </template>
    <p v-else role="status">Opening the build …</p>
  </main>
</template>
