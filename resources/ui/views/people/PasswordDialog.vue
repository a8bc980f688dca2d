<script setup lang="ts">
import { ref, watch } from 'vue'
import { api } from '@/api/client'
import { useForm } from '@/shared/useForm'
import { useNotices } from '@/shared/useNotices'

/** A new password for whoever is signed in. */
const shown = defineModel<boolean>({ required: true })
const { coded } = defineProps<{ coded: boolean }>()
const notices = useNotices()
const current = ref('')
const password = ref('')
const code = ref('')
const { busy, all, at, send, clear } = useForm()
watch(shown, () => {
  ;[current.value, password.value, code.value] = ['', '', '']
  clear()
})

const change = () =>
  send(async () => {
    await api.put('/api/session/password', {
      current: current.value,
      password: password.value,
      code: code.value,
    })
    shown.value = false
    notices.say('Your password is changed. Everywhere else you are signed out.')
  })
</script>

<template>
  <v-dialog v-model="shown" max-width="420">
    <v-card rounded="sm" class="pa-5">
      <h2 class="mb-4">A new password</h2>
      <form @submit.prevent="change()">
        <v-text-field
          v-model="current"
          label="Current password"
          type="password"
          autocomplete="current-password"
          :error-messages="at('current')"
          class="mb-3"
        />
        <v-text-field
          v-model="password"
          label="New password"
          type="password"
          autocomplete="new-password"
          hint="At least 10 characters; several words are easier to keep than one strange one."
          persistent-hint
          :error-messages="at('password')"
          class="mb-4"
        />
        <v-text-field
          v-if="coded"
          v-model="code"
          label="Code of your authenticator, or one on paper"
          autocomplete="one-time-code"
          :error-messages="at('code')"
          class="mb-4"
        />
        <p v-if="all" class="danger" role="alert">{{ all }}</p>
        <v-btn type="submit" variant="flat" color="primary" :loading="busy">Change it</v-btn>
        <v-btn @click="shown = false">Keep the old password</v-btn>
      </form>
    </v-card>
  </v-dialog>
</template>
