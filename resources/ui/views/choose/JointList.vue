<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf } from '@/api/client'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import { usePanel } from '@/shared/usePanel'

/** The joints of a need with others, and a new one. */
const props = defineProps<{ needRef: string }>()
const { document: build, roleOf } = useBuild()
const { edit } = useEdit()
const panel = usePanel()
const adding = ref(false)
const fresh = ref({ kind: '', other: '' })
const reason = ref('')
const joints = computed(() => (build.value?.mates ?? []).filter((mate) => mate.between.includes(props.needRef)))
const others = computed(() =>
  (build.value?.needs ?? []).filter((need) => need.ref !== props.needRef && need.family !== 'screw'),
)

async function add(): Promise<void> {
  const ref = nextRef('J', build.value?.mates)
  try {
    await edit(`Joint of ${roleOf(props.needRef)}`, [
      {
        section: 'mates',
        create: { ref, kind: fresh.value.kind, between: [props.needRef, fresh.value.other], screws: [{}] },
      },
    ])
    panel.show({ kind: 'joint', ref })
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
</script>

<template>
  <h3 class="mt-4 mb-1">
    Joints <button type="button" class="plain link small" @click="adding = !adding">add a joint</button>
  </h3>
  <form v-if="adding" @submit.prevent="add()">
    <input v-model="fresh.kind" aria-label="What joins" placeholder="motor mount" size="14" />
    <select v-model="fresh.other" aria-label="Joined to">
      <option value="">to …</option>
      <option v-for="need in others" :key="need.ref" :value="need.ref">{{ need.role }}</option>
    </select>
    <v-btn type="submit" size="small" color="primary" :disabled="!fresh.kind || !fresh.other">Add</v-btn>
  </form>
  <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
  <ul class="small">
    <li v-for="mate in joints" :key="mate.ref">
      <button type="button" class="plain link" @click="panel.show({ kind: 'joint', ref: mate.ref })">
        {{ mate.kind }}
      </button>
      with {{ roleOf(mate.between.find((one) => one !== needRef) ?? '') }}
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 4px 0;
}
input,
select {
  font: inherit;
  font-size: 13px;
  height: 26px;
  max-width: 200px;
  color: var(--ink);
  background: var(--sheet);
  border: 1px solid var(--rule);
  border-radius: 2px;
  padding: 0 4px;
}
</style>
