<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, reasonOf, type Invited } from '@/api/client'
import { forgetAnswers } from '@/offline/caches'
import { day } from '@/shared/format'
import { roles, roleTitle } from '@/shared/roles'
import { whoIsHere } from '@/shared/session'
import { useForm } from '@/shared/useForm'

/** The way in by an invitation: as who is signed in, or with an account made here. */
const route = useRoute()
const router = useRouter()
const client = useQueryClient()
const at = computed(() => `/api/invited/${String(route.params.token)}`)
const { data, isPending, isError, error } = useQuery({
  queryKey: computed(() => ['invited', at.value]),
  queryFn: () => api.get<Invited>(at.value),
  retry: false,
})
const form = ref({ name: '', email: '', password: '' })
const { busy, all, at: why, send } = useForm()
const accept = () =>
  send(async () => {
    const { build } = await api.post<{ build: number | null }>(at.value, data.value?.me ? {} : form.value)
    await forgetAnswers()
    await whoIsHere(true)
    client.clear()
    await router.push(build === null ? '/' : `/builds/${build}`)
  })
const may = computed(() => roles.find((one) => one.value === data.value?.role)?.may)
</script>

<template>
  <main class="view invited">
    <p v-if="isPending" class="quiet" role="status">Reading the invitation …</p>
    <div v-else-if="isError" class="empty">
      <h1>This invitation opens nothing</h1>
      <p role="alert">{{ reasonOf(error) }}</p>
      <p><router-link to="/sign-in" class="link">Sign in</router-link></p>
    </div>
    <template v-else-if="data">
      <h1>You are invited</h1>
      <p>
        {{ data.by }} invites you to
        <strong>{{ data.build ? `${data.build}, a build of ${data.workshop}` : data.workshop }}</strong> as
        {{ roleTitle(data.role).toLowerCase() }}, who {{ may }}. Good until {{ day(data.until) }}.
      </p>
      <form @submit.prevent="accept()">
        <template v-if="data.me === null">
          <v-text-field
            v-model="form.name"
            label="Your name"
            autocomplete="name"
            :error-messages="why('name')"
            class="mb-3"
          />
          <v-text-field
            v-model="form.email"
            label="E-mail address"
            type="email"
            autocomplete="username"
            :error-messages="why('email')"
            class="mb-3"
          />
          <v-text-field
            v-model="form.password"
            label="Password"
            type="password"
            autocomplete="new-password"
            hint="At least 10 characters; several words are easier to keep than one strange one."
            persistent-hint
            :error-messages="why('password')"
            class="mb-4"
          />
        </template>
        <p v-if="all" class="danger" role="alert">{{ all }}</p>
        <v-btn type="submit" variant="flat" color="primary" :loading="busy">{{
          data.me === null ? 'Make an account and go in' : `Go in as ${data.me}`
        }}</v-btn>
        <p v-if="data.me === null" class="small mt-4">
          <router-link :to="`/sign-in?then=${route.fullPath}`" class="link">I have an account here already</router-link>
        </p>
      </form>
    </template>
  </main>
</template>

<style scoped>
.invited {
  max-width: 460px;
  margin: 6vh auto 0;
}
</style>
