<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { freeRef, refFrom } from '@/shared/refs'
import { useBuild, useEdit, useEvidence } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import HelpTerms from '@/shared/HelpTerms.vue'

/** Each direction of travel: what there is to begin with, and everything that takes some of it. */
const { document: build, needsOf } = useBuild()
const { set, edit } = useEdit()
const { findings } = useFindings()
const notices = useNotices()
const panel = usePanel()
const fresh = ref({ name: '', along: 'x' })
const taker = ref<{ axis: string; what: string; length: string } | null>(null)
const reason = ref('')
const axes = computed(() => build.value?.axes ?? [])
const rails = computed(() => needsOf('linear_rail'))
const evidence = useEvidence()
const findingOf = (axis: string) => findings.value.find((finding) => finding.key === `M01/${axis}`)
const save = (ref: string, name: string, path: (string | number)[]) => (text: string, was: unknown) =>
  set(
    `${String(path.at(-1))} of ${name}`,
    'axes',
    ref,
    path,
    was,
    text === '' ? null : path[0] === 'blocks' && /^\d+$/.test(text) ? Number(text) : text,
  )

async function guarded(work: () => Promise<unknown>): Promise<void> {
  reason.value = ''
  try {
    await work()
    taker.value = null
    fresh.value.name = ''
  } catch (error) {
    reason.value = reasonOf(error)
  }
}
const add = () =>
  guarded(() =>
    edit(`Travel ${fresh.value.name}`, [
      {
        section: 'axes',
        create: {
          ref: freeRef(refFrom(fresh.value.name, 'axis'), (one) => axes.value.some((axis) => axis.ref === one)),
          name: fresh.value.name,
          along: fresh.value.along,
        },
      },
    ]),
  )

function addTaker(): Promise<void> {
  const { axis, what, length } = taker.value!
  const held = axes.value.find((one) => one.ref === axis)!

  return guarded(() =>
    set(`${what} takes travel of ${held.name}`, 'axes', axis, ['takes'], held.takes ?? null, [
      ...(held.takes ?? []),
      { what, length: /^[\d.\s]+$/.test(length) ? `${length} mm` : length, evidence: 'assumed' },
    ]),
  )
}

function takeOut(axis: string, i: number): void {
  const held = axes.value.find((one) => one.ref === axis)!
  const left = (held.takes ?? []).filter((_, j) => j !== i)
  set(`Less taken of ${held.name}`, 'axes', axis, ['takes'], held.takes, left.length ? left : null).catch(
    notices.problem,
  )
}
</script>

