<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf } from '@/api/client'
import { useBuild, useCatalogue } from '@/shared/useBuild'
import { useDecide } from '@/shared/useDecide'

/** Questions on which good practice is divided: both sides, what decides, and which one the builder took. */
const { document: build } = useBuild()
const decide = useDecide()
const { data: catalogue } = useCatalogue()
const taking = ref<{ school: string; side: string } | null>(null)
const why = ref('')
const reason = ref('')
const decisionOf = computed(
  () => new Map((build.value?.decisions ?? []).filter((one) => one.about === 'school').map((one) => [one.school, one])),
)

async function take(): Promise<void> {
  const { school, side } = taking.value!
  try {
    await decide('Decide a question of practice', {
      about: 'school',
      school,
      question: catalogue.value!.schools.find((one) => one.key === school)!.question,
      choice: side,
      reason: why.value,
    })
    taking.value = null
    why.value = ''
    reason.value = ''
  } catch (problem) {
    reason.value = reasonOf(problem)
  }
}
</script>

<template>
  <section>
    <h2>Where practice is divided</h2>
    <p class="quiet small">Both sides are good practice. What decides is said; which you take, and why, is kept.</p>
    <table class="ledger">
      <tbody>
        <tr v-for="school in catalogue?.schools" :key="school.key">
          <td class="question">
            {{ school.question }}<span class="quiet small block">{{ school.decides }}</span>
          </td>
          <td>
            <div v-for="(says, side) in school.sides" :key="side" class="side">
              <button
                type="button"
                class="plain"
                :class="decisionOf.get(school.key)?.choice === side ? 'live taken' : 'link'"
                :aria-pressed="decisionOf.get(school.key)?.choice === side"
                @click="taking = { school: school.key, side: String(side) }"
              >
                {{ side }}
              </button>
              <span class="small">{{ says }}</span>
            </div>
            <form v-if="taking?.school === school.key" class="fields" @submit.prevent="take()">
              <input
                v-model="why"
                class="field"
                :aria-label="`Why ${taking.side}?`"
                :placeholder="`Why ${taking.side}?`"
                size="40"
                autofocus
              /><v-btn type="submit" size="small" color="primary" :disabled="why.trim() === ''">Choose this side</v-btn
              ><v-btn size="small" @click="taking = null">Cancel</v-btn>
              <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
            </form>
            <span v-else-if="decisionOf.get(school.key)?.reason" class="small quiet"
              >“{{ decisionOf.get(school.key)!.reason }}”</span
            >
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
section {
  margin-top: 28px;
}
.question {
  width: 36%;
  vertical-align: top;
  padding-top: 6px;
}
.block {
  display: block;
}
.side {
  padding: 1px 0;
}
.taken {
  font-weight: 640;
}
.taken::before {
  content: '✓ ';
}
.link {
  color: var(--live);
  text-decoration: underline;
  text-underline-offset: 2px;
}
</style>
