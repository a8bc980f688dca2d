<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Path } from '@/api/client'
import { useAct } from '@/shared/useAct'
import { useBuild, useEdit } from '@/shared/useBuild'

/**
 * What is shown of a build that cannot be read: where the trouble is, the entry as it is kept, and every way out. What
 * was written is never out of reach.
 */
const { id, document: build, trouble } = useBuild()
const { edit, undo } = useEdit()

type Entry = Record<string, unknown> & { ref?: string }

const place = computed<(string | number)[]>(() =>
  (trouble.value?.pointer ?? '')
    .split('/')
    .slice(1)
    .map((step) => (/^\d+$/.test(step) ? Number(step) : step.replaceAll('~1', '/').replaceAll('~0', '~'))),
)
const section = computed(() => String(place.value[0] ?? ''))
const listed = computed(() => Array.isArray((build.value as Record<string, unknown> | undefined)?.[section.value]))
const entry = computed<Entry | undefined>(() => {
  const held = (build.value as Record<string, unknown> | undefined)?.[section.value]

  return (listed.value ? (held as Entry[])[Number(place.value[1])] : held) as Entry | undefined
})
const within = computed(() => place.value.slice(listed.value ? 2 : 1).join(' → '))
const typed = ref('')
const { busy, reason, act } = useAct()
watch(entry, (now) => (typed.value = now === undefined ? '' : JSON.stringify(now, null, 2)), { immediate: true })

function store(): Promise<void> {
  return act(async () => {
    const was = entry.value ?? {}
    const now = JSON.parse(typed.value) as Entry
    const set = [...new Set([...Object.keys(was), ...Object.keys(now)])]
      .filter((key) => key !== 'ref' && JSON.stringify(was[key]) !== JSON.stringify(now[key]))
      .map((key) => ({ path: [key] as Path, was: was[key] ?? null, to: now[key] ?? null }))
    if (set.length === 0) throw new Error('Nothing is changed yet.')
    await edit(`Mend ${section.value} ${was.ref ?? ''}`.trim(), [{ section: section.value, ref: was.ref ?? '', set }])
  })
}

const remove = () =>
  act(() =>
    edit(`Delete ${section.value} ${entry.value?.ref}`, [
      { section: section.value, ref: entry.value?.ref ?? '', delete: true },
    ]),
  )
</script>

<template>
  <div class="view repair">
    <h1>This build cannot be {{ trouble?.reason.startsWith('it can be read') ? 'judged' : 'read' }}</h1>
    <p class="why" role="alert">
      <template v-if="trouble?.pointer"
        >At <code>{{ trouble.pointer }}</code>: </template
      >{{ trouble?.reason }}
    </p>
    <p>Nothing of it is lost. Your other builds are not affected.</p>
    <p class="ways">
      <v-btn variant="flat" color="primary" :disabled="busy" @click="act(undo)">Undo the last edit</v-btn>
      <a class="link" :href="`/api/builds/${id}/file`" download>Save it as a file, as it is kept</a>
      <a class="link" :href="`/api/builds/${id}/archive`" download>The same with its pictures</a>
    </p>
    <section v-if="entry">
      <h2>Or mend it here</h2>
      <p class="quiet small">
        This is the entry as it is kept<template v-if="within"
          >; the trouble is at <strong>{{ within }}</strong></template
        >.
      </p>
      <textarea v-model="typed" class="field entry" rows="16" spellcheck="false" aria-label="The entry as it is kept" />
      <p v-if="reason" class="danger" role="alert">{{ reason }}</p>
      <v-btn variant="outlined" color="primary" :disabled="busy" @click="store()">Store the entry</v-btn>
      <v-btn v-if="listed" :disabled="busy" @click="remove()">Delete the entry</v-btn>
    </section>
    <p v-else-if="reason" class="danger" role="alert">{{ reason }}</p>
  </div>
</template>

<style scoped>
.repair {
  max-width: 78ch;
}
.why {
  border-left: 3px solid rgb(var(--v-theme-fails));
  padding: 6px 12px;
  margin: 12px 0;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  margin: 16px 0 24px;
}
.entry {
  font-family: var(--figures);
  font-size: 13px;
  margin-bottom: 8px;
}
</style>
