<script setup lang="ts">
import { computed, defineAsyncComponent, ref } from 'vue'
import { api, type BeltNote, type FollowingError, type HeaterLoop, type Resonances } from '@/api/client'
import { written } from '@/shared/decimals'
import { onDay, percent } from '@/shared/format'
import { useAct } from '@/shared/useAct'
import { useBuild } from '@/shared/useBuild'
import { listen } from './sound'
import { useReadings } from './useReadings'
import WorkedReadings from './WorkedReadings.vue'

/** What a machine sounds and swings like, and what to set by it. Logs are read and not kept; a figure is, once it is stored. */
const LinePlot = defineAsyncComponent(() => import('./LinePlot.vue'))
const { id, document: build, demo, needsOf } = useBuild()
const { store } = useReadings()
const { busy, reason, act } = useAct()
const kinds = {
  note: 'Belt by its note',
  spectrum: 'Resonance',
  loop: 'Heater loop',
  following: 'Following error',
  few: 'From a few readings',
} as const
const kind = ref<keyof typeof kinds>('note')
const at = (what: string) => `/api/builds/${id.value}/${what}`
/** A form with a file in it; what is empty is left out. */
function form(fields: Record<string, string | Blob | null | undefined>): FormData {
  const data = new FormData()
  for (const [key, value] of Object.entries(fields)) {
    if (value instanceof Blob) data.append(key, value, key === 'sound' ? 'note.wav' : 'log.csv')
    else if (value) data.append(key, value)
  }

  return data
}
const picked = (event: Event) => (event.target as HTMLInputElement).files?.[0]
const simulated = async (what: string) => {
  const answer = await fetch(at(`simulated-logs/${what}`))

  return answer.blob()
}
const figure = (value: number | null | undefined, unit = '') =>
  value === null || value === undefined ? '–' : `${written(String(value))}${unit ? ` ${unit}` : ''}`

// Belts
const belts = computed(() => needsOf('belt'))
const belt = ref({ need: '', span: '', mass: '', tension: '', frequency: '' })
const heard = ref<BeltNote | null>(null)
const note = (sound?: Blob) =>
  act(async () => {
    heard.value = null
    const { span, mass, tension, frequency } = belt.value
    heard.value = await api.post<BeltNote>(
      at('tune/note'),
      form({ span, mass, tension, ...(sound === undefined ? { frequency } : { sound }) }),
    )
  })
const listening = ref(false)
const hear = () =>
  act(async () => {
    listening.value = true
    let sound: Blob
    try {
      sound = await listen(3)
    } finally {
      listening.value = false
    }
    await note(sound)
    if (reason.value) throw new Error(reason.value)
  })
const keepNote = () =>
  act(() =>
    store(
      {
        what: 'belt_note',
        label: 'Note of a belt',
        need: belt.value.need || null,
        axis: null,
        port: null,
        scenario: null,
        unit: 'Hz',
      },
      `${heard.value!.frequency} Hz`,
      { note: `${belt.value.span}, ${belt.value.mass}: ${heard.value!.tension} N` },
    ),
  )
const noteHistory = computed(() => (build.value?.readings ?? []).filter((one) => one.what === 'belt_note'))

// Resonance
const accepted = ref('0.15')
const spectrum = ref<Resonances | null>(null)
const shake = (log: Blob | undefined) =>
  act(async () => {
    if (log === undefined) return
    spectrum.value = await api.post<Resonances>(at('tune/spectrum'), form({ log, accepted: accepted.value }))
  })
const keepPeak = (axis: string, frequency: number) =>
  act(() =>
    store(
      {
        what: 'resonance',
        label: 'Resonance',
        need: null,
        axis: axis || null,
        port: null,
        scenario: null,
        unit: 'Hz',
      },
      `${frequency} Hz`,
    ),
  )
const axisOf = (signal: string) =>
  build.value?.axes?.find((axis) => axis.ref.toLowerCase() === signal.toLowerCase())?.ref ?? ''

