<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type Session } from '@/api/client'
import { forgetAnswers } from '@/offline/caches'
import { whoIsHere } from '@/shared/session'
import { useForm } from '@/shared/useForm'

/** The door: by password, by a code after it, as the first of all, or into the demo. A lost password is asked for here too. */
const email = ref('')
const password = ref('')
const code = ref('')
const remember = ref(false)
const demo = ref(false)
/** Nobody has an account here yet: whoever comes first makes one. */
const first = ref(false)
const stage = ref<'password' | 'code' | 'making' | 'forgotten' | 'sent'>('password')
const own = ref({ name: '', workshop: '' })
const { busy, all, at, send, clear } = useForm()
const router = useRouter()
const route = useRoute()

onMounted(async () => {
  const session = await whoIsHere(true)
  demo.value = session.demo
  first.value = session.first
  if (session.first && !session.demo) stage.value = 'making'
})
function go(to: typeof stage.value): void {
  stage.value = to
  clear()
}

const enter = (path: string, body: unknown) =>
  send(async () => {
    const session = await api.post<Session>(path, body)
    if (session.second) {
      go('code')

      return
    }
    // Whoever was here before left without signing out: what they read stays theirs.
    await forgetAnswers()
    await whoIsHere(true)
    await router.push(typeof route.query.then === 'string' && route.query.then.startsWith('/') ? route.query.then : '/')
  })
function submit(): Promise<unknown> {
  switch (stage.value) {
    case 'making':
      return enter('/api/session/first', { email: email.value, password: password.value, ...own.value })
    case 'code':
      return enter('/api/session/second', { code: code.value })
    case 'forgotten':
      return send(async () => {
        await api.post('/api/password/forgotten', { email: email.value })
        go('sent')
      })
    default:
      return enter('/api/session', { email: email.value, password: password.value, remember: remember.value })
  }
}
const does = { password: 'Sign in', code: 'Go on', making: 'Make the first account', forgotten: 'Send me a link' }
</script>

<template>
  <main class="door">
    <div class="who">
      <img src="/mark.svg" alt="" width="56" height="56" />
      <h1>Frugal Magpie</h1>
      <p class="quiet">Plan, prove, buy, build and run a machine you make yourself.</p>
    </div>
    <div v-if="stage === 'sent'">
      <p role="status">
        If {{ email }} has an account here, a letter with a link is on its way. The link is good for an hour.
      </p>
      <p class="quiet small">
        Nothing came? This server may have no way to send letters: whoever keeps it can make the link for you.
      </p>
      <button type="button" class="plain link" @click="go('password')">Back to signing in</button>
    </div>
    <form v-else @submit.prevent="submit()">
      <template v-if="stage === 'making'">
        <p class="quiet small">Nobody has an account here yet. The first one gets a workshop of its own, empty.</p>
        <v-text-field
          v-model="own.name"
          label="Your name"
          autocomplete="name"
          :error-messages="at('name')"
          class="mb-3"
        />
        <v-text-field
          v-model="own.workshop"
          label="Name of the workshop"
          :error-messages="at('workshop')"
          class="mb-3"
        />
      </template>
      <template v-if="stage === 'code'">
        <p class="small">Your password is right. Now the code your device shows, or one of your codes on paper.</p>
        <v-text-field
          v-model="code"
          label="Code"
          autocomplete="one-time-code"
          inputmode="text"
          autofocus
          :error-messages="at('code')"
          class="mb-3"
        />
      </template>
      <template v-else>
        <p v-if="stage === 'forgotten'" class="small">
          A link to set a new one is sent to the address of your account.
        </p>
        <v-text-field
          v-model="email"
          label="E-mail address"
          type="email"
          autocomplete="username"
          :error-messages="at('email')"
          class="mb-3"
        />
        <v-text-field
          v-if="stage !== 'forgotten'"
          v-model="password"
          label="Password"
          type="password"
          :autocomplete="stage === 'making' ? 'new-password' : 'current-password'"
          :error-messages="at('password')"
          class="mb-3"
        />
      </template>
      <label v-if="stage === 'password'" class="stay small"
        ><input v-model="remember" type="checkbox" /> Stay signed in on this computer for 30 days</label
      >
      <p v-if="all" class="danger" role="alert">{{ all }}</p>
      <v-btn type="submit" variant="flat" color="primary" :loading="busy" block>{{ does[stage] }}</v-btn>
      <p v-if="stage === 'password'" class="small or">
        <button type="button" class="plain link" @click="go('forgotten')">I do not know my password any more</button>
      </p>
      <p v-else-if="stage !== 'making'" class="small or">
        <button type="button" class="plain link" @click="go('password')">Back to signing in</button>
      </p>
      <p v-if="first && (stage === 'making' || stage === 'password')" class="small or">
        <button type="button" class="plain link" @click="go(stage === 'making' ? 'password' : 'making')">
          {{ stage === 'making' ? 'Sign in instead' : 'Nobody has an account here yet: make the first one' }}
        </button>
      </p>
      <template v-if="demo && stage === 'password'">
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
