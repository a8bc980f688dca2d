<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { api, Problem, reasonOf, type Starter, type WorkshopBuilds } from '@/api/client'
import { forgetAnswers } from '@/offline/caches'
import { useWaiting } from '@/offline/useWaiting'
import { verdictOrder } from '@/shared/findings'
import { mayChange } from '@/shared/roles'
import { whoIsHere } from '@/shared/session'
import { useForm } from '@/shared/useForm'
import { dayDone, hoursLeft, leftOut } from '@/shared/forecast'
import { money, percent } from '@/shared/format'
import { useNotices } from '@/shared/useNotices'
import VerdictMark from '@/shared/VerdictMark.vue'
import AccountNotices from './AccountNotices.vue'

const client = useQueryClient()
const router = useRouter()
const notices = useNotices()
const waiting = useWaiting()
const {
  data: workshops,
  isPending,
  isError,
  error,
} = useQuery({ queryKey: ['builds'], queryFn: () => api.get<WorkshopBuilds[]>('/api/builds'), staleTime: 0 })

const visiting = ref(false)
void whoIsHere().then((session) => (visiting.value = session.user === null))
const founding = ref<string | null>(null)
const foundry = useForm()
const found = () =>
  foundry.send(async () => {
    await api.post('/api/workshops', { name: founding.value })
    founding.value = null
    await client.invalidateQueries({ queryKey: ['builds'] })
  })
const making = ref<number | null>(null)
const form = ref({ name: '', kind: '', currency: 'GBP', starter: '' })
const { data: starters } = useQuery({
  queryKey: ['starters'],
  queryFn: () => api.get<Starter[]>('/api/starters'),
  staleTime: Infinity,
})
const starter = computed(() => starters.value?.find((one) => one.key === form.value.starter))
/** A starter brings its kind of machine with it. */
watch(starter, (chosen) => {
  if (chosen !== undefined) form.value.kind = chosen.kind
})
const reasons = ref<Record<string, string | undefined>>({})
const fileReason = ref('')
const removing = ref<{ id: number; name: string } | null>(null)

async function make(body: Record<string, unknown>): Promise<void> {
  await opened(await api.post<{ id: number }>('/api/builds', body), body.file === undefined ? '/scope/brief' : '')
}
async function opened({ id }: { id: number }, at = ''): Promise<void> {
  await client.invalidateQueries({ queryKey: ['builds'] })
  await router.push(`/builds/${id}${at}`)
}

async function begin(): Promise<void> {
  try {
    await make({ workshop: making.value, ...form.value, starter: form.value.starter || null })
  } catch (problem) {
    reasons.value =
      problem instanceof Problem
        ? {
            name: problem.at('/name'),
            kind: problem.at('/kind'),
            currency: problem.at('/currency'),
            all: problem.body.errors === undefined ? problem.message : undefined,
          }
        : { all: reasonOf(problem) }
  }
}

async function open(event: Event, workshop: number): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  fileReason.value = ''
  if (file === undefined) {
    return
  }
  try {
    if (file.name.endsWith('.zip')) {
      const form = new FormData()
      form.append('workshop', String(workshop))
      form.append('archive', file)
      const made = await api.post<{ id: number; pictures: number }>('/api/archives', form)
      await opened(made)
      if (made.pictures > 0) {
        notices.say(`${made.pictures} pictures are being read in. They are shown as they are ready.`)
      }
    } else {
      await make({ workshop, file: await file.text() })
    }
  } catch (problem) {
    const place = problem instanceof Problem ? problem.body.errors?.[0]?.pointer : undefined
    fileReason.value = `${file.name} cannot be opened${place ? ` at ${place}` : ''}: ${reasonOf(problem)}`
  } finally {
    input.value = ''
  }
}

async function remove(): Promise<void> {
  try {
    await api.delete(`/api/builds/${removing.value?.id}`)
    notices.say(`${removing.value?.name} is gone.`)
  } catch (problem) {
    notices.problem(problem)
  }
  removing.value = null
  await client.invalidateQueries({ queryKey: ['builds'] })
}

async function leave(): Promise<void> {
  if (waiting.list.length > 0) {
    notices.say('Entries kept on this device are not sent yet. Send them, or throw them away, before you leave.', true)

    return
  }
  await api.delete('/api/session')
  await forgetAnswers()
  await whoIsHere(true)
  client.clear()
  await router.push('/sign-in')
}

