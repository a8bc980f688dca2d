<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, reasonOf, type Revoked, type WorkshopBuilds, type WorkshopPeople } from '@/api/client'
import { day } from '@/shared/format'
import { roles, roleTitle } from '@/shared/roles'
import { whoIsHere } from '@/shared/session'
import { useForm } from '@/shared/useForm'
import DaysField from './DaysField.vue'
import EventList from './EventList.vue'
import TokenText from './TokenText.vue'
import { useRevoked } from './useRevoked'

/** Who is of a workshop, what each may, and who is invited. */
const route = useRoute()
const router = useRouter()
const client = useQueryClient()
const at = computed(() => `/api/workshops/${Number(route.params.workshop)}`)
const { data, isError, error } = useQuery({
  queryKey: computed(() => ['people', at.value]),
  queryFn: () => api.get<WorkshopPeople>(`${at.value}/people`),
  staleTime: 0,
})
const { data: workshops } = useQuery({
  queryKey: ['builds'],
  queryFn: () => api.get<WorkshopBuilds[]>('/api/builds'),
})
const builds = computed(() => workshops.value?.find((one) => one.id === Number(route.params.workshop))?.builds ?? [])
const isOwner = computed(() => data.value?.role === 'owner')
const { busy, all, send, at: why } = useForm()
const again = () => client.invalidateQueries({ queryKey: ['people'] })
const sayRevoked = useRevoked()
/** Whether everybody needs a second factor here. */
const require = (second: boolean) =>
  send(async () => {
    try {
      await api.put(`${at.value}/second-factor`, { second })
    } finally {
      await again()
    }
  })
const give = (person: number, role: string) =>
  send(async () => {
    try {
      sayRevoked(await api.put<Revoked>(`${at.value}/people/${person}`, { role }))
    } finally {
      await again()
    }
  })
const going = ref<{ id: number; name: string; me: boolean } | null>(null)
async function remove(): Promise<void> {
  const who = going.value!
  going.value = null
  await send(async () => {
    sayRevoked(await api.delete<Revoked>(`${at.value}/people/${who.me ? 'me' : who.id}`))
    if (who.me) {
      await whoIsHere(true)
      client.clear()
      await router.push('/')
    } else await again()
  })
}
const link = ref('')
const invitation = ref({ for: '', role: 'builder', build: null as number | null, days: 7 })
const invite = () =>
  send(async () => {
    const { path } = await api.post<{ path: string }>(`${at.value}/invitations`, {
      ...invitation.value,
      for: invitation.value.for.trim() || null,
    })
    link.value = location.origin + path
    invitation.value.for = ''
    await again()
  })
const takeBack = (id: number) =>
  send(async () => {
    await api.delete(`/api/invitations/${id}`)
    await again()
  })
</script>

