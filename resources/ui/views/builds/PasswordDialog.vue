<script setup lang="ts">
import { ref, watch } from 'vue'
import { api, Problem, reasonOf } from '@/api/client'
import { useNotices } from '@/shared/useNotices'

/** A new password for whoever is signed in. */
const shown = defineModel<boolean>({ required: true })
const notices = useNotices()
const current = ref('')
const password = ref('')
const reasons = ref<{ current?: string; password?: string; all?: string }>({})
const busy = ref(false)
watch(shown, () => ([current.value, password.value, reasons.value] = ['', '', {}]))

async function change(): Promise<void> {
  busy.value = true
  reasons.value = {}
  try {
    await api.put('/api/session/password', { current: current.value, password: password.value })
    shown.value = false
    notices.say('Your password is changed. Everywhere else you are signed out.')
  } catch (error) {
    reasons.value =
      error instanceof Problem
        ? {
            current: error.at('/current'),
            password: error.at('/password'),
            all: error.body.errors === undefined ? error.message : undefined,
          }
        : { all: reasonOf(error) }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <v-dialog v-model="shown" max-width="420">
    <v-card rounded="sm" class="pa-5">
      <h2 class="mb-4">A new password</h2>
      <form @submit.prevent="change()">
        <v-text-field
          v-model="current"
          label="Password of now"
          type="password"
          autocomplete="current-password"
          :error-messages="reasons.current"
          class="mb-3"
        />
        <v-text-field
          v-model="password"
          label="New password"
          type="password"
          autocomplete="new-password"
          hint="At least 10 characters; several words are easier to keep than one strange one."
          persistent-hint
          :error-messages="reasons.password"
          class="mb-4"
        />
        <p v-if="reasons.all" class="danger" role="alert">{{ reasons.all }}</p>
        <v-btn type="submit" variant="flat" color="primary" :loading="busy">Change it</v-btn>
        <v-btn @click="shown = false">Keep the old password</v-btn>
      </form>
    </v-card>
  </v-dialog>
</template>