function beginNew(workshop: typeof making.value): void {
  making.value = workshop
  reasons.value = {}
}
</script>

<template>
  <main class="builds view">
    <div class="view-head">
      <img src="/mark.svg" alt="" width="28" height="28" class="mark" />
      <h1>Builds</h1>
      <template v-if="!visiting">
        <router-link to="/account" class="link push">Account</router-link>
        <button type="button" class="plain link" @click="leave()">Sign out</button>
      </template>
      <router-link v-else to="/sign-in" class="link push">Sign in</router-link>
    </div>
    <AccountNotices />
    <p v-if="isPending" class="quiet" role="status">Fetching the builds …</p>
    <p v-else-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <section v-for="workshop in workshops" :key="workshop.id">
      <div class="view-head">
        <h2>{{ workshop.name }}</h2>
        <router-link v-if="workshop.role" :to="`/workshops/${workshop.id}/people`" class="link">People</router-link>
        <span v-if="mayChange(workshop.role)" class="push">
          <v-btn color="primary" @click="beginNew(workshop.id)">New build</v-btn>
          <label class="file-button"
            ><input
              type="file"
              accept=".json,.zip,application/json,application/zip"
              class="file"
              title="A build file, or an archive of up to 60 MB with 300 pictures at the most"
              @change="open($event, workshop.id)"
            /><span>Open a build file</span></label
          >
        </span>
      </div>
      <p v-if="fileReason" class="danger" role="alert">{{ fileReason }}</p>
      <p v-if="workshop.builds.length === 0" class="empty">
        Nothing is being built here yet. Start with <em>New build</em>, then bring your parts list; or open a build
        file, such as <code>demo/linnet.json</code> of this project.
      </p>
      <article v-for="build in workshop.builds" :key="build.id" class="build">
        <router-link :to="`/builds/${build.id}`" class="name"
          ><h3>{{ build.name }}</h3>
          <span class="quiet">{{ build.kind }}</span></router-link
        >
        <p class="purpose">{{ build.purpose }}</p>
        <p v-if="build.trouble" class="wide-fact">
          <span class="fails">It cannot be read or judged.</span> {{ build.trouble }} Open it to mend it.
        </p>
        <template v-else-if="build.summary">
          <ul class="verdicts">
            <li v-for="verdict in verdictOrder" :key="verdict">
              <VerdictMark :verdict="verdict" word /> <span class="figure">{{ build.summary.tally[verdict] }}</span>
            </li>
          </ul>
          <dl class="facts">
            <dt v-if="build.summary.money">Planned</dt>
            <dd v-if="build.summary.money" class="figure">
              {{ money(build.summary.money.planned, build.summary.money.currency, false)
              }}<span v-if="build.summary.money.budget" class="unit"
                >of {{ money(build.summary.money.budget, build.summary.money.currency, false) }}</span
              ><span v-if="build.summary.money.lacks?.length" class="unit"
                >+ {{ build.summary.money.lacks.join(', ') }}</span
              >
            </dd>
            <dt>Fullest supply</dt>
            <dd class="figure">{{ build.summary.supply ? percent(build.summary.supply.share) : '–' }}</dd>
            <dt>Hours left</dt>
            <dd class="figure" :title="leftOut(build.summary.forecast)">
              {{ hoursLeft(build.summary.forecast) }}<span class="unit">h</span>
            </dd>
            <dt>Forecast</dt>
            <dd class="figure">{{ dayDone(build.summary.forecast) }}</dd>
          </dl>
        </template>
        <p v-else class="quiet wide-fact">Not judged yet; open it to see its verdicts.</p>
        <span class="tools small">
          <a class="link" :href="`/api/builds/${build.id}/file`" download>Save as file</a>
          <a
            class="link"
            :href="`/api/builds/${build.id}/archive`"
            download
            title="The build file and its pictures, in one archive"
            >Save with pictures</a
          >
          <button
            v-if="workshop.role === 'owner' || build.role === 'owner'"
            type="button"
            class="plain link"
            @click="removing = build"
          >
            Delete
          </button>
        </span>
        <span v-if="build.summary?.power_forbidden" class="danger off">Not to be powered</span>
        <span v-if="build.summary && !build.judged && !build.trouble" class="quiet small later"
          >as it was judged last</span
        >
      </article>
    </section>

    <div v-if="!visiting" class="small another">
      <button v-if="founding === null" type="button" class="plain link" @click="founding = ''">
        Another workshop of your own
      </button>
      <form v-else class="fields" @submit.prevent="found()">
        <input v-model="founding" class="field" aria-label="Name of the workshop" placeholder="Name of the workshop" />
        <v-btn type="submit" size="small" :disabled="!founding.trim()" :loading="foundry.busy.value">Found it</v-btn>
        <v-btn size="small" @click="founding = null">Leave it</v-btn>
        <span v-if="foundry.all.value" class="danger" role="alert">{{ foundry.all.value }}</span>
      </form>
    </div>

    <v-dialog :model-value="making !== null" max-width="420" @update:model-value="making = null">
      <v-card rounded="sm" class="pa-5">
        <h2 class="mb-4">New build</h2>
        <form @submit.prevent="begin()">
          <label class="small" for="starter">Begin with</label>
          <select id="starter" v-model="form.starter" aria-label="Begin with" class="field mb-1 starter">
            <option value="">an empty build</option>
            <option v-for="one in starters" :key="one.key" :value="one.key">
              {{ one.name }}: {{ one.needs }} parts, {{ one.leads }} leads
            </option>
          </select>
          <p class="quiet small mb-3">
            {{
              starter
                ? starter.says.startsWith('The demo')
                  ? starter.says
                  : `${starter.says} Every value in it is only assumed, until you put your own in its place.`
                : 'Nothing is in it yet.'
            }}
          </p>
          <v-text-field v-model="form.name" label="Name" class="mb-3" :error-messages="reasons.name" autofocus />
          <v-text-field
            v-model="form.kind"
            label="Kind of machine"
            placeholder="router, printer, plotter …"
            class="mb-3"
            :error-messages="reasons.kind"
          />
          <v-text-field v-model="form.currency" label="Currency" class="mb-3" :error-messages="reasons.currency" />
          <p v-if="reasons.all" class="danger" role="alert">{{ reasons.all }}</p>
          <v-btn type="submit" variant="flat" color="primary">Begin</v-btn>
        </form>
      </v-card>
    </v-dialog>
    <v-dialog :model-value="removing !== null" max-width="420" @update:model-value="removing = null">
      <v-card rounded="sm" class="pa-5">
        <h2 class="mb-2">Delete {{ removing?.name }}?</h2>
        <p class="mb-4">
          Its parts, leads, steps, faults and history go with it. This cannot be taken back; save it as a file first if
          in doubt.
        </p>
        <v-btn variant="flat" color="error" @click="remove()">Delete it</v-btn>
        <v-btn @click="removing = null">Keep it</v-btn>
      </v-card>
    </v-dialog>
  </main>
