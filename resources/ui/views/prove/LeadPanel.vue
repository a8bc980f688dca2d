<script setup lang="ts">
import { computed } from 'vue'
import type { MachinePicture } from '@/api/client'
import EditCell from '@/shared/EditCell.vue'
import FindingList from '@/shared/FindingList.vue'
import { useBuild, useDerived, useEdit } from '@/shared/useBuild'
import { useFindings } from '@/shared/useFindings'
import { nextRef } from '@/shared/refs'
import { useNotices } from '@/shared/useNotices'
import { usePanel } from '@/shared/usePanel'
import { useLeadFields } from './useLeadFields'

const props = defineProps<{ leadRef: string }>()
const { document: build, roleOf } = useBuild()
const { edit, remove } = useEdit()
const notices = useNotices()
const { ofLead } = useFindings()
const {
  fuses,
  contacts,
  terminations,
  strandings,
  evidence,
  chains,
  screens,
  routes,
  yesNo,
  ports,
  store,
  storeSize,
  storeWhole,
  storeFlag,
} = useLeadFields()
const panel = usePanel()
const lead = computed(() => build.value?.leads?.find((one) => one.ref === props.leadRef))
/** Where both its ends have a place, how long it has to be follows from the picture. */
const { data: picture } = useDerived<MachinePicture>('picture', () =>
  (build.value?.places ?? []).length > 0 ? 'picture' : '',
)
const way = computed(() => picture.value?.ways.find((one) => one.lead === props.leadRef)?.cut ?? null)
const findings = computed(() => ofLead.value.get(props.leadRef) ?? [])
const sides = [0, 1] as const
const portOf = (side: 0 | 1) => (side === 0 ? lead.value?.from : lead.value?.to) ?? ''
/** It bonds metal to the plug's pin, and the resistance along it is read before power. */
const earths = computed(() => [portOf(0), portOf(1)].some((port) => port.split('.')[1] === 'earth'))
const yes = (flag: boolean | undefined) => (flag === undefined ? null : flag ? 'yes' : 'no')

/** Its end may be a port the parts no longer have: it stays in the list, so that it can be seen and changed. */
const portsWith = (port: string) =>
  ports.value.some((one) => one.value === port) ? ports.value : [{ value: port, title: port }, ...ports.value]

async function duplicate(): Promise<void> {
  const ref = nextRef('W', build.value?.leads)
  const create = { ...lead.value!, ref }
  // What was made, pulled and read was of the other one.
  delete create.bond
  if (create.ends !== undefined) {
    create.ends = create.ends.map((held) => {
      const end = { ...held }
      delete end.made
      delete end.pulled

      return end
    })
  }
  try {
    await edit(`Add lead ${ref}`, [{ section: 'leads', create }])
    panel.show({ kind: 'lead', ref })
  } catch (error) {
    notices.problem(error)
  }
}

async function drop(): Promise<void> {
  if (await remove(`Delete lead ${props.leadRef}`, props.leadRef, 'leads', props.leadRef)) panel.close()
}
</script>

