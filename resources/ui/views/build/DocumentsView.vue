<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Documents, type PaperDocument } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { saveText } from '@/shared/download'
import { day, today, words } from '@/shared/format'
import { freeRef, refFrom, toggled } from '@/shared/refs'
import { useAct } from '@/shared/useAct'
import { useInTurn } from '@/shared/useInTurn'
import { useBuild, useCatalogue, useDerived, useEdit } from '@/shared/useBuild'
import DocumentLists from './DocumentLists.vue'

/** All that is written about the build: read or not, which holds where two speak, and what is to be sent back. */
const { id, document: build } = useBuild()
const { edit, set, remove } = useEdit()
const { data: catalogue } = useCatalogue()
const { data: report, isError, error } = useDerived<Documents>('documents', () => 'documents')
const { reason, act } = useAct()
const inTurn = useInTurn()
const fresh = ref({ title: '', kind: 'manual', version: '', date: '' })
const opened = ref<string | null>(null)
const papers = computed(() => build.value?.documents ?? [])
const kinds = computed(() => (catalogue.value?.document_kinds ?? []).map((key) => ({ value: key, title: words(key) })))
const rowOf = (ref: string) => report.value?.documents.find((one) => one.ref === ref)
const titleOf = (ref: string) => papers.value.find((one) => one.ref === ref)?.title ?? ref
const undecided = computed(() => (report.value?.steps ?? []).filter((one) => one.undecided))
const others = computed(() => (report.value?.says ?? []).filter((one) => one.verdict !== 'same'))
const unsent = computed(() => (report.value?.corrections ?? []).filter((one) => one.sent === null))
const place = (step: string) => `/builds/${id.value}/build/bench/${step}`

const save = (paper: PaperDocument, what: string, path: keyof PaperDocument) => (text: string, was: unknown) =>
  set(`${what} of “${paper.title}”`, 'documents', paper.ref, [path], was, text === '' ? null : text)
const prevail = (paper: PaperDocument, other: string) =>
  act(() =>
    inTurn(() => {
      const held = papers.value.find((one) => one.ref === paper.ref)?.over

      return set(
        `What “${paper.title}” prevails over`,
        'documents',
        paper.ref,
        ['over'],
        held ?? null,
        toggled(held, other),
      )
    }),
  )
const read = (paper: PaperDocument) =>
  act(() =>
    set(
      paper.read ? `“${paper.title}” is to be read again` : `“${paper.title}” is read`,
      'documents',
      paper.ref,
      ['read'],
      paper.read ?? null,
      paper.read ? null : today(),
    ),
  )
const add = () =>
  act(async () => {
    const made = freeRef(refFrom(fresh.value.title, 'paper'), (one) => papers.value.some((paper) => paper.ref === one))
    await edit(`Document ${fresh.value.title}`, [
      {
        section: 'documents',
        create: {
          ref: made,
          ...Object.fromEntries(Object.entries(fresh.value).filter(([, text]) => text !== '')),
        },
      },
    ])
    fresh.value = { title: '', kind: 'manual', version: '', date: '' }
    opened.value = made
  })
