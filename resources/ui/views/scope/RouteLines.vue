<script setup lang="ts">
import { computed, ref } from 'vue'
import { reasonOf, type Route } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import { useBuild, useCatalogue, useEdit } from '@/shared/useBuild'
import { useNotices } from '@/shared/useNotices'

/** What one route says of itself, line by line, to be changed where it stands. */
const props = defineProps<{ route: Route }>()
const emit = defineEmits<{ gone: [] }>()
const { document: build, needs } = useBuild()
const { set, remove } = useEdit()
const { data: catalogue } = useCatalogue()
const notices = useNotices()
const fresh = ref({ what: '', kind: 'left out', price: '', supplier: '' })
const reason = ref('')
const lines = computed(() => props.route.lines ?? [])
const suppliers = computed(() =>
  (build.value?.suppliers ?? []).map((supplier) => ({
    value: supplier.ref,
    title: `${supplier.name} (${supplier.currency})`,
  })),
)
const pick = (list: readonly string[] | undefined) => (list ?? []).map((key) => ({ value: key, title: key }))
const save =
  (what: string, path: (string | number)[], whole = false) =>
  (text: string, was: unknown) =>
    set(
      `${what} of ${props.route.name}`,
      'routes',
      props.route.ref,
      path,
      was,
      text === '' ? null : whole && /^\d+$/.test(text) ? Number(text) : text,
    )
const work = ['printing', 'mechanics', 'wiring', 'software', 'tuning'] as const

async function setLines(label: string, to: unknown): Promise<void> {
  reason.value = ''
  await set(label, 'routes', props.route.ref, ['lines'], props.route.lines ?? null, to)
}

async function add(): Promise<void> {
  try {
    const { what, kind, price, supplier } = fresh.value
    await setLines(`${what} for ${props.route.name}`, [
      ...lines.value,
      { what, kind, ...(price === '' ? {} : { price }), ...(supplier === '' ? {} : { supplier }), evidence: 'listing' },
    ])
    fresh.value = { what: '', kind: 'left out', price: '', supplier: '' }
  } catch (error) {
    reason.value = reasonOf(error)
  }
}

function buy(need: string, does: boolean): void {
  const held = props.route.needs ?? []
  const after = does ? [...held, need] : held.filter((one) => one !== need)
  set(
    `${does ? 'Buys' : 'Leaves'} ${needs.value.get(need)?.role}`,
    'routes',
    props.route.ref,
    ['needs'],
    props.route.needs ?? null,
    after.length ? after : null,
  ).catch(notices.problem)
}

async function drop(): Promise<void> {
  if (await remove(`Delete route ${props.route.name}`, props.route.name, 'routes', props.route.ref)) emit('gone')
}
</script>

