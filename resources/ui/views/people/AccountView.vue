<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import QRCode from 'qrcode'
import { computed, ref } from 'vue'
import { api, reasonOf, type Account } from '@/api/client'
import { day, moment } from '@/shared/format'
import { useForm } from '@/shared/useForm'
import { useNotices } from '@/shared/useNotices'
import DaysField from './DaysField.vue'
import PasswordDialog from './PasswordDialog.vue'
import PasswordForm from './PasswordForm.vue'
import TokenText from './TokenText.vue'

/** The own account: name and password, the second factor, the browsers one is signed in at, tokens for scripts. */
const client = useQueryClient()
const notices = useNotices()
const {
  data: account,
  isError,
  error,
} = useQuery({ queryKey: ['account'], queryFn: () => api.get<Account>('/api/account'), staleTime: 0 })
const again = () => client.invalidateQueries({ queryKey: ['account'] })
const { busy, all, at, send, clear } = useForm()
const changing = ref(false)
const name = ref<string | null>(null)
/** What every form that asks for a proof has. */
const proving = computed(() => ({
  coded: account.value?.second.on === true,
  busy: busy.value,
  reason: at('password'),
  codeReason: at('code'),
}))
/** Another address: asked with what proves who is signed in. */
const address = ref<string | null>(null)
const move = () =>
  send(async () => {
    await api.put('/api/account/address', { email: address.value, ...proof() })
    address.value = null
    begin(null)
    await again()
    notices.say('Your address is changed. Sign in with the new one from now on.')
  })
const rename = () =>
  send(async () => {
    await api.put('/api/account', { name: name.value })
    name.value = null
    await again()
  })

/** What is being done about the second factor; each begins with the password. */
const doing = ref<'on' | 'off' | 'codes' | 'token' | 'address' | null>(null)
const password = ref('')
const proof = () => ({ password: password.value, code: code.value })
const code = ref('')
const secret = ref<{ secret: string; address: string; picture: string } | null>(null)
const codes = ref<string[]>([])
function begin(what: typeof doing.value): void {
  doing.value = what
  password.value = code.value = ''
  secret.value = null
  codes.value = []
  leaving.value = false
  clear()
}
const prove = () =>
  send(async () => {
    if (doing.value === 'on') {
      const made = await api.post<{ secret: string; address: string }>('/api/account/second', proof())
      secret.value = { ...made, picture: await QRCode.toDataURL(made.address, { margin: 1, width: 180 }) }
    } else if (doing.value === 'off') {
      await api.delete('/api/account/second', proof())
      notices.say('The second factor is off: the password alone opens your account.')
      begin(null)
    } else {
      codes.value = (await api.post<{ codes: string[] }>('/api/account/recovery-codes', proof())).codes
    }
    await again()
  })
const confirm = () =>
  send(async () => {
    codes.value = (await api.put<{ codes: string[] }>('/api/account/second', { code: code.value })).codes
    secret.value = null
    await again()
  })

const out = (id: number) =>
  send(async () => {
    await api.delete(`/api/account/sign-ins/${id}`)
    await again()
  })
const outElsewhere = () =>
  send(async () => {
    await api.delete('/api/account/sign-ins')
    await again()
    notices.say('Everywhere else you are signed out.')
  })

const token = ref({ name: '', may: 'read', days: 90 })
const made = ref('')
const make = () =>
  send(async () => {
    made.value = (await api.post<{ token: string }>('/api/account/tokens', { ...token.value, ...proof() })).token
    token.value.name = ''
    begin(null)
    await again()
  })
const revoke = (id: number) =>
  send(async () => {
    await api.delete(`/api/account/tokens/${id}`)
    await again()
  })
/** For good: asked with the password, and with what goes named. */
const leaving = ref(false)
const going = computed(() => {
  const builds = account.value?.leaving.builds ?? 0

  return builds === 0 ? 'no build yet' : builds === 1 ? '1 build' : `${builds} builds`
})
const leave = () =>
  send(async () => {
    await api.delete('/api/account', { ...proof(), builds: account.value?.leaving.builds ?? 0 })
    window.location.assign('/')
  })
/** "Chromium on Linux", as far as a browser says. */
function browser(agent: string): string {
  const which = ['Firefox', 'Edg', 'Chrome', 'Safari'].find((one) => agent.includes(one))
  const where = ['Android', 'iPhone', 'iPad', 'Windows', 'Mac OS', 'Linux'].find((one) => agent.includes(one))
  const named = which === 'Edg' || which === 'Chrome' ? 'Chromium' : (which ?? 'A browser')

  return where === undefined ? named : `${named} on ${where}`
}
</script>