<template>
  <h2>Travel, and what takes it</h2>
  <p v-if="axes.length === 0" class="quiet small">
    No direction is described yet, so nothing says whether the workpieces fit into the travel that is left.
  </p>
  <table v-else class="ledger">
    <thead>
      <tr>
        <th />
        <th>Direction</th>
        <th>Along</th>
        <th><HelpTerms text="Rail" /></th>
        <th class="num">or length</th>
        <th class="num">Blocks</th>
        <th class="num"><HelpTerms text="Pitch" /></th>
        <th>Reduced by</th>
        <th class="num">Advertised</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="axis in axes" :key="axis.ref">
        <td>
          <button
            v-if="findingOf(axis.ref)"
            type="button"
            class="plain"
            :title="findingOf(axis.ref)!.headline"
            :aria-label="`Working of ${axis.name}`"
            @click="panel.show({ kind: 'working', key: `M01/${axis.ref}` })"
          >
            <VerdictMark :verdict="findingOf(axis.ref)!.verdict" />
          </button>
        </td>
        <td><EditCell label="Direction" :value="axis.name" :save="save(axis.ref, axis.name, ['name'])" /></td>
        <td>
          <EditCell
            :label="`${axis.name} runs along`"
            :value="axis.along"
            :options="['x', 'y', 'z'].map((one) => ({ value: one, title: one }))"
            :save="save(axis.ref, axis.name, ['along'])"
          />
        </td>
        <td>
          <EditCell
            :label="`Rail of ${axis.name}`"
            :value="axis.rail"
            :options="rails"
            placeholder="none"
            :save="save(axis.ref, axis.name, ['rail'])"
          />
        </td>
        <td class="num">
          <EditCell
            v-if="!axis.rail"
            figure
            :label="`Length of ${axis.name} to begin with`"
            :value="axis.span"
            unit="mm"
            :save="save(axis.ref, axis.name, ['span'])"
          /><span v-if="!axis.rail && axis.span" class="small block"
            ><EditCell
              :label="`What the length of ${axis.name} rests on`"
              :value="axis.span_evidence"
              :otherwise="'assumed'"
              :options="evidence"
              :save="save(axis.ref, axis.name, ['span_evidence'])"
          /></span>
        </td>
        <td class="num">
          <EditCell
            figure
            :label="`Blocks of ${axis.name}`"
            :value="axis.blocks"
            :otherwise="1"
            :save="save(axis.ref, axis.name, ['blocks'])"
          />
        </td>
        <td class="num">
          <EditCell
            figure
            :label="`Pitch of the blocks of ${axis.name}`"
            :value="axis.block_pitch"
            unit="mm"
            :save="save(axis.ref, axis.name, ['block_pitch'])"
          />
        </td>
        <td class="small">
          <div v-for="(take, i) in axis.takes" :key="i" class="take">
            <EditCell
              label="What takes travel"
              :value="take.what"
              :save="save(axis.ref, axis.name, ['takes', i, 'what'])"
            />
            <EditCell
              figure
              :label="`Travel ${take.what} takes`"
              :value="take.length"
              unit="mm"
              :save="save(axis.ref, axis.name, ['takes', i, 'length'])"
            />
            <EditCell
              :label="`What ${take.what} rests on`"
              :value="take.evidence"
              :otherwise="'assumed'"
              :options="evidence"
              :save="save(axis.ref, axis.name, ['takes', i, 'evidence'])"
            />
            <button type="button" class="plain quiet" :aria-label="`remove ${take.what}`" @click="takeOut(axis.ref, i)">
              remove
            </button>
          </div>
          <button type="button" class="plain link" @click="taker = { axis: axis.ref, what: '', length: '' }">
            Add what else uses up travel
          </button>
          <form v-if="taker?.axis === axis.ref" class="fields" @submit.prevent="addTaker()">
            <input
              v-model="taker.what"
              class="field"
              aria-label="What takes it"
              placeholder="stops, collet, spoilboard"
              size="18"
            /><input v-model="taker.length" class="field" aria-label="How much" placeholder="12 mm" size="7" /><v-btn
              type="submit"
              size="small"
              :disabled="taker.what === '' || taker.length === ''"
              >Add</v-btn
            >
          </form>
        </td>
        <td class="num">
          <EditCell
            figure
            :label="`${axis.name} is sold as`"
            :value="axis.advertised"
            unit="mm"
            :save="save(axis.ref, axis.name, ['advertised'])"
          />
        </td>
      </tr>
    </tbody>
  </table>
  <form class="fields" @submit.prevent="add()">
    <input
      v-model="fresh.name"
      class="field"
      aria-label="A further direction"
      placeholder="A further direction"
    /><select v-model="fresh.along" class="field" aria-label="Along">
      <option>x</option>
      <option>y</option>
      <option>z</option></select
    ><v-btn type="submit" size="small" :disabled="fresh.name === ''">Add</v-btn
    ><span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
  </form>
</template>

<style scoped>
h2 {
  margin: 20px 0 4px;
}
td {
  vertical-align: top;
  padding-top: 5px;
}
.block {
  display: block;
}
.take {
  display: grid;
  grid-template-columns: minmax(90px, 1fr) auto auto auto;
  gap: 8px;
  align-items: baseline;
}
</style>
