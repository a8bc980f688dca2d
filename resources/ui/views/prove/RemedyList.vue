<script setup lang="ts">
import { ref } from 'vue'
import { reasonOf, type Remedies, type Remedy } from '@/api/client'
import { money } from '@/shared/format'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import VerdictMark from '@/shared/VerdictMark.vue'

/** The cheapest fixes for a finding; each was tried on the whole build, and none leaves anything worse. */
const props = defineProps<{ findingKey: string }>()
const { document: build } = useBuild()
const { edit } = useEdit()
const notices = useNotices()
const asked = ref(false)
const {
  data: found,
  isFetching,
  isError,
  error,
} = useDerived<Remedies>('remedies', () => (asked.value ? `remedies/${props.findingKey}` : ''))

function cost(remedy: Remedy): string {
  const amount = Number(remedy.cost)
  if (amount === 0) return remedy.unpriced || remedy.buys ? 'its price is not in the plan' : 'nothing to buy'

  return `${money(remedy.cost.replace('-', ''), build.value?.build.currency ?? '')} ${amount > 0 ? 'more' : 'less'}`
}

async function apply(remedy: Remedy): Promise<void> {
  try {
    await edit(remedy.says, remedy.changes)
    notices.say(`${remedy.says}; u undoes it.`)
  } catch (problem) {
    notices.problem(problem)
  }
}
</script>

<template>
  <h3>Cheapest fix</h3>
  <p v-if="!asked"><v-btn size="small" color="primary" @click="asked = true">Look for fixes</v-btn></p>
  <p v-else-if="isFetching" class="quiet small" role="status">Trying each fix on the whole build …</p>
  <p v-else-if="isError" class="danger small" role="alert">{{ reasonOf(error) }}</p>
  <p v-else-if="found?.remedies.length === 0" class="quiet small">
    {{
      found.tried === 0
        ? 'No fix is known for this yet.'
        : `None of ${found.tried} fixes cures it without making something else worse.`
    }}
  </p>
  <template v-else-if="found">
    <ol class="fixes">
      <li v-for="remedy in found.remedies" :key="remedy.says">
        <span
          ><VerdictMark :verdict="remedy.to" :size="13" /> {{ remedy.says
          }}<span class="quiet small block"
            >then: {{ remedy.to }}{{ remedy.to_be_fitted ? ', once it is fitted and its value confirmed' : ''
            }}<template v-if="Object.keys(remedy.cured).length > 1"
              >; {{ Object.keys(remedy.cured).length - 1 }} more better with it</template
            >
            · {{ cost(remedy)
            }}<template v-if="remedy.days !== 0">
              · {{ Math.abs(remedy.days) }} days {{ remedy.days > 0 ? 'longer' : 'sooner' }}</template
            ></span
          ></span
        >
        <v-btn size="small" :aria-label="`Apply: ${remedy.says}`" @click="apply(remedy)">Apply</v-btn>
      </li>
    </ol>
    <p class="quiet small">
      Out of {{ found.tried }} tried on the whole build; none of these leaves a verdict worse.<template
        v-if="found.left_out"
      >
        {{ found.left_out }} more were not tried.</template
      >
    </p>
  </template>
</template>

<style scoped>
h3 {
  margin: 16px 0 4px;
}
.fixes {
  list-style: none;
  padding: 0;
  margin: 0;
}
.fixes li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: start;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  font-size: 14px;
}
.block {
  display: block;
}
</style>
