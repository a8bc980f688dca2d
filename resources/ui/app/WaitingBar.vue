<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useWaiting } from '@/offline/useWaiting'
import type { Waiting } from '@/offline/store'

/** What has not reached the server yet: how much, why, and for what it refused, both values side by side. */
const waiting = useWaiting()
const open = ref(false)
const offline = ref(!navigator.onLine)
const noticed = () => {
  offline.value = !navigator.onLine
  if (navigator.onLine) void waiting.send()
}
onMounted(() => {
  window.addEventListener('online', noticed)
  window.addEventListener('offline', noticed)
})
onBeforeUnmount(() => {
  window.removeEventListener('online', noticed)
  window.removeEventListener('offline', noticed)
})
const route = useRoute()
/** What was refused belongs to its build, and is said there; what only waits to be sent is said everywhere. */
const here = computed(() => Number(route.params.build ?? 0))
const refused = computed(() => waiting.refused.filter((one) => one.build === here.value))
const listed = computed(() => waiting.list.filter((one) => one.refused === undefined || one.build === here.value))
/** The one to settle first stands in the bar itself, both sides beside their buttons. */
const first = computed(() => refused.value[0])
const sides = computed(() => {
  const one = first.value
  const clash = one?.refused?.clashes[0]

  return one === undefined || clash === undefined || !settles(one)
    ? null
    : { mine: mineOf(one, clash), there: told(clash.now) }
})
const count = computed(() => listed.value.length)
const says = computed(() => {
  if (first.value !== undefined) {
    const more = refused.value.length > 1 ? ` And ${refused.value.length - 1} more.` : ''

    return sides.value === null
      ? `“${first.value.label}” could not be stored.${more}`
      : `“${first.value.label}”: yours is ${sides.value.mine}, another screen stored ${sides.value.there}.${more}`
  }
  const entries = `${count.value} ${count.value === 1 ? 'entry is' : 'entries are'} kept on this device`
  if (waiting.signedOut) return `${entries}; sign in again to send ${count.value === 1 ? 'it' : 'them'}.`
  if (count.value > 0) return waiting.cut || offline.value ? `No network: ${entries}.` : `${entries} and being sent.`

  return 'No network: you see what was here last. What you write at the bench is kept and sent later.'
})
const shown = computed(() => count.value > 0 || offline.value)
const time = (at: number) =>
  new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })
const told = (value: unknown) =>
  value === null || value === undefined ? 'nothing' : typeof value === 'string' ? value : JSON.stringify(value)
type Clash = NonNullable<Waiting['refused']>['clashes'][number]
const mineOf = (one: Waiting, clash: Clash) =>
  told(
    one.changes.find((change) => change.ref === clash.ref)?.set?.find((set) => set.path.join() === clash.path.join())
      ?.to,
  )
/** Both values are known, so that either can be taken. */
const settles = (one: Waiting) =>
  (one.refused?.clashes.length ?? 0) > 0 && one.refused!.clashes.every((clash) => clash.path.length > 0)
async function drop(one: Waiting): Promise<void> {
  await waiting.drop(one)
  if (count.value === 0) open.value = false
}
</script>

<template>
  <div v-if="shown" class="waiting" role="status" :class="{ fails: refused.length > 0 }">
    <span>{{ says }}</span><template v-if="first && settles(first)">
      <button type="button" class="plain link" @click="waiting.insist(first)">Store mine</button>
      <button type="button" class="plain link" @click="drop(first)">Leave what is there</button> </template
    ><button v-if="count > 0" type="button" class="plain link" @click="open = true">
      Show {{ count === 1 ? 'it' : 'them' }}
    </button>
  </div>
  <v-dialog v-model="open" max-width="640" aria-label="Not sent yet">
    <v-card rounded="sm" class="pa-5">
      <h2>Not sent yet</h2>
      <p class="quiet small">In the order they were made. They are on this device only until they are sent.</p>
      <ul class="kept">
        <li v-for="one in listed" :key="one.id">
          <strong>{{ one.label }}</strong> <span class="quiet small">{{ time(one.at) }}</span><span
            v-if="one.pictures.length"
            class="quiet small"
          >
            · {{ one.pictures.length }} {{ one.pictures.length === 1 ? 'picture' : 'pictures' }}</span
          >
          <template v-if="one.refused">
            <p class="fails">{{ one.refused.reason }}</p>
            <table v-if="one.refused.clashes.length" class="ledger">
              <thead>
                <tr>
                  <th>Place</th>
                  <th>Yours</th>
                  <th>There now</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="clash in one.refused.clashes" :key="JSON.stringify(clash.path)">
                  <td>{{ clash.section }} {{ clash.ref }} {{ clash.path.join(' ') }}</td>
                  <td class="figure">
                    {{ mineOf(one, clash) }}
                  </td>
                  <td class="figure">{{ told(clash.now) }}</td>
                </tr>
              </tbody>
            </table>
            <v-btn v-if="settles(one)" size="small" @click="waiting.insist(one)">Store mine all the same</v-btn>
            <v-btn v-else size="small" @click="waiting.insist(one)">Try it again</v-btn>
          </template>
          <v-btn size="small" @click="drop(one)">{{ one.refused ? 'Leave what is there' : 'Throw it away' }}</v-btn>
        </li>
      </ul>
      <v-btn variant="flat" color="primary" :loading="waiting.sending" @click="waiting.send()">Send now</v-btn>
      <v-btn @click="open = false">Close</v-btn>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.waiting {
  display: flex;
  gap: 16px;
  align-items: baseline;
  padding: 6px 16px;
  font-size: 14px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
}
.waiting button {
  min-height: 44px;
  margin: -10px 0;
  white-space: nowrap;
}
.waiting.fails {
  border-bottom: 2px solid currentcolor;
}
.kept {
  padding: 0;
  list-style: none;
}
.kept li {
  padding: 10px 0;
  border-top: 1px solid var(--rule);
}
.kept p {
  margin: 4px 0;
}
</style>