<template>
  <main class="view people">
    <div class="view-head">
      <h1>People</h1>
      <span v-if="data" class="quiet">of {{ data.workshop }}</span>
      <router-link to="/" class="link push">All builds</router-link>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="data">
      <p v-if="all" class="danger" role="alert">{{ all }}</p>
      <table class="ledger stack lines" aria-label="People of the workshop">
        <thead>
          <tr>
            <th>Name</th>
            <th v-if="isOwner">Address</th>
            <th>Role</th>
            <th v-if="isOwner">Second factor</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in data.people" :key="one.id">
            <td>{{ one.name }} <span v-if="one.me" class="live small">you</span></td>
            <td v-if="isOwner" data-of="Address">{{ one.email }}</td>
            <td data-of="Role">
              <select
                v-if="isOwner"
                class="field"
                :value="one.role"
                :aria-label="`Role of ${one.name}`"
                :disabled="busy"
                @change="give(one.id, ($event.target as HTMLSelectElement).value)"
              >
                <option v-for="role in roles" :key="role.value" :value="role.value">{{ role.title }}</option>
              </select>
              <template v-else>{{ roleTitle(one.role) }}</template>
            </td>
            <td v-if="isOwner" data-of="Second factor">{{ one.second ? 'on' : 'off' }}</td>
            <td>
              <button v-if="isOwner || one.me" type="button" class="plain link" :disabled="busy" @click="going = one">
                {{ one.me ? 'leave' : 'take out' }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <ul class="meaning small">
        <li v-for="role in roles" :key="role.value">
          <strong>{{ role.title }}</strong> <span class="quiet">{{ role.may }}</span>
        </li>
      </ul>
      <p v-if="isOwner" class="small">
        <label
          ><input
            type="checkbox"
            :checked="data.requires_second"
            :disabled="busy"
            @change="require(($event.target as HTMLInputElement).checked)"
          />
          Everybody here needs a second factor</label
        >
        <span class="quiet"> Whoever has none sees nothing of this workshop until it is on, under Account.</span>
      </p>
      <template v-if="data.guests.length">
        <h2>Guests of single builds</h2>
        <table class="ledger stack lines">
          <tbody>
            <tr v-for="one in data.guests" :key="`${one.id} ${one.build}`">
              <td>{{ one.name }}</td>
              <td class="quiet">{{ one.email }}</td>
              <td>{{ roleTitle(one.role) }} of {{ one.build }}</td>
              <td>
                <button type="button" class="plain link" @click="going = { ...one, me: false }">take out</button>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
      <section v-if="isOwner" aria-label="Invite somebody">
        <h2>Invite somebody</h2>
        <TokenText v-if="link" :text="link" label="The link." />
        <form class="fields" @submit.prevent="invite()">
          <input v-model="invitation.for" class="field" aria-label="For whom" placeholder="For whom" />
          <select v-model="invitation.role" class="field" aria-label="As what">
            <option v-for="role in roles" :key="role.value" :value="role.value">{{ role.title }}</option>
          </select>
          <select v-model="invitation.build" class="field" aria-label="Of what">
            <option :value="null">of the workshop</option>
            <option v-for="build in builds" :key="build.id" :value="build.id">of {{ build.name }} alone</option>
          </select>
          <DaysField v-model="invitation.days" label="Days it is good" :most="30" :reason="why('days')" />
          <v-btn type="submit" size="small" variant="flat" color="primary" :loading="busy">Make a link</v-btn>
        </form>
        <p class="quiet small">
          The link lets one person in, once. Send it by a way only they read; whoever has it first is in.
        </p>
        <table v-if="data.invitations.length" class="ledger stack lines">
          <thead>
            <tr>
              <th>For</th>
              <th>As</th>
              <th>By</th>
              <th>Good until</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="one in data.invitations" :key="one.id">
              <td>{{ one.for ?? 'whoever has it' }}</td>
              <td data-of="As">{{ roleTitle(one.role) }}{{ one.build ? ` of ${one.build}` : '' }}</td>
              <td data-of="By">{{ one.by }}</td>
              <td data-of="Good until">{{ day(one.until) }}</td>
              <td>
                <button type="button" class="plain link" :disabled="busy" @click="takeBack(one.id)">take back</button>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <EventList v-if="isOwner" :at="at" />
    </template>
    <v-dialog :model-value="going !== null" max-width="420" @update:model-value="going = null">
      <v-card rounded="sm" class="pa-5">
        <h2 class="mb-2">{{ going?.me ? 'Leave this workshop?' : `Take ${going?.name} out?` }}</h2>
        <p class="mb-4">
          {{ going?.me ? 'You see' : 'They see' }} none of its builds any more, and invitations and links
          {{ going?.me ? 'you' : 'they' }} made open nothing. What was written stays, with the name of who wrote it.
        </p>
        <v-btn variant="flat" color="error" @click="remove()">{{ going?.me ? 'Leave' : 'Take out' }}</v-btn>
        <v-btn @click="going = null">Stay as it is</v-btn>
      </v-card>
    </v-dialog>
  </main>
</template>

<style scoped>
.people {
  max-width: 900px;
  margin: 0 auto;
}
h2 {
  margin: 26px 0 6px;
}
.meaning {
  padding: 0;
  margin-top: 10px;
  list-style: none;
}
</style>
