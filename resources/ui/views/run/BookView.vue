<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, reasonOf, type BuildBook } from '@/api/client'
import ErrandState from '@/shared/ErrandState.vue'
import { moment } from '@/shared/format'
import { useAct } from '@/shared/useAct'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useErrand } from '@/shared/useErrand'

/** The build book: everything that was decided, fitted, read, found and left open, to read and to print. */
const { id, query, document: build } = useBuild()
const router = useRouter()
const { busy, reason, act } = useAct()
const next = ref('')
/** Another of its kind: all that is not this machine's own goes with it. */
const begin = () =>
  act(async () => {
    const made = await api.post<{ id: number }>(`/api/builds/${id.value}/template`, { name: next.value.trim() })
    await router.push(`/builds/${made.id}/scope/brief`)
  })
const { data: book, isError, error } = useDerived<BuildBook>('book', () => 'book')
const chapters = computed(() => (book.value?.chapters ?? []).map((chapter, i) => ({ ...chapter, at: `chapter-${i}` })))
const { errand, goes, send, follow, again, stop, last, file } = useErrand<null>('book')
const paper = useAct()
/** Worked in the background; whoever waited for it gets it at once. */
const print = (work: () => Promise<null>) =>
  paper.act(async () => {
    await work()
    if (errand.value?.state === 'done' && file.value !== null) {
      const link = document.createElement('a')
      link.href = file.value
      link.download = ''
      link.click()
    }
  })
const old = computed(() => errand.value !== null && errand.value.revision !== query.data.value?.revision)
onMounted(() =>
  paper.act(async () => {
    const before = await last()
    if (before !== null) await follow(before)
  }),
)
const jump = (at: string) => document.getElementById(at)?.scrollIntoView({ block: 'start' })
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Book</h1>
      <span class="quiet">what was decided, fitted, read, found and left open</span>
      <span class="push tools"
        ><v-btn color="primary" variant="flat" :disabled="goes" @click="print(send)">Print it (PDF)</v-btn>
        <v-btn :href="`/api/builds/${id}/archive`" download variant="outlined">Archive (zip)</v-btn></span
      >
    </div>
    <ErrandState v-if="errand" :errand="errand" what="The book on paper" @stop="stop()" @again="print(again)" />
    <p v-if="errand?.state === 'done' && file" class="small" role="status">
      <a class="link" :href="file" download>The book as PDF</a>, made {{ moment(errand.at)
      }}<span v-if="old" class="unproven">, before the last edits</span>.
    </p>
    <p v-if="paper.reason.value" class="danger" role="alert">{{ paper.reason.value }}</p>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <template v-else-if="book">
      <section class="passport" aria-label="Passport">
        <h2>{{ book.passport.name }}</h2>
        <dl class="facts">
          <template v-for="fact in book.passport.facts" :key="fact[0]">
            <dt>{{ fact[0] }}</dt>
            <dd>{{ fact[1] }}</dd>
          </template>
        </dl>
        <p :class="book.passport.signed ? 'holds' : 'unproven'">
          <strong v-if="book.passport.signed">Signed off: {{ book.passport.signed }}</strong>
          <template v-else
            >Not signed off, or something has changed since it was. The last rung of the
            <router-link class="link" :to="`/builds/${id}/run/ladder`">power-up</router-link> does it.</template
          >
        </p>
        <p class="small quiet">
          A record and a planning aid, not a permit: local code and a licensed electrician decide. What is not in it was
          not noted.
        </p>
      </section>
      <form class="fields" @submit.prevent="begin()">
        <span class="small">Another of its kind, begun with its parts, wiring, decisions and steps:</span>
        <input
          v-model="next"
          class="field"
          aria-label="Name of the next one"
          :placeholder="`${build?.build.name ?? ''} 2`"
        />
        <v-btn type="submit" size="small" variant="outlined" :loading="busy" :disabled="next.trim() === ''"
          >Begin</v-btn
        >
      </form>
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
      <p class="chapters">
        <button
          v-for="chapter in chapters"
          :key="chapter.at"
          type="button"
          class="plain link small"
          @click="jump(chapter.at)"
        >
          {{ chapter.title }}
        </button>
      </p>
      <section v-for="chapter in chapters" :id="chapter.at" :key="chapter.at" :aria-label="chapter.title">
        <h2>{{ chapter.title }}</h2>
        <p v-for="says in chapter.says" :key="says">{{ says }}</p>
        <p v-if="chapter.says.length === 0 && chapter.tables.length === 0" class="quiet">Nothing is noted.</p>
        <img
          v-for="drawing in chapter.drawings"
          :key="drawing.view"
          class="drawing"
          :src="`/api/builds/${id}/picture/${drawing.view}.svg`"
          :alt="drawing.title"
          loading="lazy"
        />
        <div v-for="(table, t) in chapter.tables" :key="t" class="scroll" tabindex="0">
          <table class="ledger">
            <thead>
              <tr>
                <th v-for="(head, i) in table.head" :key="i">{{ head }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(row, r) in table.rows" :key="r">
                <td v-for="(cell, c) in row" :key="c">{{ cell }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <img
          v-for="photo in chapter.photos"
          :key="photo.name"
          class="photo"
          :src="`/api/builds/${id}/photos/${photo.name}`"
          :alt="photo.says"
          loading="lazy"
        />
      </section>
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
}
.passport {
  max-width: 620px;
  padding: 4px 20px 12px;
  border: 1px solid var(--ink);
}
.passport dl dd {
  text-align: left;
}
.tools {
  display: flex;
  gap: 8px;
}
.chapters {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin: 14px 0 0;
}
.scroll {
  overflow-x: auto;
}
td {
  vertical-align: top;
}
.drawing {
  width: min(100%, 520px);
  background: #fff;
  margin: 0 12px 12px 0;
}
.photo {
  max-width: 240px;
  margin: 6px 6px 0 0;
}
</style>
