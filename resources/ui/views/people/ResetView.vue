<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api } from '@/api/client'
import { useForm } from '@/shared/useForm'
import { useNotices } from '@/shared/useNotices'

/** A new password by the link of a letter. */
const route = useRoute()
const router = useRouter()
const notices = useNotices()
const password = ref('')
const { busy, all, at, send } = useForm()
const set = () =>
  send(async () => {
    await api.post('/api/password/reset', {
      email: String(route.query.email ?? ''),
      token: String(route.query.token ?? ''),
      password: password.value,
    })
    notices.say('Your password is set. Everywhere you were signed in, you are out.')
    await router.push('/sign-in')
  })
</script>

<template>
  <main class="view reset">
    <h1>A new password</h1>
    <form @submit.prevent="set()">
      <p class="quiet">for {{ route.query.email }}</p>
      <v-text-field
        v-model="password"
        label="New password"
        type="password"
        autocomplete="new-password"
        :error-messages="at('password')"
        class="mb-4"
      />
      <p v-if="all || at('token') || at('email')" class="danger" role="alert">
        {{ all || at('token') || at('email') }}
      </p>
      <v-btn type="submit" variant="flat" color="primary" :loading="busy">Set it</v-btn>
    </form>
  </main>
</template>

<style scoped>
.reset {
  max-width: 400px;
  margin: 8vh auto 0;
}
</style>