<template>
  <main class="view account">
    <div class="view-head">
      <h1>Account</h1>
      <router-link to="/" class="link push">All builds</router-link>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="account">
      <p v-if="account.demo" class="unproven">
        You are one of the invented people of the demo: everybody knows their password, so nothing of their account can
        be changed.
      </p>
      <p v-if="all" class="danger" role="alert">{{ all }}</p>
      <section aria-label="Who you are">
        <form v-if="name !== null" class="fields" @submit.prevent="rename()">
          <input v-model="name" class="field" aria-label="Your name" />
          <v-btn type="submit" size="small" :loading="busy">Keep it</v-btn>
          <v-btn size="small" @click="name = null">Leave it</v-btn>
          <span v-if="at('name')" class="danger small" role="alert">{{ at('name') }}</span>
        </form>
        <p v-else>
          <strong>{{ account.name }}</strong> <span class="quiet">{{ account.email }}</span>
          <template v-if="!account.demo">
            <button type="button" class="plain link also" @click="(begin('address'), (address = account.email))">
              another address
            </button>
            <button type="button" class="plain link also" @click="name = account.name">another name</button>
            <button type="button" class="plain link also" @click="changing = true">another password</button>
          </template>
        </p>
        <template v-if="doing === 'address' && address !== null">
          <p class="fields">
            <input
              v-model="address"
              class="field"
              type="email"
              autocomplete="username"
              aria-label="The new address"
              placeholder="The new address"
            />
            <span v-if="at('email')" class="danger small" role="alert">{{ at('email') }}</span>
          </p>
          <PasswordForm
            v-model="password"
            v-model:code="code"
            v-bind="proving"
            does="Change the address"
            leaves="Leave it"
            @go="move()"
            @leave="begin(null)"
          />
        </template>
      </section>

      <section aria-label="Second factor">
        <h2>Second factor</h2>
        <p v-if="account.second.on">
          On since {{ day(account.second.since) }}. {{ account.second.codes_left }} codes on paper are left.
          <button type="button" class="plain link also" @click="begin('codes')">fresh codes</button>
          <button type="button" class="plain link also" @click="begin('off')">turn it off</button>
        </p>
        <p v-else>
          Off: the password alone opens your account. With it on, a code of an authenticator on your phone is asked for
          too, and a password somebody saw is of no use to them.
          <button v-if="!account.demo" type="button" class="plain link also" @click="begin('on')">turn it on</button>
        </p>
        <PasswordForm
          v-if="(doing === 'on' || doing === 'off' || doing === 'codes') && !secret && codes.length === 0"
          v-model="password"
          v-model:code="code"
          v-bind="proving"
          does="Go on"
          leaves="Leave it"
          @go="prove()"
          @leave="begin(null)"
        />
        <div v-if="secret" class="secret">
          <img :src="secret.picture" alt="The secret, to be read by an authenticator" width="180" height="180" />
          <form @submit.prevent="confirm()">
            <p>
              Let an authenticator read this, or type the secret into it:<br /><span class="figure letters">{{
                secret.secret.match(/.{1,4}/g)?.join(' ')
              }}</span>
            </p>
            <p class="fields">
              <input
                v-model="code"
                class="field"
                autocomplete="one-time-code"
                inputmode="numeric"
                aria-label="The code it shows"
                placeholder="The code it shows"
              />
              <v-btn type="submit" size="small" variant="flat" color="primary" :loading="busy">Turn it on</v-btn>
            </p>
            <p v-if="at('code')" class="danger small" role="alert">{{ at('code') }}</p>
          </form>
        </div>
        <div v-if="codes.length" role="status">
          <p>
            Write these down and keep them where your phone is not. Each opens your account once, should the phone be
            lost. They are shown this once.
          </p>
          <ul class="codes figure">
            <li v-for="one in codes" :key="one">{{ one }}</li>
          </ul>
          <v-btn size="small" @click="begin(null)">I have them</v-btn>
        </div>
      </section>

      <section aria-label="Where you are signed in">
        <h2>Where you are signed in</h2>
        <table class="ledger stack lines">
          <thead>
            <tr>
              <th>Browser</th>
              <th>Address</th>
              <th>Since</th>
              <th>Seen last</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in account.sign_ins" :key="one.id">
              <td :title="one.agent">
                {{ browser(one.agent) }}<span v-if="one.here" class="live small"> this one</span
                ><span v-if="one.stays" class="quiet small"> stays signed in</span>
              </td>
              <td class="figure" data-of="Address">{{ one.address }}</td>
              <td data-of="Since">{{ moment(one.since) }}</td>
              <td data-of="Seen last">{{ moment(one.seen) }}</td>
              <td>
                <button v-if="!one.here" type="button" class="plain link" :disabled="busy" @click="out(one.id)">
                  sign out
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <button
          v-if="account.sign_ins.length > 1"
          type="button"
          class="plain link small"
          :disabled="busy"
          @click="outElsewhere()"
        >
          Sign out everywhere else
        </button>
      </section>

      <section aria-label="Tokens for scripts">
        <h2>Tokens for scripts</h2>
        <p class="quiet small">
          A script sends one as <code>Authorization: Bearer …</code>; docs/api/scripts.md has an example. No token says
          who may what, deletes a build or touches this account.
        </p>
        <TokenText v-if="made" :text="made" label="The token." />
        <table v-if="account.tokens.length" class="ledger stack lines">
          <thead>
            <tr>
              <th>Token</th>
              <th>It may</th>
              <th>Used last</th>
              <th>Good until</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in account.tokens" :key="one.id">
              <td>{{ one.name }}</td>
              <td data-of="It may">{{ one.may === 'edit' ? 'read and change builds' : 'read' }}</td>
              <td data-of="Used last">{{ one.used ? moment(one.used) : 'never' }}</td>
              <td data-of="Good until">{{ day(one.until) }}</td>
              <td>
                <button type="button" class="plain link" :disabled="busy" @click="revoke(one.id)">revoke</button>
              </td>
            </tr>
          </tbody>
        </table>
        <form v-if="!account.demo" class="fields" @submit.prevent="begin('token')">
          <input v-model="token.name" class="field" aria-label="What the token is for" placeholder="What it is for" />
          <select v-model="token.may" class="field" aria-label="What the token may">
            <option value="read">read</option>
            <option value="edit">read and change builds</option>
          </select>
          <DaysField v-model="token.days" label="Days it is good" :most="365" :reason="at('days')" />
          <v-btn type="submit" size="small" :disabled="busy || !token.name.trim()">Make a token</v-btn>
        </form>
        <PasswordForm
          v-if="doing === 'token'"
          v-model="password"
          v-model:code="code"
          v-bind="proving"
          label="Your password, to make the token"
          does="Make it"
          leaves="Leave it"
          @go="make()"
          @leave="begin(null)"
        />
      </section>

      <section v-if="!account.demo" aria-label="Delete this account">
        <h2>Delete this account</h2>
        <p v-if="account.leaving.kept.length" class="small">
          You are the only owner of {{ account.leaving.kept.join(' and ') }}, and others are in it: make somebody else
          an owner first, in <router-link class="link" to="/people">People</router-link>.
        </p>
        <template v-else>
          <p class="small">
            What you did in builds of others stays there, without your name.
            <template v-if="account.leaving.workshops.length"
              >{{ account.leaving.workshops.join(' and ') }} goes with it, since nobody else is in it:
              <strong>{{ going }}</strong>, the library and all pictures. This cannot be undone; a build's archive is
              under Run, Book.</template
            >
            <button v-if="!leaving" type="button" class="plain link also" @click="(begin(null), (leaving = true))">
              delete it …
            </button>
          </p>
          <PasswordForm
            v-if="leaving"
            v-model="password"
            v-model:code="code"
            v-bind="proving"
            label="Your password, to delete the account"
            :does="`Delete the account${account.leaving.builds ? ` and ${going}` : ''}`"
            leaves="Keep it"
            grave
            @go="leave()"
            @leave="leaving = false"
          />
        </template>
      </section>
    </template>
    <PasswordDialog v-model="changing" :coded="account?.second.on === true" />
  </main>
</template>

<style scoped>
.account {
  max-width: 900px;
  margin: 0 auto;
}
h2 {
  margin: 26px 0 6px;
}
.also {
  margin-left: 14px;
}
.secret {
  display: flex;
  flex-wrap: wrap;
  gap: 20px;
  align-items: center;
}
.letters {
  letter-spacing: 0.06em;
}
.codes {
  columns: 2;
  max-width: 300px;
  padding: 0;
  list-style: none;
}
</style>
