<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { usePanel } from '@/shared/usePanel'
import { writeComma, writesComma } from '@/shared/decimals'
import { useLightAndDark } from '@/shared/useTheme'
import { places } from './actions'
import { useStages } from './stages'

/** Find anything: actions, views, parts, leads, checks, steps, faults and words of the trade, by any words they carry. */
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ fault: []; keys: [] }>()
const { id, document: build, overview, portName } = useBuild()
const stages = useStages()
const { undo, redo } = useEdit()
const { data: catalogue } = useCatalogue()
const { dark, turn } = useLightAndDark()
const router = useRouter()
const panel = usePanel()
const words = ref('')
const at = ref(0)
const field = ref<HTMLInputElement | null>(null)

interface Hit {
  kind: string
  title: string
  more: string
  /** Further words it is found by, that need not be shown. */
  also?: string
  go: () => void
}

const explain = (word: string) => () => panel.show({ kind: 'term', word })

const all = computed<Hit[]>(() => {
  const to = (path: string) => () => void router.push(`/builds/${id.value}/${path}`)

  return [
    ...places.map(({ title, also, path }) => ({ kind: 'action', title, also, more: '', go: to(path) })),
    { kind: 'action', title: 'Log a fault', also: 'defect problem', more: 'l', go: () => emit('fault') },
    { kind: 'action', title: 'Undo the last edit', also: 'take back', more: 'u', go: undo },
    { kind: 'action', title: 'Redo', also: 'do again', more: 'r', go: redo },
    {
      kind: 'action',
      title: 'History of edits',
      also: 'who changed',
      more: 'h',
      go: () => panel.show({ kind: 'history' }),
    },
    {
      kind: 'action',
      title: dark.value ? 'Light screen' : 'Dark screen',
      also: 'settings theme colours',
      more: 't',
      go: turn,
    },
    {
      kind: 'action',
      title: writesComma() ? 'Write decimals with a point' : 'Write decimals with a comma',
      also: 'settings numbers locale',
      more: '',
      go: () => {
        writeComma(!writesComma())
        location.reload()
      },
    },
    { kind: 'action', title: 'All builds', also: 'home workshop', more: '', go: () => void router.push('/') },
    { kind: 'help', title: 'Keys', also: 'keyboard shortcuts', more: '?', go: () => emit('keys') },
    { kind: 'help', title: 'What words mean', also: 'glossary terms help', more: '', go: explain('') },
    ...stages.value.flatMap((stage) =>
      stage.views.map((view) => ({ kind: 'view', title: view.title, more: stage.title, go: to(view.path) })),
    ),
    ...(build.value?.needs ?? []).map((need) => ({
      kind: 'part',
      title: need.role,
      more: build.value?.parts?.find((part) => part.ref === need.choice)?.name ?? 'not chosen',
      go: () => {
        to('choose/parts')()
        panel.show({ kind: 'part', ref: need.ref })
      },
    })),
    ...(build.value?.decisions ?? []).map((decision) => ({
      kind: 'decision',
      title: decision.question,
      more: decision.state ?? 'open',
      go: () => {
        to('choose/decisions')()
        panel.show({ kind: 'decision', ref: decision.ref })
      },
    })),
    ...(build.value?.leads ?? []).map((lead) => ({
      kind: 'lead',
      title: `${portName(lead.from)} → ${portName(lead.to)}`,
      more: lead.ref,
      go: () => {
        to('prove/leads')()
        panel.show({ kind: 'lead', ref: lead.ref })
      },
    })),
    ...(overview.value?.findings ?? []).map((finding) => ({
      kind: finding.verdict,
      title: `${finding.check} ${finding.title}`,
      more: finding.subject.label,
      go: () => {
        to('prove/fit')()
        panel.show({ kind: 'working', key: finding.key })
      },
    })),
    ...(build.value?.steps ?? []).map((step) => ({
      kind: 'step',
      title: step.title,
      more: step.section,
      go: to(`build/bench/${step.ref}`),
    })),
    ...(build.value?.faults ?? []).map((fault) => ({
      kind: 'fault',
      title: fault.what,
      more: fault.state ?? 'open',
      go: () => {
        to('build/faults')()
        panel.show({ kind: 'fault', ref: fault.ref })
      },
    })),
    ...(catalogue.value?.terms ?? []).map((term) => ({
      kind: 'word',
      title: term.word,
      more: term.means,
      go: explain(term.word),
    })),
    ...(catalogue.value?.checks ?? []).map((check) => ({
      kind: 'check',
      title: `${check.id} ${check.title}`,
      more: check.means,
      go: explain(`${check.id} ${check.title}`),
    })),
  ]
})
const hits = computed(() => {
  const wanted = words.value.toLowerCase().split(/\s+/).filter(Boolean)

  // What is called so stands before what only mentions it.
  const rank = (hit: Hit) => {
    const title = hit.title.toLowerCase()

    return title.startsWith(wanted[0] ?? '') ? 0 : wanted.every((word) => title.includes(word)) ? 1 : 2
  }

  return all.value
    .filter((hit) =>
      wanted.every((word) => `${hit.kind} ${hit.title} ${hit.more} ${hit.also ?? ''}`.toLowerCase().includes(word)),
    )
    .map((hit) => ({ hit, rank: rank(hit) }))
    .sort((a, b) => a.rank - b.rank)
    .slice(0, 12)
    .map(({ hit }) => hit)
})