<template>
  <template v-if="lead">
    <h2>Lead {{ lead.ref }}</h2>
    <p>
      <button
        type="button"
        class="plain link"
        @click="panel.show({ kind: 'part', ref: lead.from.split('.')[0] ?? '' })"
      >
        {{ roleOf(lead.from.split('.')[0] ?? '') }}
      </button>
      <span class="quiet">{{ lead.from.split('.')[1] }}</span> →
      <button type="button" class="plain link" @click="panel.show({ kind: 'part', ref: lead.to.split('.')[0] ?? '' })">
        {{ roleOf(lead.to.split('.')[0] ?? '') }}
      </button>
      <span class="quiet">{{ lead.to.split('.')[1] }}</span>
    </p>
    <dl class="facts">
      <dt>From</dt>
      <dd>
        <EditCell
          label="From"
          :value="lead.from"
          :options="portsWith(lead.from)"
          :save="store(lead, 'From', ['from'])"
        />
      </dd>
      <dt>To</dt>
      <dd>
        <EditCell label="To" :value="lead.to" :options="portsWith(lead.to)" :save="store(lead, 'To', ['to'])" />
      </dd>
      <dt>Conductor size</dt>
      <dd>
        <EditCell figure label="Conductor size" :value="lead.conductor?.size" unit="mm²" :save="storeSize(lead)" />
      </dd>
      <dt>Length, one way</dt>
      <dd>
        <EditCell
          figure
          label="Length, one way"
          :value="lead.length"
          unit="mm"
          :placeholder="way ? `${way} by its way` : undefined"
          :save="store(lead, 'Length', ['length'])"
        />
        <span v-if="way && lead.length" class="quiet small">{{ way }} by its way</span>
      </dd>
      <dt>Run</dt>
      <dd><EditCell label="Run" :value="lead.route" :options="routes" :save="store(lead, 'Run', ['route'])" /></dd>
      <dt>Fuse</dt>
      <dd>
        <EditCell label="Fuse" :value="lead.protection" :options="fuses" :save="store(lead, 'Fuse', ['protection'])" />
      </dd>
      <template v-if="earths">
        <dt>Bond, read with power off</dt>
        <dd>
          <EditCell
            figure
            label="Bond, read with power off"
            :value="lead.bond"
            unit="Ω"
            placeholder="not read"
            :save="store(lead, 'Bond', ['bond'])"
          />
        </dd>
      </template>
    </dl>
    <details class="rest">
      <summary>More about its conductor and its way</summary>
      <dl class="facts">
        <dt>Size rests on</dt>
        <dd>
          <EditCell
            label="What the size rests on"
            :value="lead.conductor?.evidence"
            :options="evidence"
            :save="store(lead, 'Evidence', ['conductor', 'evidence'])"
          />
        </dd>
        <dt>Conductors in parallel</dt>
        <dd>
          <EditCell
            figure
            label="Conductors in parallel"
            :value="lead.conductor?.parallel"
            placeholder="1"
            :save="storeWhole(lead, 'Conductors', ['conductor', 'parallel'])"
          />
        </dd>
        <dt>Stranding</dt>
        <dd>
          <EditCell
            label="Stranding"
            :value="lead.conductor?.stranding"
            :options="strandings"
            :save="store(lead, 'Stranding', ['conductor', 'stranding'])"
          />
        </dd>
        <dt>Insulation</dt>
        <dd>
          <EditCell
            label="Insulation"
            :value="lead.conductor?.insulation"
            :save="store(lead, 'Insulation', ['conductor', 'insulation'])"
          />
        </dd>
        <dt>Through the chain</dt>
        <dd>
          <EditCell
            label="Through the chain"
            :value="lead.chain"
            :options="chains"
            placeholder="none"
            :save="store(lead, 'Chain', ['chain'])"
          />
        </dd>
        <dt>Diameter over its sheath</dt>
        <dd>
          <EditCell
            figure
            label="Diameter over its sheath"
            :value="lead.diameter"
            unit="mm"
            :save="store(lead, 'Diameter', ['diameter'])"
          />
        </dd>
        <dt>Screen bonded at</dt>
        <dd>
          <EditCell
            label="Screen bonded at"
            :value="lead.conductor?.screen"
            :options="screens"
            :save="store(lead, 'Screen', ['conductor', 'screen'])"
          />
        </dd>
        <dt>Other circuits in its bundle</dt>
        <dd>
          <EditCell
            figure
            label="Other circuits in its bundle"
            :value="lead.bundled_with"
            placeholder="0"
            :save="storeWhole(lead, 'Bundle', ['bundled_with'])"
          />
        </dd>
      </dl>
    </details>
    <template v-for="side in sides" :key="side">
      <h3>At {{ roleOf(portOf(side).split('.')[0] ?? '') }}</h3>
      <dl class="facts">
        <dt>Termination</dt>
        <dd>
          <EditCell
            :label="`Termination, end ${side + 1}`"
            :value="lead.ends?.[side]?.termination"
            :options="terminations"
            :save="store(lead, 'Termination', ['ends', side, 'termination'])"
          />
        </dd>
        <dt>Contact or housing</dt>
        <dd>
          <EditCell
            :label="`Contact or housing, end ${side + 1}`"
            :value="lead.ends?.[side]?.contact"
            :options="contacts"
            :save="store(lead, 'Contact', ['ends', side, 'contact'])"
          />
        </dd>
        <dt>Contacts per pole</dt>
        <dd>
          <EditCell
            figure
            :label="`Contacts per pole, end ${side + 1}`"
            :value="lead.ends?.[side]?.contacts_per_pole"
            placeholder="1"
            :save="storeWhole(lead, 'Contacts', ['ends', side, 'contacts_per_pole'])"
          />
        </dd>
        <dt>Conductors joined here</dt>
        <dd>
          <EditCell
            figure
            :label="`Conductors joined, end ${side + 1}`"
            :value="lead.ends?.[side]?.conductors"
            placeholder="all"
            :save="storeWhole(lead, 'Conductors joined', ['ends', side, 'conductors'])"
          />
        </dd>
        <dt>Strain relief</dt>
        <dd>
          <EditCell
            :label="`Strain relief, end ${side + 1}`"
            :value="yes(lead.ends?.[side]?.strain_relief)"
            :options="yesNo"
            :save="storeFlag(lead, 'Strain relief', ['ends', side, 'strain_relief'])"
          />
        </dd>
        <dt>Made</dt>
        <dd>
          <EditCell
            :label="`Made, end ${side + 1}`"
            :value="yes(lead.ends?.[side]?.made)"
            :options="yesNo"
            placeholder="no"
            :save="storeFlag(lead, 'Made', ['ends', side, 'made'])"
          />
        </dd>
        <dt>Stood a pull of</dt>
        <dd>
          <EditCell
            figure
            :label="`Stood a pull of, end ${side + 1}`"
            :value="lead.ends?.[side]?.pulled"
            unit="N"
            placeholder="not pulled"
            :save="store(lead, 'Pull', ['ends', side, 'pulled'])"
          />
        </dd>
      </dl>
    </template>
    <h3>Notes</h3>
    <EditCell long label="Notes" :value="lead.notes" placeholder="none" :save="store(lead, 'Notes', ['notes'])" />
    <FindingList :findings="findings" none="It carries a signal or an earth; no check of today speaks of it." />
    <p class="mt-5 acts">
      <button type="button" class="plain link small" @click="duplicate()">Duplicate this lead</button>
      <button type="button" class="plain link small" @click="drop()">Delete this lead</button>
    </p>
  </template>
  <p v-else class="quiet">This lead is not in the build any more.</p>
</template>

<style scoped>
h3 {
  margin: 14px 0 2px;
}
.rest {
  margin-top: 8px;
}
.rest summary {
  cursor: pointer;
  font-size: 13px;
  color: var(--live);
}
.acts {
  display: flex;
  gap: 18px;
}
</style>