<template>
  <section class="route">
    <h2><EditCell label="Name of the route" :value="props.route.name" :save="save('Name', ['name'])" /></h2>
    <div class="two">
      <div>
        <table class="ledger">
          <thead>
            <tr>
              <th>What it pays for</th>
              <th>Kind</th>
              <th class="num">Pieces</th>
              <th class="num">Owned</th>
              <th class="num">Price</th>
              <th>From</th>
              <th>Rests on</th>
              <th />
            </tr>
          </thead>
          <tbody>
            <tr v-for="(line, i) in lines" :key="i">
              <td><EditCell label="What" :value="line.what" :save="save('Line', ['lines', i, 'what'])" /></td>
              <td class="small">
                <EditCell
                  label="Kind of line"
                  :value="line.kind"
                  :options="pick(catalogue?.line_kinds)"
                  :save="save('Kind', ['lines', i, 'kind'])"
                />
              </td>
              <td class="num">
                <EditCell
                  figure
                  :label="`Pieces of ${line.what}`"
                  :value="line.pieces"
                  :otherwise="1"
                  :save="save('Pieces', ['lines', i, 'pieces'], true)"
                />
              </td>
              <td class="num">
                <EditCell
                  figure
                  :label="`Owned of ${line.what}`"
                  :value="line.owned"
                  :save="save('Owned', ['lines', i, 'owned'], true)"
                />
              </td>
              <td class="num">
                <EditCell
                  figure
                  :label="`Price of ${line.what}`"
                  :value="line.price"
                  placeholder="no price"
                  :save="save('Price', ['lines', i, 'price'])"
                />
              </td>
              <td class="small">
                <EditCell
                  :label="`Supplier of ${line.what}`"
                  :value="line.supplier"
                  :options="suppliers"
                  :save="save('Supplier', ['lines', i, 'supplier'])"
                />
              </td>
              <td class="small">
                <EditCell
                  :label="`What the price of ${line.what} rests on`"
                  :value="line.evidence"
                  :options="(catalogue?.evidence ?? []).map((one) => ({ value: one.key, title: one.label }))"
                  :save="save('Evidence', ['lines', i, 'evidence'])"
                />
              </td>
              <td>
                <button
                  type="button"
                  class="plain quiet small"
                  :aria-label="`remove ${line.what}`"
                  @click="
                    setLines(
                      `remove ${line.what}`,
                      lines.filter((_, j) => j !== i),
                    ).catch(notices.problem)
                  "
                >
                  remove
                </button>
              </td>
            </tr>
          </tbody>
        </table>
        <form class="fields" @submit.prevent="add()">
          <input
            v-model="fresh.what"
            class="field"
            aria-label="A further thing it pays for"
            placeholder="A further thing it pays for"
            size="26"
          />
          <select v-model="fresh.kind" class="field" aria-label="Kind of line">
            <option v-for="kind in catalogue?.line_kinds" :key="kind">{{ kind }}</option>
          </select>
          <input v-model="fresh.price" class="field" aria-label="Price" placeholder="Price" size="7" />
          <select v-model="fresh.supplier" class="field" aria-label="Supplier">
            <option value="">no supplier</option>
            <option v-for="supplier in suppliers" :key="supplier.value" :value="supplier.value">
              {{ supplier.title }}
            </option>
          </select>
          <v-btn type="submit" size="small" :disabled="fresh.what === ''">Add</v-btn>
          <span v-if="reason" class="danger small" role="alert">{{ reason }}</span>
        </form>
        <p class="small quiet">
          {{
            props.route.whole_build
              ? 'Buys every need of the build as Money plans it, besides.'
              : (props.route.needs ?? []).length
                ? `Buys ${props.route.needs!.length} needs of the build besides: ${props.route
                    .needs!.slice(0, 6)
                    .map((ref) => needs.get(ref)?.role ?? ref)
                    .join(', ')}${props.route.needs!.length > 6 ? ' …' : ''}`
                : "Buys nothing of the build's own list."
          }}
          <button
            v-if="!props.route.whole_build && (props.route.needs ?? []).length === 0"
            type="button"
            class="plain link"
            @click="set('Buy the whole build', 'routes', props.route.ref, ['whole_build'], null, true)"
          >
            Let it buy the whole build
          </button>
        </p>
        <details v-if="!props.route.whole_build" class="small">
          <summary class="link">Which needs of the build it buys</summary>
          <div class="buys">
            <label v-for="need in needs.values()" :key="need.ref"
              ><input
                type="checkbox"
                :checked="(props.route.needs ?? []).includes(need.ref)"
                @change="buy(need.ref, ($event.target as HTMLInputElement).checked)"
              />
              {{ need.role }}</label
            >
          </div>
        </details>
      </div>
      <dl class="facts">
        <dt>Kind</dt>
        <dd>
          <EditCell
            label="Kind of route"
            :value="props.route.kind"
            :options="pick(catalogue?.route_kinds)"
            :save="save('Kind', ['kind'])"
          />
        </dd>
        <template v-for="kind in work" :key="kind"
          ><dt>{{ kind[0]!.toUpperCase() + kind.slice(1) }}, guide</dt>
          <dd>
            <EditCell
              figure
              :label="`Guide hours of ${kind}`"
              :value="props.route.hours?.[kind]"
              unit="h"
              :save="save(`Hours of ${kind}`, ['hours', kind])"
            /></dd
        ></template>
        <dt>Filament</dt>
        <dd>
          <EditCell
            figure
            label="Filament"
            :value="props.route.filament"
            unit="kg"
            :save="save('Filament', ['filament'])"
          />
        </dd>
        <dt>Further waiting</dt>
        <dd>
          <EditCell
            figure
            label="Wait in days"
            :value="props.route.wait_days"
            :save="save('Wait', ['wait_days'], true)"
          /><span class="unit">d</span>
        </dd>
        <dt>Documentation</dt>
        <dd>
          <EditCell
            label="Documentation"
            :value="props.route.documentation"
            :options="pick(['poor', 'fair', 'good'])"
            :save="save('Documentation', ['documentation'])"
          />
        </dd>
        <dt>Support</dt>
        <dd>
          <EditCell
            label="Support"
            :value="props.route.support"
            :options="pick(['poor', 'fair', 'good'])"
            :save="save('Support', ['support'])"
          />
        </dd>
        <dt>Freedom to change</dt>
        <dd>
          <EditCell
            label="Freedom to change"
            :value="props.route.freedom"
            :options="pick(['none', 'some', 'full'])"
            :save="save('Freedom', ['freedom'])"
          />
        </dd>
        <dt>Left over sells for</dt>
        <dd>
          <EditCell
            figure
            label="What is left over sells for"
            :value="props.route.resale"
            :save="save('Resale', ['resale'])"
          />
        </dd>
      </dl>
    </div>
    <p class="small"><button type="button" class="plain link" @click="drop()">Delete this route</button></p>
  </section>
</template>

<style scoped>
.route {
  border-top: 1px solid var(--ink);
  margin-top: 20px;
  padding-top: 12px;
}
.buys {
  columns: 3;
  padding: 6px 0;
}
.buys label {
  display: block;
}
summary {
  cursor: pointer;
  color: var(--live);
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 32px;
  align-items: start;
}
td {
  white-space: nowrap;
}
td:first-child {
  white-space: normal;
}
@media (max-width: 1000px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .route {
    overflow-x: auto;
  }
}
</style>