watch(words, () => (at.value = 0))
watch(open, async (isOpen) => {
  if (isOpen) {
    words.value = ''
    await nextTick()
    setTimeout(() => field.value?.focus(), 50)
  }
})

function choose(hit: Hit | undefined): void {
  if (hit !== undefined) {
    open.value = false
    hit.go()
  }
}
</script>

<template>
  <v-dialog v-model="open" max-width="640" aria-label="Find anything">
    <v-card rounded="sm" class="pa-4">
      <input
        ref="field"
        v-model="words"
        class="words"
        type="text"
        role="combobox"
        aria-expanded="true"
        aria-controls="finder-hits"
        :aria-activedescendant="`hit-${at}`"
        aria-label="Find an action, part, lead, check, step, fault, word or view"
        placeholder="Part, lead, action, word, view …"
        @keydown.down.prevent="at = Math.min(at + 1, hits.length - 1)"
        @keydown.up.prevent="at = Math.max(at - 1, 0)"
        @keydown.enter.prevent="choose(hits[at])"
      />
      <ul id="finder-hits" role="listbox" aria-label="Found">
        <li
          v-for="(hit, i) in hits"
          :id="`hit-${i}`"
          :key="i"
          role="option"
          :aria-selected="i === at"
          :class="{ at: i === at }"
          tabindex="-1"
          @click="choose(hit)"
          @keydown.enter="choose(hit)"
        >
          <span class="kind quiet">{{ hit.kind }}</span><span>{{ hit.title }}</span
          ><span class="quiet more">{{ hit.more }}</span>
        </li>
      </ul>
      <p v-if="hits.length === 0" class="quiet pa-2">Nothing here carries these words.</p>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.words {
  width: 100%;
  height: 40px;
  font: inherit;
  font-size: 18px;
  color: inherit;
  background: transparent;
  border: 0;
  border-bottom: 2px solid var(--live);
  outline: none;
}
ul {
  list-style: none;
  padding: 8px 0 0;
  margin: 0;
}
li {
  display: grid;
  grid-template-columns: 72px auto 1fr;
  gap: 12px;
  padding: 5px 6px;
  cursor: pointer;
  white-space: nowrap;
  overflow: hidden;
}
li.at {
  background: color-mix(in srgb, var(--live) 12%, transparent);
}
.more {
  overflow: hidden;
  text-overflow: ellipsis;
  text-align: right;
}
</style>
