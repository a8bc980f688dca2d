import { computed } from 'vue'
import type { Lead, Path } from '@/api/client'
import { whole } from '@/shared/format'
import { useBuild, useCatalogue, useEdit, useEvidence } from '@/shared/useBuild'
import { familyPorts } from '@/shared/usePortSpecs'

/** What the fields of a lead may be, and how each is stored. */
export function useLeadFields() {
  const { document: build, parts, needsOf } = useBuild()
  const { set, edit } = useEdit()
  const { data: catalogue } = useCatalogue()

  const fuses = computed(() => needsOf('fuse'))
  const contacts = computed(() =>
    (build.value?.parts ?? [])
      .filter((part) => part.family === 'contact_housing')
      .map((part) => ({ value: part.ref, title: part.name })),
  )
  const terminations = computed(() => (catalogue.value?.terminations ?? []).map((one) => ({ value: one, title: one })))
  const strandings = computed(() => (catalogue.value?.strandings ?? []).map((one) => ({ value: one, title: one })))
  const evidence = useEvidence()
  const chains = computed(() => needsOf('cable_chain'))
  const screens = ['none', 'one end', 'both ends'].map((one) => ({ value: one, title: one }))
  const routes = [
    { value: 'fixed', title: 'fixed' },
    { value: 'flexing', title: 'flexing' },
  ]
  const yesNo = [
    { value: 'yes', title: 'yes' },
    { value: 'no', title: 'no' },
  ]
  const ports = computed(() =>
    (build.value?.needs ?? []).flatMap((need) => {
      const part = parts.value.get(need.choice ?? '')
      const names = new Set([
        ...familyPorts(
          catalogue.value?.families.find((family) => family.key === need.family),
          part,
        ).map((port) => port.name),
        ...(part?.ports ?? []).map((port) => port.name),
      ])

      return [...names].map((port) => ({ value: `${need.ref}.${port}`, title: `${need.role} · ${port}` }))
    }),
  )

  const store = (lead: Lead, what: string, path: Path) => (text: string, was: unknown) =>
    set(`${what} of ${lead.ref}`, 'leads', lead.ref, path, was, text === '' ? null : text)
  const storeWhole = (lead: Lead, what: string, path: Path) => (text: string, was: unknown) =>
    set(`${what} of ${lead.ref}`, 'leads', lead.ref, path, was, text === '' ? null : whole(text))
  const storeFlag = (lead: Lead, what: string, path: Path) => (text: string, was: unknown) =>
    set(
      `${what} of ${lead.ref}`,
      'leads',
      lead.ref,
      path,
      was === null ? null : was === 'yes',
      text === '' ? null : text === 'yes',
    )

  /** A size that is chosen is a decision: what rested on nothing, or on a guess, rests on the standard size now. */
  const decided = (lead: Lead) =>
    lead.conductor?.evidence === undefined || lead.conductor.evidence === 'assumed'
      ? [
          {
            path: ['conductor', 'evidence'] as Path,
            was: lead.conductor?.evidence ?? null,
            to: 'standard',
          },
        ]
      : []
  const storeSize = (lead: Lead) => (text: string, was: unknown) =>
    edit(`Size of ${lead.ref}`, [
      {
        section: 'leads',
        ref: lead.ref,
        set: [
          { path: ['conductor', 'size'], was: (was ?? null) as never, to: text === '' ? null : text },
          ...(text === '' ? [] : decided(lead)),
        ],
      },
    ])

  return {
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
    decided,
    store,
    storeSize,
    storeWhole,
    storeFlag,
  }
}