// Heaters
const step = ref('')
const target = ref('')
const loop = ref<HeaterLoop | null>(null)
const heat = (log: Blob | undefined) =>
  act(async () => {
    if (log === undefined) return
    loop.value = await api.post<HeaterLoop>(
      at('tune/step-response'),
      form({ log, step: step.value, target: target.value }),
    )
  })

// Following error
const limit = ref('')
const following = ref<FollowingError | null>(null)
const follow = (log: Blob | undefined) =>
  act(async () => {
    if (log === undefined) return
    following.value = await api.post<FollowingError>(at('tune/following'), form({ log, limit: limit.value }))
  })
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Tune</h1>
      <span class="choices" role="group" aria-label="What is tuned"
        ><button
          v-for="(title, key) in kinds"
          :key="key"
          type="button"
          class="plain"
          :aria-pressed="kind === key"
          @click="kind = key"
        >
          {{ title }}
        </button></span
      >
    </div>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>

    <section v-if="kind === 'note'" aria-label="Belt by its note">
      <p class="small">
        Pluck the free span near its middle. Its note follows from tension, length and mass: f = √(T/µ) / 2L. Two belts
        that belong together sound alike.
      </p>
      <div class="grid">
        <label for="belt">Belt</label>
        <select id="belt" v-model="belt.need" class="field">
          <option value="">none of the list</option>
          <option v-for="one in belts" :key="one.value" :value="one.value">{{ one.title }}</option>
        </select>
        <label for="span">Free span</label>
        <input id="span" v-model="belt.span" class="field" placeholder="150 mm" />
        <label for="mass">Mass of one metre</label>
        <input id="mass" v-model="belt.mass" class="field" placeholder="8.4 g/m" />
        <label for="tension">Tension wanted <span class="quiet small">if known</span></label>
        <input id="tension" v-model="belt.tension" class="field" placeholder="40 N" />
        <label for="frequency">Note, where you know it</label>
        <input id="frequency" v-model="belt.frequency" class="field" placeholder="110 Hz" />
      </div>
      <div class="fields">
        <v-btn color="primary" variant="flat" :loading="busy && !listening" @click="note()">Work it out</v-btn>
        <v-btn variant="outlined" :disabled="busy" @click="hear()">{{ listening ? 'Pluck now …' : 'Listen' }}</v-btn>
        <label class="pick small"
          >or a sound (WAV)<input
            type="file"
            accept=".wav,audio/wav"
            aria-label="A sound of the belt"
            @change="note(picked($event))"
        /></label>
        <button v-if="demo" type="button" class="plain link small" @click="simulated('note').then(note)">
          simulated microphone
        </button>
      </div>
      <section v-if="heard" class="outcome" aria-label="The note">
        <dl class="across">
          <div>
            <dt>Note</dt>
            <dd class="figure">{{ figure(heard.frequency, 'Hz') }}</dd>
          </div>
          <div>
            <dt>Tension</dt>
            <dd class="figure">{{ figure(heard.tension, 'N') }}</dd>
          </div>
          <div v-if="heard.wanted !== null">
            <dt>Should sound at</dt>
            <dd class="figure">{{ figure(heard.wanted, 'Hz') }}</dd>
          </div>
          <div v-if="heard.off !== null">
            <dt>Tension off by</dt>
            <dd class="figure">{{ percent(heard.off) }}</dd>
          </div>
        </dl>
        <p v-if="heard.clearness !== null" class="small quiet">
          {{ heard.says ?? 'A clear note.' }}
        </p>
        <v-btn size="small" variant="outlined" @click="keepNote()">Store it as a reading</v-btn>
      </section>
      <p v-for="one in noteHistory" :key="one.ref" class="small quiet">
        {{ onDay(one.at) }}
        <span class="figure">{{ one.value }}</span> {{ one.note }}
      </p>
    </section>

    <section v-else-if="kind === 'spectrum'" aria-label="Resonance">
      <p class="small">
        A log of acceleration, CSV: a column called time, in seconds (or in ms, if its heading says so), and one for
        each direction, in any order. The filter is chosen for the highest peak, a tenth off either way; the
        acceleration is what rounds a corner by no more than you accept.
      </p>
      <div class="fields">
        <label
          >corner rounded by at most
          <input v-model="accepted" class="field short" aria-label="Corner rounded by at most" /> mm</label
        >
        <label class="pick"
          >a log (CSV)<input
            type="file"
            accept=".csv,text/csv"
            aria-label="A log of acceleration"
            @change="shake(picked($event))"
        /></label>
        <button v-if="demo" type="button" class="plain link small" @click="simulated('acceleration').then(shake)">
          simulated accelerometer
        </button>
      </div>
      <template v-if="spectrum">
        <p v-for="line in spectrum.says" :key="line" class="small">{{ line }}</p>
        <section v-for="row in spectrum.signals" :key="row.signal" class="outcome" :aria-label="row.signal">
          <h2>{{ row.signal }}</h2>
          <LinePlot
            :lines="[{ name: row.signal, points: row.curve }]"
            x="Hz"
            bare
            :label="`Spectrum of ${row.signal}; its peaks are in the table`"
          />
          <table class="ledger">
            <thead>
              <tr>
                <th class="num">Peak</th>
                <th class="num">Damping</th>
                <th class="num">Of all power</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="peak in row.peaks" :key="peak.frequency">
                <td class="num figure">{{ figure(peak.frequency, 'Hz') }}</td>
                <td class="num figure">
                  {{ peak.damping === null ? `under ${figure(peak.damping_most)}` : figure(peak.damping) }}
                </td>
                <td class="num figure">{{ percent(peak.share) }}</td>
                <td>
                  <button type="button" class="plain link small" @click="keepPeak(axisOf(row.signal), peak.frequency)">
                    store as a reading
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
          <table class="ledger">
            <thead>
              <tr>
                <th>Filter</th>
                <th class="num">Left, a tenth off</th>
                <th class="num">Acceleration</th>
                <th class="num">Later by</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="filter in row.filters" :key="filter.name">
                <td>{{ filter.name }} <strong v-if="filter.name === row.best" class="live">suits</strong></td>
                <td class="num figure">{{ percent(filter.residual) }}</td>
                <td class="num figure">{{ figure(filter.acceleration, 'mm/s²') }}</td>
                <td class="num figure">{{ figure(Math.round(filter.delay * 10000) / 10, 'ms') }}</td>
              </tr>
            </tbody>
          </table>
        </section>
      </template>
    </section>

    <section v-else-if="kind === 'loop'" aria-label="Heater loop">
      <p class="small">
        From cold, switch the heater to a steady share of its power and log the temperature until it stops rising. Stay
        with it: protection has to be proven first. Where the log has a column of the power too, the step and its moment
        are read from it.
      </p>
      <div class="fields">
        <label
          >stepped by
          <input v-model="step" class="field short" placeholder="log" aria-label="Stepped by, per cent" />
          %</label
        >
        <label>to be held at <input v-model="target" class="field short" aria-label="To be held at, °C" /> °C</label>
        <label class="pick"
          >a log (CSV)<input
            type="file"
            accept=".csv,text/csv"
            aria-label="A log of temperature"
            @change="heat(picked($event))"
        /></label>
        <button v-if="demo" type="button" class="plain link small" @click="simulated('heating').then(heat)">
          simulated thermometer
        </button>
      </div>
      <section v-if="loop" class="outcome" aria-label="What the heater is like">
        <dl class="across">
          <div>
            <dt>Gain</dt>
            <dd class="figure">{{ figure(loop.gain, 'K/%') }}</dd>
          </div>
          <div>
            <dt>Dead time</dt>
            <dd class="figure">{{ figure(loop.dead, 's') }}</dd>
          </div>
          <div>
            <dt>Time constant</dt>
            <dd class="figure">{{ figure(loop.constant, 's') }}</dd>
          </div>
          <div>
            <dt>All its power brings it to</dt>
            <dd class="figure">{{ figure(loop.most, '°C') }}</dd>
          </div>
        </dl>
        <p class="small">
          Taken: <strong>{{ loop.taken.temperature }}</strong> as the temperature,
          <template v-if="loop.taken.output"
            >a step of {{ figure(loop.taken.step, '%') }} at {{ figure(loop.taken.at, 's') }} from
            <strong>{{ loop.taken.output }}</strong></template
          ><template v-else>a step of {{ figure(loop.taken.step, '%') }} at the first row, as given</template>.
        </p>
        <p v-for="line in loop.says" :key="line" class="tight">{{ line }}</p>
        <LinePlot
          :lines="[
            { name: 'measured', points: loop.measured },
            { name: 'model', points: loop.model },
          ]"
          x="s"
          y="°C"
          bare
          label="The log, and the model drawn over it"
        />
        <table class="ledger stack">
          <thead>
            <tr>
              <th>Gains</th>
              <th class="num">P, %/K</th>
              <th class="num">I, %/(K s)</th>
              <th class="num">D, % s/K</th>
              <th class="num">Overshoot</th>
              <th class="num">There in</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="way in loop.methods" :key="way.name">
              <td>{{ way.name }}</td>
              <td class="num figure" data-of="P">{{ figure(way.p) }}</td>
              <td class="num figure" data-of="I">{{ figure(way.i) }}</td>
              <td class="num figure" data-of="D">{{ figure(way.d) }}</td>
              <td class="num figure" data-of="Overshoot">{{ figure(way.overshoot, 'K') }}</td>
              <td class="num figure" data-of="There in">{{ figure(way.reached, 's') }}</td>
            </tr>
          </tbody>
        </table>
        <p class="small quiet">
          Held at {{ figure(loop.target, '°C') }}, simulated on the model. Reaction curve: Ziegler and Nichols 1942;
          softer: Rivera, Morari and Skogestad 1986 (from memory).
        </p>
      </section>
    </section>

    <section v-else-if="kind === 'following'" aria-label="Following error">
      <p class="small">
        A log of the following error, CSV: the time in seconds (or in ms, if its heading says so), then a column for
        each axis, in mm.
      </p>
      <div class="fields">
        <label>limit <input v-model="limit" class="field short" aria-label="Limit, mm" /> mm</label>
        <label class="pick"
          >a log (CSV)<input
            type="file"
            accept=".csv,text/csv"
            aria-label="A log of the following error"
            @change="follow(picked($event))"
        /></label>
        <button v-if="demo" type="button" class="plain link small" @click="simulated('following').then(follow)">
          simulated drive
        </button>
      </div>
      <table v-if="following" class="ledger stack">
        <thead>
          <tr>
            <th>Axis</th>
            <th class="num">Worst</th>
            <th class="num">Settles at</th>
            <th class="num">Grows in a minute</th>
            <th class="num">Beyond the limit</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in following.signals" :key="row.signal">
            <td>{{ row.signal }}</td>
            <td class="num figure" data-of="Worst">{{ figure(row.worst, 'mm') }}</td>
            <td class="num figure" data-of="Settles at">{{ figure(row.rest, 'mm') }}</td>
            <td class="num figure" data-of="Grows in a minute">{{ figure(row.trend, 'mm') }}</td>
            <td class="num figure" data-of="Beyond the limit">{{ limit ? row.beyond : '–' }}</td>
          </tr>
        </tbody>
      </table>
      <p v-if="following" class="small quiet">
        A rise over minutes hints at bearings or guides that are too tight; gains come after the inertia fits.
      </p>
    </section>

    <section v-else aria-label="From a few readings">
      <p class="small">
        Extruder, flow, a floating head, a relay test. Chip load and thinning of a cut stand under
        <router-link class="link" :to="`/builds/${id}/prove/motion`">Motion</router-link>.
      </p>
      <WorkedReadings group="tune" />
    </section>
  </div>
</template>

<style scoped>
h2 {
  margin: 6px 0;
}
section {
  max-width: 900px;
}
.grid {
  display: grid;
  grid-template-columns: 230px 220px;
  gap: 6px 12px;
  align-items: center;
}
.grid .field {
  height: 34px;
}
.outcome {
  margin: 14px 0;
  padding: 4px 16px;
  border-left: 3px solid var(--live);
}
.short {
  width: 72px;
}
@media (max-width: 700px) {
  .grid {
    grid-template-columns: 1fr;
  }
  .grid .field {
    height: 44px;
  }
}
</style>
