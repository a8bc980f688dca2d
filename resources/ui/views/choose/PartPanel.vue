<script setup lang="ts">
import { computed, ref } from 'vue'
import { api, type Doubt, type Field, type FullSpec, type Need, type Part } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import FindingList from '@/shared/FindingList.vue'
import HelpWord from '@/shared/HelpWord.vue'
import { money } from '@/shared/format'
import { goingWith } from '@/shared/goingWith'
import { useBuild, useCatalogue, useEdit, useEvidence, useFieldHelp } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import ProposedLeads from '@/views/prove/ProposedLeads.vue'
import MeshField from '@/views/buy/MeshField.vue'
import JointList from './JointList.vue'
import PortList from './PortList.vue'
import { useKind } from './useKind'
import VerdictMark from '@/shared/VerdictMark.vue'
import { inFull, saidOf } from '@/shared/specs'

const props = defineProps<{ needRef: string; wire?: boolean }>()
const { id, needs, parts, document: build, overview } = useBuild()
const { set, edit } = useEdit()
const { ofNeed } = useFindings()
const { data: catalogue } = useCatalogue()
const helpOf = useFieldHelp()
const panel = usePanel()
const notices = useNotices()
const allFields = ref(false)
const wiring = ref(props.wire === true)

const need = computed(() => needs.value.get(props.needRef))
const part = computed(() => parts.value.get(need.value?.choice ?? ''))
const family = computed(() => catalogue.value?.families.find((one) => one.key === need.value?.family))
const kind = useKind(need, part)
const evidence = useEvidence()
const findings = computed(() => ofNeed(props.needRef))
const doubts = computed(() => (overview.value?.doubts ?? []).filter((doubt) => doubt.part === part.value?.ref))
const offers = computed(() => (build.value?.offers ?? []).filter((offer) => offer.part === part.value?.ref))
const supplierOf = (ref: string) => build.value?.suppliers?.find((supplier) => supplier.ref === ref)
const candidates = computed(() =>
  (need.value?.candidates ?? []).map((ref) => ({ value: ref, title: parts.value.get(ref)?.name ?? ref })),
)

/** Where it may sit, as its family says: in a hot end, on a heated plate, in a slot of a board. */
const seats = computed(() =>
  [...needs.value.values()]
    .filter((other) => family.value?.sits_in.includes(other.family) && other.ref !== need.value?.ref)
    .flatMap((other) => {
      const slots = (parts.value.get(other.choice ?? '')?.ports ?? []).filter((port) => useOf(port) === 'motor')

      return need.value?.family === 'motor_driver' && slots.length > 0
        ? slots.map((port) => ({ value: `${other.ref}.${port.name}`, title: `${other.role} · ${port.name}` }))
        : [{ value: other.ref, title: other.role }]
    }),
)
function useOf(port: NonNullable<Part['ports']>[number]): string | undefined {
  return saidOf(port.specs?.use)
}

function specOf(key: string): FullSpec | undefined {
  return inFull(part.value?.specs?.[key])
}
const fields = computed(() =>
  (family.value?.fields ?? []).filter(
    (field) =>
      allFields.value ||
      specOf(field.key) !== undefined ||
      field.checks.length > 0 ||
      field.key === family.value?.counted_by,
  ),
)
const hidden = computed(() => (family.value?.fields.length ?? 0) - fields.value.length)

