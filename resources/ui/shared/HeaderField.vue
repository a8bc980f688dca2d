<script setup lang="ts">
import { computed } from 'vue'
import type { Path } from '@/api/client'
import EditCell from './EditCell.vue'
import { useBuild, useEdit } from './useBuild'
import { words } from './format'

/** One value of a build's plan, brief or site, edited where it stands. */
const props = defineProps<{
  of: 'build' | 'brief' | 'site'
  path: Path
  label: string
  unit?: string
  options?: readonly string[]
  long?: boolean
  flag?: boolean
  placeholder?: string
  /** Much waits for it: empty, it says so. */
  needed?: boolean
}>()
const { document: build } = useBuild()
const { set } = useEdit()

const raw = computed<unknown>(() =>
  props.path.reduce<unknown>(
    (held, key) => (held as Record<string, unknown> | undefined)?.[key],
    build.value?.[props.of],
  ),
)
const value = computed(() =>
  typeof raw.value === 'boolean' ? (raw.value ? 'yes' : 'no') : (raw.value as string | null | undefined),
)
const choices = computed(() =>
  (props.flag ? ['yes', 'no'] : props.options)?.map((key) => ({ value: key, title: words(key) })),
)
const save = (text: string) =>
  set(props.label, props.of, '', props.path, raw.value ?? null, text === '' ? null : props.flag ? text === 'yes' : text)
</script>

<template>
  <dt>{{ props.label }}</dt>
  <dd :class="{ waits: props.needed && (value === undefined || value === null) }">
    <EditCell
      :figure="props.unit !== undefined"
      :label="props.label"
      :value="value"
      :unit="props.unit"
      :options="choices"
      :long="props.long"
      :placeholder="props.placeholder ?? (props.needed ? 'needed' : 'not said')"
      :save="save"
    />
  </dd>
</template>