</template>

<style scoped>
.builds {
  height: 100%;
  overflow: auto;
  max-width: 1180px;
  margin: 0 auto;
  width: 100%;
}
.starter {
  width: 100%;
}
.mark {
  align-self: center;
}
.build {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) auto 240px;
  gap: 4px 28px;
  padding: 14px 0;
  border-top: 1px solid var(--ink);
  align-items: start;
}
.name {
  color: inherit;
  text-decoration: none;
}
.name:hover h3 {
  color: var(--live);
}
.build h3 {
  font-size: 18px;
}
.purpose {
  margin: 0;
  max-width: 44ch;
}
.verdicts {
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 14px;
}
.verdicts li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  min-width: 116px;
}
.tools {
  grid-column: 2;
  display: flex;
  gap: 16px;
}
.off {
  grid-column: 3 / 5;
  font-weight: 600;
}
.wide-fact {
  grid-column: 3 / 5;
  margin: 0;
  max-width: 44ch;
}
.later {
  grid-column: 3 / 5;
}
.another {
  padding: 18px 0;
  border-top: 1px solid var(--rule);
}
.file {
  position: absolute;
  opacity: 0;
  width: 1px;
  height: 1px;
}
.file-button {
  color: var(--live);
  cursor: pointer;
  padding: 0 10px;
  font-size: 14px;
  font-weight: 500;
}
.file-button:focus-within {
  outline: 2px solid var(--live);
}
@media (max-width: 900px) {
  .build {
    grid-template-columns: 1fr;
  }
  .tools,
  .off,
  .wide-fact,
  .later {
    grid-column: 1;
  }
}
</style>
