<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, type ChangeRecord, type EditRecord } from '@/api/client'
import { moment } from '@/shared/format'
import { useBuildId } from '@/shared/useBuild'

const id = useBuildId()
const { data: edits } = useQuery({
  queryKey: computed(() => ['history', id.value]),
  queryFn: () => api.get<EditRecord[]>(`/api/builds/${id.value}/edits`),
})
const opened = ref<number | null>(null)
const { data: changes } = useQuery({
  queryKey: computed(() => ['history', id.value, opened.value]),
  queryFn: () => api.get<ChangeRecord[]>(`/api/builds/${id.value}/edits/${opened.value}`),
  enabled: computed(() => opened.value !== null),
})

/** Leaves of an entry as "path: value", to set before and after against each other. */
function leaves(value: unknown, path = ''): Record<string, string> {
  if (value === null || typeof value !== 'object') {
    return value === undefined ? {} : { [path]: String(value) }
  }

  return Object.assign(
    {},
    ...Object.entries(value).map(([key, inner]) => leaves(inner, path === '' ? key : `${path} · ${key}`)),
  )
}
function differences(change: ChangeRecord): { path: string; before: string; after: string }[] {
  const before = leaves(change.before ?? {})
  const after = leaves(change.after ?? {})

  return [...new Set([...Object.keys(before), ...Object.keys(after)])]
    .filter((path) => before[path] !== after[path])
    .map((path) => ({ path, before: before[path] ?? '–', after: after[path] ?? '–' }))
}
</script>

<template>
  <h2 class="mb-2">History</h2>
  <p v-if="edits?.length === 0" class="quiet">
    Nothing was edited yet. Every edit is listed here, with who made it, and can be undone.
  </p>
  <ol>
    <li v-for="edit in edits" :key="edit.id" :class="{ undone: edit.state !== 'done' }">
      <button
        type="button"
        class="plain"
        :aria-expanded="opened === edit.id"
        @click="opened = opened === edit.id ? null : edit.id"
      >
        {{ edit.label }} <span v-if="edit.state !== 'done'" class="quiet">(undone)</span>
        <span class="quiet small block">{{ edit.by }}, {{ moment(edit.at) }}</span>
      </button>
      <ul v-if="opened === edit.id && changes" class="small">
        <template v-for="change in changes" :key="`${change.section}/${change.ref}`">
          <li v-for="row in differences(change)" :key="row.path">
            <span class="quiet">{{ change.section }} {{ change.ref }} · {{ row.path }}</span
            ><br />{{ row.before }} → <strong>{{ row.after }}</strong>
          </li>
        </template>
      </ul>
    </li>
  </ol>
</template>

<style scoped>
ol,
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
ol > li {
  border-bottom: 1px solid var(--rule);
  padding: 6px 0;
}
ul {
  padding: 6px 0 6px 12px;
}
.undone {
  text-decoration: line-through;
  text-decoration-color: var(--quiet);
}
.block {
  display: block;
}
</style>
