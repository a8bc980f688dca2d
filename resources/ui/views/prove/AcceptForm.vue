<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Finding } from '@/api/client'
import { nextRef } from '@/shared/refs'
import { useBuild, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

/** Lets a finding stand as it is, with a reason. It comes back when what it rests on changes. */
const props = defineProps<{ finding: Finding }>()
const { document: build, overview } = useBuild()
const { edit } = useEdit()
const notices = useNotices()
const asking = ref(false)
const said = ref({ why: '', who: '', until: '' })
const reason = ref('')
const accepted = computed(() => overview.value?.accepted.find((one) => one.finding === props.finding.key))
const grave = computed(() => props.finding.verdict === 'danger')

async function accept(): Promise<void> {
  reason.value = ''
  const old = build.value?.accepted?.filter((one) => one.finding === props.finding.key) ?? []
  try {
    await edit(`${props.finding.check} on ${props.finding.subject.label} accepted`, [
      ...old.map((one) => ({ section: 'accepted', ref: one.ref, delete: true })),
      {
        section: 'accepted',
        create: {
          ref: nextRef('A-', build.value?.accepted),
          finding: props.finding.key,
          why: said.value.why.trim(),
          who: said.value.who.trim(),
          of: props.finding.digest,
          ...(said.value.until === '' ? {} : { until: said.value.until }),
        },
      },
    ])
    asking.value = false
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
function withdraw(): void {
  edit(`${props.finding.check} on ${props.finding.subject.label} not accepted any more`, [
    { section: 'accepted', ref: accepted.value!.ref, delete: true },
  ]).catch(notices.problem)
}
</script>

<template>
  <p v-if="accepted" class="small">
    Accepted by {{ accepted.who }}: “{{ accepted.why }}”<template v-if="accepted.until"
      >, until {{ accepted.until }}</template
    >. It comes back when what it rests on changes.
    <button type="button" class="plain link" @click="withdraw()">No longer accept it</button>
  </p>
  <p v-else-if="!asking" class="small">
    <button type="button" class="plain link" @click="asking = true">Accept it as it is, with a reason</button>
  </p>
  <form v-else class="accept" @submit.prevent="accept()">
    <p v-if="grave" class="danger small">
      It can hurt somebody or start a fire. Type why it cannot here; the reason is kept with your name and printed in
      the record.
    </p>
    <textarea
      v-model="said.why"
      class="field"
      rows="2"
      required
      minlength="8"
      aria-label="Why it may stand"
      placeholder="why it may stand"
    />
    <input v-model="said.who" class="field" required aria-label="Who accepts it" placeholder="your name" />
    <label class="small"
      >until <input v-model="said.until" class="field" type="date" aria-label="Until, if not for good"
    /></label>
    <v-btn type="submit" size="small">Accept it</v-btn>
    <button type="button" class="plain link small" @click="asking = false">Cancel</button>
    <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
  </form>
</template>

<style scoped>
.accept {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  margin: 6px 0;
}
.accept textarea {
  width: 100%;
}
</style>