/** What is to be sent back of one document, as a text. */
function letter(ref: string): string {
  const paper = papers.value.find((one) => one.ref === ref)!
  const lines = unsent.value
    .filter((one) => one.document === ref)
    .map((one, i) =>
      [
        `${i + 1}. ${one.step ? `At “${one.step}”: ` : ''}it says “${one.says}”.`,
        `   Right is: ${one.right}`,
        ...(one.why ? [`   Since: ${one.why}`] : []),
      ].join('\n'),
    )

  return `Corrections to: ${paper.title}${paper.version ? `, version ${paper.version}` : ''}\n\n${lines.join('\n\n')}\n`
}
const sent = (ref: string) =>
  act(() => {
    const paper = papers.value.find((one) => one.ref === ref)!

    return set(
      `Corrections to “${paper.title}” are sent`,
      'documents',
      ref,
      ['corrections'],
      paper.corrections ?? null,
      (paper.corrections ?? []).map((one) => (one.sent ? one : { ...one, sent: today() })),
    )
  })
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Documents</h1>
      <span v-if="papers.length" class="quiet"
        >{{ papers.filter((one) => !one.read).length }} of {{ papers.length }} not read</span
      >
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
    <p v-if="papers.length === 0" class="empty">
      No document is listed. List all there are before the first step: manual, drawings, sheets of the boards, updates
      that came later. Say which prevails where two speak of the same step, and the bench shows the one that holds.
    </p>
    <table v-else class="ledger stack">
      <thead>
        <tr>
          <th>Document</th>
          <th>Kind</th>
          <th>Version</th>
          <th>Of</th>
          <th>Read</th>
          <th>Prevails over</th>
          <th class="num">Steps</th>
          <th />
        </tr>
      </thead>
      <tbody>
        <tr v-for="paper in papers" :key="paper.ref" :class="{ picked: opened === paper.ref }">
          <td><EditCell label="Title" :value="paper.title" :save="save(paper, 'Title', 'title')" /></td>
          <td>
            <EditCell
              label="Kind"
              :value="paper.kind"
              :otherwise="'manual'"
              :options="kinds"
              :save="save(paper, 'Kind', 'kind')"
            />
          </td>
          <td><EditCell label="Version" :value="paper.version" :save="save(paper, 'Version', 'version')" /></td>
          <td><EditCell label="Day it is of" :value="paper.date" :save="save(paper, 'Day', 'date')" /></td>
          <td>
            <button type="button" class="plain link small" :class="{ fails: !paper.read }" @click="read(paper)">
              {{ paper.read ? day(paper.read) : 'not read: mark as read' }}
            </button>
          </td>
          <td class="over">
            <button
              v-for="other in papers.filter((one) => one.ref !== paper.ref)"
              :key="other.ref"
              type="button"
              class="plain small"
              :aria-pressed="(paper.over ?? []).includes(other.ref)"
              :aria-label="`${paper.title} prevails over ${other.title}`"
              @click="prevail(paper, other.ref)"
            >
              {{ other.title }}
            </button>
          </td>
          <td class="num figure">{{ rowOf(paper.ref)?.steps ?? '' }}</td>
          <td class="acts">
            <button
              type="button"
              class="plain link small"
              :aria-expanded="opened === paper.ref"
              @click="opened = opened === paper.ref ? null : paper.ref"
            >
              {{ opened === paper.ref ? 'close' : 'what it says' }}
            </button>
            <button
              type="button"
              class="plain link small"
              :aria-label="`Delete ${paper.title}`"
              @click="remove(`Delete document ${paper.title}`, paper.title, 'documents', paper.ref)"
            >
              delete
            </button>
          </td>
        </tr>
      </tbody>
    </table>
    <DocumentLists
      v-for="paper in papers.filter((one) => one.ref === opened)"
      :key="paper.ref"
      :paper="paper"
      :says="(report?.says ?? []).filter((one) => one.document === paper.ref)"
    />
    <form class="adding" @submit.prevent="add()">
      <input v-model="fresh.title" class="field" aria-label="Title of a document" placeholder="Assembly manual" />
      <select v-model="fresh.kind" class="field" aria-label="Kind of document">
        <option v-for="kind in kinds" :key="kind.value" :value="kind.value">{{ kind.title }}</option>
      </select>
      <input v-model="fresh.version" class="field" aria-label="Version" placeholder="1.3" size="6" />
      <input v-model="fresh.date" class="field" aria-label="Day it is of" type="date" />
      <v-btn type="submit" color="primary" variant="flat" :disabled="!fresh.title.trim()">Add a document</v-btn>
    </form>
    <template v-if="undecided.length">
      <h2>They disagree, and nobody has said which holds</h2>
      <p v-for="one in undecided" :key="one.step">
        <router-link class="link" :to="place(one.step)">{{ one.title }}</router-link>:
        {{ one.follow.map((at) => `“${at.title}”${at.pages ? `, ${at.pages}` : ''}`).join(' and ') }}
      </p>
    </template>
    <template v-if="others.length">
      <h2>Written for another size, or not sure</h2>
      <p v-for="one in others" :key="one.document + one.what">
        {{ one.what }}: “{{ titleOf(one.document) }}” says {{ one.says
        }}<template v-if="one.own"
          >, here it is <strong class="figure">{{ one.own }}</strong></template
        >
        <span class="quiet small">{{ one.why }}</span>
      </p>
    </template>
    <template v-if="unsent.length">
      <h2>To send back</h2>
      <section v-for="name in [...new Set(unsent.map((one) => one.document))]" :key="name" :aria-label="titleOf(name)">
        <pre class="letter">{{ letter(name) }}</pre>
        <v-btn size="small" @click="saveText(`corrections-${name}.txt`, letter(name), 'text/plain;charset=utf-8')"
          >Save as a text</v-btn
        >
        <v-btn size="small" @click="sent(name)">They are sent</v-btn>
      </section>
    </template>
    <template v-if="report?.uncovered.length && papers.length">
      <h2>In no document</h2>
      <p class="small">
        <template v-for="(one, i) in report.uncovered" :key="one.step"
          >{{ i ? ' · ' : '' }}<router-link class="link" :to="place(one.step)">{{ one.title }}</router-link></template
        >
      </p>
    </template>
  </div>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
}
.over button {
  padding: 2px 8px;
  margin: 1px 4px 1px 0;
  text-align: left;
  border: 1px dashed var(--rule);
  border-radius: 2px;
}
.over button[aria-pressed='true'] {
  color: var(--live);
  border: 1px solid currentcolor;
}
.acts {
  white-space: nowrap;
}
.acts button + button {
  margin-left: 10px;
}
.adding {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin-top: 12px;
}
.letter {
  padding: 8px 12px;
  font: inherit;
  font-size: 14px;
  white-space: pre-wrap;
  background: var(--sheet);
}
</style>
