<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, reasonOf, type BeltLoop, type Joints, type PickedCoupling } from '@/api/client'
import { saveCsv } from '@/shared/download'
import FigureText from '@/shared/FigureText.vue'
import FirstAction from '@/shared/FirstAction.vue'
import { useBuild, useDerived } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import VerdictMark from '@/shared/VerdictMark.vue'
import HelpTerms from '@/shared/HelpTerms.vue'

/**
 * What holds what: each joint with its screw, torque and tool; each bag with what is used from it; a belt to whole
 * teeth.
 */
const { id, document: build } = useBuild()
const notices = useNotices()
const { data: list, isError, error } = useDerived<Joints>('joints', () => 'joints')
const panel = usePanel()
const open = (joint: Joints['joints'][number]) =>
  panel.show(joint.key ? { kind: 'working', key: joint.key } : { kind: 'joint', ref: joint.mate })
const short = computed(() => (list.value?.bags ?? []).filter((bag) => bag.counted && bag.left < 0))
const csv = () =>
  saveCsv(`${build.value?.build.name ?? 'build'}-fasteners.csv`, [
    ['bag', 'part', 'planned', 'used', 'left', 'spare', 'owned', 'to order', 'pack', 'packs', 'used for'],
    ...(list.value?.bags ?? []).map((bag) => [
      bag.role,
      bag.part,
      bag.planned,
      bag.used,
      bag.left,
      bag.spare,
      bag.owned,
      bag.order,
      bag.pack,
      bag.packs,
      bag.why,
    ]),
  ])
const shafts = ref({ one: 6.35, other: 10, torque: 1.2 })
const couplings = ref<PickedCoupling[] | null>(null)
const couple = () =>
  api
    .get<PickedCoupling[]>(
      `/api/builds/${id.value}/couplings?${new URLSearchParams(Object.entries(shafts.value).map(([key, value]) => [key, String(value)]))}`,
    )
    .then((found) => (couplings.value = found))
    .catch(notices.problem)
const belt = ref({ pitch: 2, one: 20, other: 20, centre: 300 })
const loop = ref<BeltLoop | null>(null)
const reason = ref('')
let asking = 0
watch(
  belt,
  async (now) => {
    const mine = ++asking
    try {
      const found = await api.get<BeltLoop>(
        `/api/belt-loop?${new URLSearchParams(Object.entries(now).map(([key, value]) => [key, String(value)]))}`,
      )
      if (mine === asking) [loop.value, reason.value] = [found, '']
    } catch (problem) {
      if (mine === asking) [loop.value, reason.value] = [null, reasonOf(problem)]
    }
  },
  { deep: true, immediate: true },
)
</script>

