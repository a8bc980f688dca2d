<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, reasonOf, type BuildPeople, type Revoked } from '@/api/client'
import { day, moment } from '@/shared/format'
import { roles, roleTitle } from '@/shared/roles'
import { useBuild } from '@/shared/useBuild'
import { useForm } from '@/shared/useForm'
import { useRevoked } from './useRevoked'
import DaysField from './DaysField.vue'
import TokenText from './TokenText.vue'

/** Who may what with this build, who is at it now, and the links that show it to whoever has them. */
const shown = defineModel<boolean>({ required: true })
defineProps<{ here: { name: string; at: string }[] }>()
const { id, role, document: build } = useBuild()
const client = useQueryClient()
const sayRevoked = useRevoked()
const { data, isError, error } = useQuery({
  queryKey: computed(() => ['build-people', id.value]),
  queryFn: () => api.get<BuildPeople>(`/api/builds/${id.value}/people`),
  enabled: computed(() => shown.value && role.value !== 'visitor'),
  staleTime: 0,
})
const isOwner = computed(() => data.value?.role === 'owner')
const { busy, all, at, send } = useForm()
const again = () => client.invalidateQueries({ queryKey: ['build-people', id.value] })
const give = (person: number, to: string) =>
  send(async () => {
    try {
      sayRevoked(await api.put<Revoked>(`/api/builds/${id.value}/people/${person}`, { role: to === '' ? null : to }))
    } finally {
      await again()
    }
  })
const link = ref({ label: '', days: 30, money: false })
const made = ref('')
const share = () =>
  send(async () => {
    const { path } = await api.post<{ path: string }>(`/api/builds/${id.value}/links`, link.value)
    made.value = location.origin + path
    link.value.label = ''
    await again()
  })
const revoke = (one: number) =>
  send(async () => {
    await api.delete(`/api/builds/${id.value}/links/${one}`)
    await again()
  })
</script>

<template>
  <v-dialog v-model="shown" max-width="720" aria-label="People of this build">
    <v-card rounded="sm" class="pa-5">
      <h2 class="mb-2">People of {{ build?.build.name }}</h2>
      <p v-if="here.length" class="small">
        Here now:
        <template v-for="(one, i) in here" :key="one.name"
          ><template v-if="i > 0">; </template><strong>{{ one.name }}</strong
          ><span class="quiet"> at {{ one.at }}</span></template
        >
      </p>
      <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
      <template v-else-if="data">
        <p v-if="all" class="danger" role="alert">{{ all }}</p>
        <table class="ledger stack lines">
          <tbody>
            <tr v-for="one in data.people" :key="one.id">
              <td>{{ one.name }} <span v-if="one.me" class="live small">you</span></td>
              <td>
                <select
                  v-if="isOwner && one.workshop !== 'owner'"
                  class="field"
                  :value="one.own ?? ''"
                  :aria-label="`What ${one.name} may with this build`"
                  :disabled="busy"
                  @change="give(one.id, ($event.target as HTMLSelectElement).value)"
                >
                  <option value="">
                    {{ one.workshop ? `${roleTitle(one.workshop)}, as in the workshop` : 'nothing: take out' }}
                  </option>
                  <option v-for="word in roles" :key="word.value" :value="word.value">
                    {{ word.title }} of this build
                  </option>
                </select>
                <template v-else
                  >{{ roleTitle(one.role)
                  }}<span v-if="one.workshop === null" class="quiet small"> guest</span></template
                >
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="data.workshop !== null" class="small">
          <router-link :to="`/workshops/${data.workshop}/people`" class="link">{{
            isOwner ? 'Invite somebody' : 'People of the workshop'
          }}</router-link>
        </p>
        <template v-if="isOwner">
          <h3 class="mt-4">Links that show it</h3>
          <p class="quiet small">
            Whoever has the link sees the machine, its faults and its pictures, and changes nothing. Nobody is named.
            Prices are shown only where you say so. A link ends with your own right to share this build.
          </p>
          <TokenText v-if="made" :text="made" label="The link." />
          <table v-if="data.links.length" class="ledger stack lines">
            <tbody>
              <tr v-for="one in data.links" :key="one.id">
                <td>
                  {{ one.label }} <span class="quiet small">{{ one.money ? 'with prices' : 'without prices' }}</span>
                </td>
                <td class="quiet small">
                  {{ one.open ? 'good until' : 'ran out' }} {{ day(one.until) }},
                  {{ one.opened ? `opened last ${moment(one.opened)}` : 'not opened yet' }}
                </td>
                <td>
                  <button type="button" class="plain link" :disabled="busy" @click="revoke(one.id)">revoke</button>
                </td>
              </tr>
            </tbody>
          </table>
          <form class="fields" @submit.prevent="share()">
            <input v-model="link.label" class="field" aria-label="For whom the link is" placeholder="For whom" />
            <DaysField v-model="link.days" label="Days the link is good" :most="365" :reason="at('days')" />
            <label class="small"><input v-model="link.money" type="checkbox" /> show prices</label>
            <v-btn type="submit" size="small" :disabled="busy || !link.label.trim()">Make a link</v-btn>
          </form>
        </template>
      </template>
      <p class="mt-4"><v-btn @click="shown = false">Close</v-btn></p>
    </v-card>
  </v-dialog>
</template>
