<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, Problem, reasonOf } from '@/api/client'
import { forgetAnswers } from '@/offline/caches'
import { whoIsHere } from '@/shared/session'

const email = ref('')
const password = ref('')
const remember = ref(false)
const reasons = ref<{ email?: string; password?: string; name?: string; workshop?: string; all?: string }>({})
const demo = ref(false)
/** Nobody has an account here yet: whoever comes first makes one. */
const first = ref(false)
const making = ref(false)
const own = ref({ name: '', workshop: '' })
const busy = ref(false)
const router = useRouter()
const route = useRoute()

onMounted(async () => {
  const session = await whoIsHere(true)
  demo.value = session.demo
  first.value = session.first
  making.value = session.first && !session.demo
})

async function enter(path: string, body: unknown): Promise<void> {
  busy.value = true
  reasons.value = {}
  try {
    await api.post(path, body)
    // Whoever was here before left without signing out: what they read stays theirs.
    await forgetAnswers()
    await whoIsHere(true)
    await router.push(typeof route.query.then === 'string' && route.query.then.startsWith('/') ? route.query.then : '/')
  } catch (error) {
    reasons.value =
      error instanceof Problem
        ? {
            email: error.at('/email'),
            password: error.at('/password'),
            name: error.at('/name'),
            workshop: error.at('/workshop'),
            all: error.body.errors === undefined ? error.message : undefined,
          }
        : { all: reasonOf(error) }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="door">
    <div class="who">
      <img src="/mark.svg" alt="" width="56" height="56" />
      <h1>Frugal Magpie</h1>
      <p class="quiet">Plan, prove, buy, build and run a machine you make yourself.</p>
    </div>
    <form
      @submit.prevent="
        making
          ? enter('/api/session/first', { email, password, ...own })
          : enter('/api/session', { email, password, remember })
      "
    >
      <template v-if="making">
        <p class="quiet small">Nobody has an account here yet. The first one gets a workshop of its own, empty.</p>
        <v-text-field
          v-model="own.name"
          label="Your name"
          autocomplete="name"
          :error-messages="reasons.name"
          class="mb-3"
        />
        <v-text-field
          v-model="own.workshop"
          label="Name of the workshop"
          :error-messages="reasons.workshop"
          class="mb-3"
        />
      </template>
      <v-text-field
        v-model="email"
        label="E-mail address"
        type="email"
        autocomplete="username"
        :error-messages="reasons.email"
        class="mb-3"
      />
      <v-text-field
        v-model="password"
        label="Password"
        type="password"
        :autocomplete="making ? 'new-password' : 'current-password'"
        :error-messages="reasons.password"
        class="mb-3"
      />
      <label v-if="!making" class="stay small"
        ><input v-model="remember" type="checkbox" /> Stay signed in on this computer for 30 days</label
      >
      <p v-if="reasons.all" class="danger" role="alert">{{ reasons.all }}</p>
      <v-btn type="submit" variant="flat" color="primary" :loading="busy" block>{{
        making ? 'Make the first account' : 'Sign in'
      }}</v-btn>
      <p v-if="first" class="small or">
        <button type="button" class="plain link" @click="making = !making">
          {{ making ? 'Sign in instead' : 'Nobody has an account here yet: make the first one' }}
        </button>
      </p>
      <template v-if="demo">
        <p class="quiet small or">This is the demo. Its workshop, people and prices are invented.</p>
        <v-btn variant="outlined" color="primary" :disabled="busy" block @click="enter('/api/session/demo', {})"
          >Enter the demo workshop</v-btn
        >
      </template>
    </form>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  grid-template-columns: auto 320px;
  gap: 72px;
  align-content: center;
  justify-content: center;
  padding: 24px;
}
.who {
  max-width: 300px;
  align-self: center;
}
h1 {
  margin: 12px 0 6px;
}
.stay {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 0 0 14px;
  min-height: 24px;
}
.or {
  margin: 20px 0 8px;
}
@media (max-width: 760px) {
  .door {
    grid-template-columns: minmax(0, 340px);
    gap: 24px;
  }
}
</style>