<template>
  <div class="view">
    <div class="view-head">
      <h1>Joints</h1>
      <span v-if="list" class="quiet"
        >{{ list.joints.length }} joints<template v-if="short.length"
          >, {{ short.length }} bags run short</template
        ></span
      ><span v-if="list?.bags.length" class="push"><v-btn @click="csv()">Fasteners, CSV</v-btn></span>
    </div>
    <p v-if="isError" class="danger" role="alert">{{ reasonOf(error) }}</p>
    <p v-else-if="list && list.joints.length === 0" class="empty">
      No joint is described yet. Open a part under Parts and add what it is joined to, with the screw and all it passes
      through.
      <FirstAction path="choose/parts">Open a part</FirstAction>
    </p>
    <template v-else-if="list">
      <table class="ledger">
        <thead>
          <tr>
            <th>Verdict</th>
            <th>Joint</th>
            <th>Screw</th>
            <th class="num">Count</th>
            <th class="num">Clamped</th>
            <th class="num">In thread</th>
            <th class="num">Wanted</th>
            <th class="num">Next length</th>
            <th class="num"><HelpTerms text="Torque" /></th>
            <th class="num">Key</th>
            <th class="num">Hole</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="joint in list.joints"
            :key="`${joint.mate}/${joint.index}`"
            :class="{ picked: panel.open?.kind === 'working' && panel.open.key === joint.key }"
            @click="open(joint)"
          >
            <td>
              <button type="button" class="plain" @click.stop="open(joint)">
                <VerdictMark v-if="joint.verdict" :verdict="joint.verdict" word /><span v-else class="quiet"
                  >not judged</span
                >
              </button>
            </td>
            <td>{{ joint.label }}</td>
            <td class="figure">
              {{ joint.thread ? `${joint.thread} × ${joint.length ?? '?'}` : '–' }}
              <span class="quiet small">{{ joint.head }}</span>
            </td>
            <td class="num figure">{{ joint.count || '' }}</td>
            <td class="num"><FigureText :value="joint.clamped" unit="mm" /></td>
            <td class="num"><FigureText :value="joint.engaged?.toFixed(1)" unit="mm" /></td>
            <td class="num"><FigureText :value="joint.wanted" unit="mm" /></td>
            <td
              class="num"
              :class="{
                fails:
                  joint.suggested !== null &&
                  joint.length !== null &&
                  ['fails', 'danger'].includes(joint.verdict ?? ''),
              }"
            >
              <FigureText :value="joint.suggested" unit="mm" />
            </td>
            <td class="num"><FigureText :value="joint.torque" unit="N m" /></td>
            <td class="num"><FigureText :value="joint.tool" unit="mm" /></td>
            <td class="num"><FigureText :value="joint.hole" unit="mm" /></td>
          </tr>
        </tbody>
      </table>
      <p class="quiet small">
        Torque: class 8.8, K 0.2, 75 % of proof; 70 % of it into aluminium and brass, a fifth into plastic (common
        practice, no source). Tighten crosswise, in two stages, by hand last. A countersunk head takes no washer and no
        cap screw's length.
      </p>
      <h2>Screws by the bag</h2>
      <table class="ledger">
        <thead>
          <tr>
            <th>Bag</th>
            <th>What is in it</th>
            <th class="num">Planned</th>
            <th class="num">Used</th>
            <th class="num">Left</th>
            <th class="num">Spare</th>
            <th class="num">Owned</th>
            <th class="num">To order</th>
            <th class="num">Packs</th>
            <th>Used for</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="bag in list.bags" :key="bag.need" @click="panel.show({ kind: 'part', ref: bag.need })">
            <td>
              <button type="button" class="plain" @click.stop="panel.show({ kind: 'part', ref: bag.need })">
                {{ bag.role }}
              </button>
            </td>
            <td class="small">{{ bag.part }}</td>
            <td class="num figure">{{ bag.planned }}</td>
            <td class="num figure">{{ bag.counted ? bag.used : '' }}</td>
            <td class="num figure" :class="{ fails: bag.counted && bag.left < 0 }">
              {{ bag.counted ? String(bag.left).replace('-', '−') : '' }}
            </td>
            <td class="num figure">{{ bag.spare }}</td>
            <td class="num figure">{{ bag.owned || '' }}</td>
            <td class="num figure">{{ bag.order }}</td>
            <td class="num figure">{{ bag.packs === null ? '–' : `${bag.packs} × ${bag.pack}` }}</td>
            <td class="small quiet">{{ bag.counted ? bag.why : '' }}</td>
          </tr>
        </tbody>
      </table>
    </template>
    <section>
      <h2>A coupling for two shafts</h2>
      <form class="fields" @submit.prevent="couple()">
        <label class="small"
          >Shafts of
          <input v-model.number="shafts.one" class="field" type="number" step="0.01" aria-label="One shaft, mm" /> and
          <input
            v-model.number="shafts.other"
            class="field"
            type="number"
            step="0.01"
            aria-label="Other shaft, mm"
          /><span class="unit">mm</span></label
        ><label class="small"
          >motor of
          <input
            v-model.number="shafts.torque"
            class="field"
            type="number"
            step="0.1"
            aria-label="Torque of the motor, N m"
          /><span class="unit">N m</span></label
        ><v-btn type="submit" size="small">Find couplings in the library</v-btn>
      </form>
      <p v-if="couplings?.length === 0" class="quiet small">
        The library has none for these two; a stepped one is turned, or ordered with bores to size.
      </p>
      <ul v-else-if="couplings" class="small">
        <li v-for="one in couplings" :key="one.ref">
          {{ one.name }} <span class="figure">{{ one.torque ?? '?' }} N m, {{ one.length ?? '?' }} mm</span>
          <span :class="one.enough ? 'holds' : 'tight'">{{
            one.enough
              ? 'twice the torque and more'
              : one.enough === null
                ? 'torque not known'
                : 'less than twice the torque'
          }}</span>
        </li>
      </ul>
    </section>
    <section>
      <h2>A belt to whole teeth</h2>
      <div class="fields">
        <label class="small"
          >Pitch
          <input
            v-model.number="belt.pitch"
            class="field"
            type="number"
            step="0.5"
            aria-label="Pitch of the belt, mm"
          /><span class="unit">mm</span></label
        ><label class="small"
          >Pulleys <input v-model.number="belt.one" class="field" type="number" aria-label="Teeth of one pulley" /> and
          <input v-model.number="belt.other" class="field" type="number" aria-label="Teeth of the other pulley" />
          teeth</label
        ><label class="small"
          >Shafts about
          <input
            v-model.number="belt.centre"
            class="field"
            type="number"
            aria-label="Distance of the shafts, mm"
          /><span class="unit">mm</span> apart</label
        >
      </div>
      <p v-if="reason" class="danger small" role="alert">{{ reason }}</p>
      <p v-else-if="loop">
        <strong class="figure">{{ loop.teeth }} teeth, {{ loop.length }} mm</strong>, shafts then
        <span class="figure">{{ loop.centre }} mm</span> apart; <span class="figure">{{ loop.mesh }}</span> teeth in
        mesh on the smaller pulley<span v-if="loop.mesh < 6" class="tight">, fewer than six</span>. Keep the tail of an
        open belt until its tension is proven.
      </p>
    </section>
  </div>
</template>

<style scoped>
h2 {
  margin: 22px 0 4px;
}
.fields input {
  width: 76px;
}
@media (max-width: 700px) {
  table.ledger {
    display: block;
    overflow-x: auto;
  }
}
</style>