function shown(field: Field): string | undefined {
  const value = specOf(field.key)?.value

  return value === undefined ? undefined : typeof value === 'boolean' ? (value ? 'yes' : 'no') : value
}
function options(field: Field) {
  return field.kind === 'flag'
    ? [
        { value: 'yes', title: 'yes' },
        { value: 'no', title: 'no' },
      ]
    : field.kind === 'choice'
      ? field.choices.map((one) => ({ value: one, title: one }))
      : undefined
}
function store(field: Field) {
  return (text: string, was: unknown, sure = false) => {
    const confirmed = sure ? { confirmed: true } : {}
    const value = field.kind === 'flag' ? (text === '' ? null : text === 'yes') : text === '' ? null : text
    const before = field.kind === 'flag' && typeof was === 'string' ? was === 'yes' : was
    const label = `${field.label} of ${part.value!.name}`
    if (specOf(field.key) === undefined) {
      return set(label, 'parts', part.value!.ref, ['specs', field.key], null, {
        value,
        evidence: 'assumed',
        ...confirmed,
      })
    }

    return value === null
      ? edit(label, [
          {
            section: 'parts',
            ref: part.value!.ref,
            set: [
              { path: ['specs', field.key, 'value'], was: before, to: '' },
              { path: ['specs', field.key], to: null },
            ],
          },
        ])
      : edit(label, [
          {
            section: 'parts',
            ref: part.value!.ref,
            set: [
              { path: ['specs', field.key, 'value'], was: before ?? null, to: value },
              { path: ['specs', field.key, 'confirmed'], to: sure ? true : null },
            ],
          },
        ])
  }
}
/** A size nobody has seen is asked about before it is stored. */
const ask = (field: Field) => async (text: string) =>
  field.kind === 'quantity'
    ? (
        await api.get<{ question: string | null }>(
          `/api/doubt?${new URLSearchParams({ family: part.value!.family, key: field.key, value: text })}`,
        )
      ).question
    : null

/** Another claim counts, and the one that counted stays beside it. */
function prefer(field: Field, at: number): void {
  const { rivals = [], ...claim } = specOf(field.key)!
  storeClaims(field, { ...rivals[at]!, rivals: [...rivals.filter((_, i) => i !== at), claim] })
}
function drop(field: Field, at: number): void {
  const { rivals = [], ...claim } = specOf(field.key)!
  const left = rivals.filter((_, i) => i !== at)
  storeClaims(field, left.length > 0 ? { ...claim, rivals: left } : claim)
}
function storeClaims(field: Field, to: object): void {
  set(
    `${field.label} of ${part.value!.name}`,
    'parts',
    part.value!.ref,
    ['specs', field.key],
    part.value!.specs![field.key],
    to,
  ).catch(notices.problem)
}
const storeOn = (key: string, what: string) => (text: string, was: unknown) =>
  set(
    `${what} of ${part.value!.name}`,
    'parts',
    part.value!.ref,
    ['specs', key, what === 'Evidence' ? 'evidence' : 'source'],
    was,
    text === '' ? null : text,
  )
function storePieces(to: NonNullable<Need['pieces']>): void {
  set(
    `Pieces of ${need.value!.role}`,
    'needs',
    need.value!.ref,
    ['pieces'],
    need.value!.pieces ?? null,
    to.length > 0 ? to : null,
  ).catch(notices.problem)
}
const storePart = (what: string, path: string) => (text: string, was: unknown) =>
  set(`${what} of ${part.value!.name}`, 'parts', part.value!.ref, [path], was, text === '' ? null : text)

async function settle(doubt: Doubt, take: boolean): Promise<void> {
  const suggestion = Array.isArray(doubt.suggestion) ? {} : doubt.suggestion
  const sets = take
    ? Object.entries(suggestion).map(([key, value]) => ({
        path: ['specs', key],
        to: { ...specOf(key), value, evidence: specOf(key)?.evidence ?? specOf(doubt.key)?.evidence ?? 'assumed' },
      }))
    : [{ path: ['specs', doubt.key, 'confirmed'], to: true }]
  try {
    await edit(
      take
        ? `Take ${Object.values(suggestion).join(' and ')} for ${part.value!.name}`
        : `${doubt.key} of ${part.value!.name} is right`,
      [{ section: 'parts', ref: doubt.part, set: sets }],
    )
  } catch (error) {
    notices.problem(error)
  }
}

async function remove(): Promise<void> {
  const gone = need.value!
  const changes = goingWith([gone], build.value)
  const leads = changes.filter((change) => change.section === 'leads').length
  try {
    await edit(`Delete ${gone.role}`, changes)
    panel.close()
    notices.say(
      `${gone.role} is gone${leads === 0 ? '' : leads === 1 ? ', and its lead' : `, and its ${leads} leads`}; u undoes it.`,
    )
  } catch (error) {
    notices.problem(error)
  }
}
</script>

