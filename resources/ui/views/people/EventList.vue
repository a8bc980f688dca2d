<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, type DoorEvent } from '@/api/client'
import { moment } from '@/shared/format'
import { roleTitle } from '@/shared/roles'

/** Who came in, who let whom in, what was shared and taken along: for owners. */
const { at } = defineProps<{ at: string }>()
const shown = ref(false)
const { data } = useQuery({
  queryKey: computed(() => ['people', at, 'events']),
  queryFn: () => api.get<DoorEvent[]>(`${at}/events`),
  enabled: shown,
  staleTime: 0,
})
const about = (event: DoorEvent) => event.about ?? 'someone who left'
const detail = (event: DoorEvent) => (event.detail ? `: ${event.detail}` : '')
const says: Record<string, (event: DoorEvent) => string> = {
  signed_in: () => 'signed in',
  new_browser: () => 'signed in from a new browser',
  password_changed: () => 'changed the password',
  address_changed: () => 'changed the e-mail address',
  second_on: () => 'turned the second factor on',
  second_off: () => 'turned the second factor off',
  codes_made: () => 'made new recovery codes',
  codes_guessed: () => 'got many wrong codes in a day',
  token_made: (event) => `made a token${detail(event)}`,
  token_revoked: (event) => `revoked a token${detail(event)}`,
  second_required: () => 'asked everybody for a second factor',
  second_not_required: () => 'no longer asks for a second factor',
  invited: (event) => `made an invitation${detail(event)}`,
  invitation_revoked: (event) => `took back an invitation${detail(event)}`,
  joined: (event) => `joined by an invitation of ${about(event)}${detail(event)}`,
  role_changed: (event) =>
    `made ${about(event)} ${event.detail ? roleTitle(event.detail as 'owner') : 'as in the workshop'}`,
  removed: (event) => `took out ${about(event)}`,
  left: () => 'left',
  link_made: (event) => `made a link${detail(event)}`,
  link_revoked: (event) => `revoked a link${detail(event)}`,
  link_opened: (event) => `opened a link${detail(event)}`,
  exported: (event) => `took a build along ${event.detail ?? ''}`,
  archive_read: (event) => `read in a build${detail(event)}`,
  restored: () => 'restored everything from a backup',
  account_deleted: (event) => `${event.detail ?? 'Somebody'} deleted the account`,
}
const who = (event: DoorEvent) =>
  event.by ??
  (event.kind === 'restored'
    ? 'The server'
    : ['link_opened', 'exported'].includes(event.kind)
      ? 'A visitor'
      : 'Someone')
</script>

<template>
  <section aria-label="Events">
    <h2>Events</h2>
    <p v-if="!shown" class="small">
      Sign-ins, roles, invitations, links, tokens and files taken along.
      <button type="button" class="plain link also" @click="shown = true">Show the events</button>
    </p>
    <table v-else-if="data" class="ledger stack lines">
      <thead>
        <tr>
          <th>When</th>
          <th>What</th>
          <th>Build</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="event in data" :key="event.id">
          <td class="quiet">{{ moment(event.at) }}</td>
          <td>{{ who(event) }} {{ (says[event.kind] ?? (() => event.kind))(event) }}</td>
          <td data-of="Build">{{ event.build ?? '' }}</td>
        </tr>
        <tr v-if="data.length === 0">
          <td colspan="3" class="quiet">Nothing has happened yet.</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
h2 {
  margin: 26px 0 6px;
}
.also {
  margin-left: 14px;
}
</style>