<template>
  <template v-if="need">
    <h2>{{ need.role }}</h2>
    <p class="quiet small">
      <EditCell
        label="Kind of part"
        :value="need.family"
        :options="kind.kinds.value"
        :ask="kind.ask"
        :save="kind.save"
      />
      · {{ need.ref }}
    </p>
    <p v-if="candidates.length > 1">
      Chosen
      <EditCell
        label="Chosen part"
        :value="need.choice"
        :options="candidates"
        :save="(text, was) => set(`Choice for ${need!.role}`, 'needs', need!.ref, ['choice'], was, text || null)"
      />
    </p>
    <p class="small">
      <router-link class="link" :to="`/builds/${id}/choose/compare/${need.ref}`">{{
        candidates.length > 1 ? `Compare its ${candidates.length} candidates` : 'Look for another candidate'
      }}</router-link>
    </p>
    <p v-if="seats.length > 0" class="small">
      Sits in
      <EditCell
        label="Sits in"
        :value="need.sits_in"
        :options="seats"
        placeholder="not said"
        :save="(text, was) => set(`Seat of ${need!.role}`, 'needs', need!.ref, ['sits_in'], was, text || null)"
      />
    </p>
    <p v-if="family?.fields.some((field) => field.key === 'cut_out')" class="small">
      Opening cut for it
      <EditCell
        figure
        label="Opening cut for it"
        :value="need.opening"
        unit="mm"
        placeholder="not cut"
        :save="(text, was) => set(`Opening of ${need!.role}`, 'needs', need!.ref, ['opening'], was, text || null)"
      />
    </p>
    <p v-if="need.reason" class="quiet">“{{ need.reason }}”</p>
    <template v-if="part">
      <p><EditCell label="Name of the part" :value="part.name" :save="storePart('Name', 'name')" /></p>
      <div v-for="doubt in doubts" :key="doubt.key" class="doubt" role="alert">
        <p><VerdictMark verdict="unproven" /> {{ doubt.question }}</p>
        <v-btn
          v-if="!Array.isArray(doubt.suggestion) && Object.keys(doubt.suggestion).length > 0"
          size="small"
          color="primary"
          @click="settle(doubt, true)"
          >Take {{ Object.values(doubt.suggestion).join(' and ') }}</v-btn
        >
        <v-btn size="small" @click="settle(doubt, false)">It is right as it stands</v-btn>
      </div>
      <table class="ledger">
        <thead>
          <tr>
            <th>Spec</th>
            <th class="num">Value</th>
            <th>Rests on</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="field in fields" :key="field.key">
            <td>
              <HelpWord :lines="helpOf(field)">{{ field.label }}</HelpWord><span
                v-if="field.checks.length"
                class="quiet small reads"
                >{{ field.checks.join(' ') }}</span
              ><span v-else-if="!field.compared && field.key !== family?.counted_by" class="quiet small reads"
                >read by no check</span
              >
            </td>
            <td class="num">
              <EditCell
                :figure="field.dimension !== null"
                :label="field.label"
                :value="shown(field)"
                :unit="field.unit"
                :options="options(field)"
                :ask="ask(field)"
                :save="store(field)"
              />
              <span v-for="(rival, i) in specOf(field.key)?.rivals" :key="i" class="small quiet rival"
                >also {{ typeof rival.value === 'boolean' ? (rival.value ? 'yes' : 'no') : rival.value }},
                {{ rival.evidence ?? 'assumed' }}
                <button
                  type="button"
                  class="plain link"
                  :aria-label="`take ${rival.value} as ${field.label}`"
                  @click="prefer(field, i)"
                >
                  take
                </button>
                <button
                  type="button"
                  class="plain link"
                  :aria-label="`remove ${rival.value} of ${field.label}`"
                  @click="drop(field, i)"
                >
                  remove
                </button></span
              >
            </td>
            <td class="rests">
              <template v-if="specOf(field.key)">
                <EditCell
                  :label="`What ${field.label} rests on`"
                  :value="specOf(field.key)!.evidence"
                  :otherwise="'assumed'"
                  :options="evidence"
                  :save="storeOn(field.key, 'Evidence')"
                />
                <span class="small quiet source" :class="{ none: !specOf(field.key)!.source }"
                  ><EditCell
                    :label="`Source of ${field.label}`"
                    :value="specOf(field.key)!.source"
                    placeholder="+"
                    :save="storeOn(field.key, 'Source')"
                /></span>
              </template>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="hidden > 0 || allFields" class="small">
        <button type="button" class="plain link" @click="allFields = !allFields">
          {{
            allFields
              ? 'Only what is given or read by a check'
              : `${hidden} further ${hidden === 1 ? 'line' : 'lines'} of its sheet`
          }}
        </button>
      </p>
      <p v-if="part && (family?.ports.length || part.ports?.length)" class="mt-3 mb-1">
        <v-btn size="small" :aria-expanded="wiring" @click="wiring = !wiring">Wire its ports</v-btn>
      </p>
      <p class="small">
        <router-link class="link" :to="`/builds/${id}/build/way-back/${needRef}`"
          >What comes off to reach it</router-link
        >
      </p>
      <ProposedLeads v-if="wiring" :need="needRef" />
      <MeshField v-if="part.family === 'printed_part'" :part="part.ref" />
      <PortList :part="part" />
      <JointList :need-ref="needRef" />
      <h3 class="mt-4 mb-1">Prices</h3>
      <p v-if="offers.length === 0" class="quiet small">No price yet; Money lists it as open.</p>
      <ul class="small plain-list">
        <li v-for="offer in offers" :key="offer.ref">
          <span class="figure">{{ money(offer.price, supplierOf(offer.supplier)?.currency ?? '') }}</span><template
            v-if="(offer.pack ?? 1) > 1"
          >
            for {{ offer.pack }}</template
          >, {{ supplierOf(offer.supplier)?.name }}, {{ offer.date }}
        </li>
      </ul>
      <p class="small">
        A piece is worth at most
        <EditCell
          figure
          :label="`What a piece of ${need.role} is worth`"
          :value="need.worth"
          placeholder="not said"
          :save="
            (text, was) => set(`Worth of ${need!.role}`, 'needs', need!.ref, ['worth'], was, text === '' ? null : text)
          "
        /><span class="unit">{{ build?.build.currency }}</span
        >; dearer than that, it stands out before it is ordered.
      </p>
      <h3 class="mt-4 mb-1">Notes</h3>
      <EditCell long label="Notes" :value="part.notes" placeholder="none" :save="storePart('Notes', 'notes')" />
    </template>
    <p v-else class="quiet">No part is chosen for this need.</p>
    <template v-if="need.quantity !== undefined && need.quantity > 1">
      <h3 class="mt-4 mb-1">Pieces</h3>
      <p class="quiet small">Name those that are not just like the others, such as left and right.</p>
      <table v-if="need.pieces?.length" class="ledger">
        <thead>
          <tr>
            <th>Piece</th>
            <th>Batch</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(piece, i) in need.pieces" :key="i">
            <td>
              <EditCell
                :label="`Name of piece ${i + 1}`"
                :value="piece.name"
                :save="
                  (text, was) => set(`Piece of ${need!.role}`, 'needs', need!.ref, ['pieces', i, 'name'], was, text)
                "
              />
            </td>
            <td>
              <EditCell
                :label="`Batch of ${piece.name}`"
                :value="piece.batch"
                placeholder="not said"
                :save="
                  (text, was) =>
                    set(`Batch of ${piece.name}`, 'needs', need!.ref, ['pieces', i, 'batch'], was, text || null)
                "
              />
            </td>
            <td>
              <button
                type="button"
                class="plain link small"
                :aria-label="`remove the name of ${piece.name}`"
                @click="storePieces(need.pieces!.filter((_, at) => at !== i))"
              >
                remove
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <button
        v-if="(need.pieces?.length ?? 0) < need.quantity"
        type="button"
        class="plain link small"
        @click="storePieces([...(need.pieces ?? []), { name: `piece ${(need.pieces?.length ?? 0) + 1}` }])"
      >
        Name a piece
      </button>
    </template>
    <h3 class="mt-4 mb-1">Why, and how it follows the size</h3>
    <dl class="facts">
      <dt>Bought for</dt>
      <dd>
        <EditCell
          label="What it is bought for"
          :value="need.purpose ?? 'core'"
          :options="(catalogue?.purposes ?? []).map((one) => ({ value: one, title: one }))"
          :save="
            (text) =>
              set(`Purpose of ${need!.role}`, 'needs', need!.ref, ['purpose'], need!.purpose ?? null, text || null)
          "
        />
      </dd>
      <dt>Follows the size along</dt>
      <dd>
        <EditCell
          label="Follows the size along"
          :value="need.scale?.along"
          :options="['x', 'y', 'z'].map((one) => ({ value: one, title: one }))"
          placeholder="no"
          :save="
            (text) =>
              set(
                `Size of ${need!.role}`,
                'needs',
                need!.ref,
                ['scale'],
                need!.scale ?? null,
                text === '' ? null : { as: 'length', ...need!.scale, along: text },
              )
          "
        />
      </dd>
      <template v-if="need.scale">
        <dt>How it follows</dt>
        <dd>
          <EditCell
            label="Follows as"
            :value="need.scale.as"
            :options="[
              { value: 'count', title: 'a count' },
              { value: 'length', title: 'a length to cut' },
            ]"
            :save="
              (text) =>
                set(`Size of ${need!.role}`, 'needs', need!.ref, ['scale'], need!.scale, {
                  along: need!.scale!.along,
                  as: text,
                  ...(text === 'count' ? { every: '100 mm' } : {}),
                })
            "
          />
        </dd>
        <template v-if="need.scale.as === 'count'"
          ><dt>One for every</dt>
          <dd>
            <EditCell
              figure
              label="One each"
              :value="need.scale.every"
              unit="mm"
              :save="(text, was) => set(`Spacing of ${need!.role}`, 'needs', need!.ref, ['scale', 'every'], was, text)"
            />
          </dd>
          <dt>And besides</dt>
          <dd>
            <EditCell
              figure
              label="And always"
              :value="need.scale.plus ?? 0"
              :save="
                (text) =>
                  set(
                    `Fixed count of ${need!.role}`,
                    'needs',
                    need!.ref,
                    ['scale', 'plus'],
                    need!.scale!.plus ?? null,
                    /^\d+$/.test(text) ? Number(text) : text,
                  )
              "
            /></dd
        ></template>
        <template v-else
          ><dt>Longer by</dt>
          <dd>
            <EditCell
              figure
              label="Longer than the work area by"
              :value="need.scale.longer"
              unit="mm"
              :save="
                (text, was) =>
                  set(`Length of ${need!.role}`, 'needs', need!.ref, ['scale', 'longer'], was, text || null)
              "
            /></dd
        ></template>
      </template>
    </dl>
    <FindingList :findings="findings" none="No check speaks of it." />
    <p class="mt-5"><button type="button" class="plain link small" @click="remove()">Delete this part</button></p>
  </template>
  <p v-else class="quiet">This part is not in the build any more.</p>
</template>

<style scoped>
.rival {
  display: block;
}
.doubt {
  border-left: 3px solid rgb(var(--v-theme-unproven));
  padding: 6px 10px;
  margin: 8px 0;
}
.doubt p {
  margin: 0 0 4px;
}
.plain-list {
  list-style: none;
  padding: 0;
  margin: 0;
}
.reads {
  margin-left: 6px;
  word-break: keep-all;
}
.rests {
  white-space: nowrap;
}
.source {
  display: block;
  white-space: normal;
}
.source.none {
  display: inline;
  margin-left: 6px;
}
table.ledger th {
  background: var(--sheet);
}
table.ledger td {
  font-size: 13.5px;
}
</style>
