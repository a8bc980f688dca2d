import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { computed, effectScope, ref, type Ref } from 'vue'
import { useLeadFields } from '@/views/prove/useLeadFields'
import { useSteps } from '@/views/build/useSteps'
import type { Change, FindingSummary, Lead, Part, Path, Step } from '@/api/client'
import { useDecide } from './useDecide'
import { useFindings } from './useFindings'
import { useFirst } from './useFirst'
import { goingWith } from './goingWith'
import { cells, tabbed, useMany } from './useMany'
import { useNext } from './useNext'
import { useNotices } from './useNotices'
import { channelFields, powerFields, usePortSpecs } from './usePortSpecs'

const held = vi.hoisted(() => ({
  document: { value: {} as Record<string, unknown> },
  overview: { value: {} as Record<string, unknown> },
  catalogue: { value: {} as Record<string, unknown> },
  sets: [] as unknown[][],
  edits: [] as { label: string; changes: Change[] }[],
}))
vi.mock('@/shared/useBuild', () => ({
  useBuild: () => ({
    id: ref(1),
    document: computed(() => held.document.value),
    overview: computed(() => held.overview.value),
    parts: computed(() => new Map(((held.document.value.parts ?? []) as Part[]).map((part) => [part.ref, part]))),
    needsOf: () => [],
  }),
  useCatalogue: () => ({ data: computed(() => held.catalogue.value) }),
  useEvidence: () => computed(() => []),
  useEdit: () => ({
    set: (...all: unknown[]) => held.sets.push(all),
    edit: (label: string, changes: Change[]) => held.edits.push({ label, changes }),
    absorb: () => undefined,
  }),
}))
vi.mock('@/shared/session', () => ({ whoIsHere: async () => ({ user: { name: 'Robin' } }) }))

/** What stands at the place of a stored field: label, path, what it was, what it is to be. */
const stored = () => {
  const [label, , , path, was, to] = held.sets.at(-1) as [string, string, string, Path, unknown, unknown]

  return { label, path, was, to }
}

beforeEach(() => {
  setActivePinia(createPinia())
  held.document.value = {}
  held.overview.value = {}
  held.catalogue.value = {}
  held.sets.length = held.edits.length = 0
})

describe('findings by what they are about', () => {
  const finding = (check: string, kind: string, of: string, needs: string[] = [], leads: string[] = []) =>
    ({ key: `${check}/${of}`, check, subject: { kind, ref: of, needs, leads } }) as unknown as FindingSummary

  it('gives each need the worst, each lead all that is said of it, and a page those of its topic', () => {
    held.overview.value = {
      findings: [
        finding('E02', 'lead', 'W1', ['psu', 'bed']),
        finding('E04', 'port', 'bed.power', ['bed']),
        finding('E03', 'lead', 'W1', ['psu', 'bed']),
        finding('E13', 'port', 'F1.out', ['F1'], ['W1', 'W2']),
      ],
    }
    held.catalogue.value = {
      checks: [
        { id: 'E02', topics: ['contacts'] },
        { id: 'E03', topics: [] },
        { id: 'E04', topics: ['scope', 'contacts'] },
      ],
    }
    const { worstOfNeed, ofLead, ofNeed, about } = useFindings()

    expect(worstOfNeed.value.get('bed')?.check).toBe('E02')
    expect(ofLead.value.get('W1')?.map((one) => one.check)).toEqual(['E02', 'E03', 'E13'])
    expect(ofLead.value.get('W2')?.map((one) => one.check)).toEqual(['E13'])
    expect(ofNeed('bed').map((one) => one.check)).toEqual(['E02', 'E04', 'E03'])
    expect(about('contacts').map((one) => one.check)).toEqual(['E02', 'E04'])
    expect(about('stops')).toEqual([])
  })
})

describe('what comes next', () => {
  const done = () =>
    useNext()
      .next.value.filter((one) => one.done)
      .map((one) => one.key)

  it('begins with everything open, and ticks itself off', () => {
    held.catalogue.value = {
      families: [{ key: 'fan', ports: [{ name: 'power', kind: 'inlet', mains: false, draws: true }] }],
    }
    expect(done()).toEqual([])

    held.document.value = {
      workpieces: [{ ref: 'w' }],
      site: { mains_voltage: '230 V', outlet: '16 A', ambient: '25 °C' },
      parts: [{ ref: 'P', specs: { rated_current: { value: '1 A', source: 'starter: put yours in its place' } } }],
      needs: [{ ref: 'fan', family: 'fan', choice: 'P' }],
    }
    held.overview.value = { causes: [{ verdict: 'danger' }] }
    expect(done()).toEqual(['work', 'site'])
    expect(useNext().unfed.value.map((need) => need.ref)).toEqual(['fan'])

    held.document.value = {
      ...held.document.value,
      parts: [{ ref: 'P', specs: { rated_current: { value: '1 A', source: 'sheet' } } }],
      leads: [{ ref: 'W1', from: 'psu.out', to: 'fan.power', conductor: { size: '1 mm²', evidence: 'datasheet' } }],
    }
    held.overview.value = { causes: [{ verdict: 'tight' }] }
    expect(done()).toEqual(['work', 'site', 'parts', 'feeds', 'sizes', 'causes'])
  })

  it('counts what a slot feeds as fed', () => {
    held.catalogue.value = {
      families: [{ key: 'motor_driver', ports: [{ name: 'power', kind: 'inlet', mains: false, draws: true }] }],
    }
    held.document.value = { needs: [{ ref: 'd', family: 'motor_driver', choice: 'P', sits_in: 'board.x' }] }
    expect(useNext().unfed.value).toEqual([])
  })
})

describe('what an edit moved in the tally', () => {
  it('holds what it was, of those that changed, for a while', () => {
    vi.useFakeTimers()
    vi.stubGlobal('window', globalThis)
    const notices = useNotices()
    notices.tallyChanged(
      { danger: 2, fails: 0, tight: 1, unproven: 4, holds: 3 },
      { danger: 1, fails: 0, tight: 1, unproven: 4, holds: 4 },
    )

    expect(notices.moved).toEqual({ danger: 2, holds: 3 })
    vi.advanceTimersByTime(8000)
    expect(notices.moved).toEqual({})
    vi.useRealTimers()
    vi.unstubAllGlobals()
  })
})

describe('the line of what just happened', () => {
  beforeEach(() => vi.useFakeTimers())
  afterEach(() => vi.useRealTimers())

  it('is not taken by what others did: that comes when the line is free, the newest alone', async () => {
    const notices = useNotices()
    notices.say('Undone, and W4 stays', true)
    notices.news('Ada: length of W4')
    notices.news('Ada: size of W4')
    // Three times four seconds and 40 ms a letter.
    await vi.advanceTimersByTimeAsync(14_300)
    expect(notices.line).toBe('Undone, and W4 stays')
    await vi.advanceTimersByTimeAsync(200)
    expect([notices.line, notices.grave, notices.shown]).toEqual(['Ada: size of W4', false, true])
    await vi.advanceTimersByTimeAsync(4400)
    expect(notices.shown).toBe(true)
    await vi.advanceTimersByTimeAsync(200)
    expect(notices.shown).toBe(false)
    notices.news('Ada: a part')
    expect(notices.line).toBe('Ada: a part')
  })

  it('gives way to the next own act at once', () => {
    const notices = useNotices()
    notices.say('refused', true)
    notices.say('Undone')
    expect([notices.line, notices.grave]).toEqual(['Undone', false])
  })
})

describe('a decision', () => {
  const taken = { about: 'part', question: 'Which board?', choice: 'A', reason: 'it fits', need: 'board' } as const

  it('is a new one the first time, with who and when', async () => {
    held.document.value = { decisions: [{ ref: 'd-board', about: 'school', need: undefined }] }
    await useDecide()('Choose', taken)
    const change = held.edits[0]!.changes[0]!

    expect(change.section).toBe('decisions')
    expect(change.create).toMatchObject({ ref: 'd-board-2', need: 'board', choice: 'A', who: 'Robin', state: 'made' })
    expect(change.create?.date).toMatch(/^\d{4}-\d\d-\d\d$/)
  })
  it('changes the one asked before, with what else the choice brings', async () => {
    held.document.value = { decisions: [{ ref: 'd1', about: 'part', need: 'board' }] }
    const besides: Change = { section: 'needs', ref: 'board', set: [{ path: ['choice'], to: 'A' }] }
    await useDecide()('Choose', taken, [besides])

    expect(held.edits[0]!.changes[0]).toEqual(besides)
    expect(held.edits[0]!.changes[1]).toMatchObject({ section: 'decisions', ref: 'd1' })
    expect(held.edits[0]!.changes[1]!.set).toContainEqual({ path: ['choice'], to: 'A' })
  })
})

describe('what is said of a port', () => {
  const part = (ports?: unknown[]) => ({ ref: 'B', name: 'Board', ports }) as unknown as Part
  const { valueOf, store } = usePortSpecs()
  const volts = powerFields[0]!
  const reserved = channelFields.find((field) => field.key === 'reserved')!

  it('reads short and full forms, and flags as yes and no', () => {
    const board = part([
      { name: 'fan0', specs: { voltage: '24 V', reserved: { value: false, evidence: 'manual' } } },
      { name: 'fan1' },
    ])

    expect(valueOf(board, 'fan0', 'voltage')).toBe('24 V')
    expect(valueOf(board, 'fan0', 'reserved')).toBe('no')
    expect(valueOf(board, 'fan1', 'voltage')).toBeUndefined()
  })
  it('adds the port when it is the first word about it', () => {
    store(part(), 'fan0', volts)('24 V', null)

    expect(stored()).toMatchObject({ path: ['ports'], was: null })
    expect(stored().to).toEqual([{ name: 'fan0', specs: { voltage: { value: '24 V', evidence: 'datasheet' } } }])
  })
  it('changes the value alone, takes a line away with an empty one, and keeps flags flags', () => {
    const spec = { value: '24 V', evidence: 'manual' }
    const board = part([{ name: 'x' }, { name: 'fan0', specs: { voltage: spec } }])
    store(board, 'fan0', volts)('12 V', '24 V')
    expect(stored()).toMatchObject({ path: ['ports', 1, 'specs', 'voltage', 'value'], was: '24 V', to: '12 V' })
    store(board, 'fan0', volts)('', '24 V')
    expect(stored()).toMatchObject({ path: ['ports', 1, 'specs', 'voltage'], was: spec, to: null })
    store(board, 'fan0', reserved)('yes', 'no')
    expect(stored()).toMatchObject({ was: false, to: true })
  })
})

describe('the fields of a lead', () => {
  const lead = { ref: 'W1' } as Lead

  it('store words, whole numbers and flags as what they are', () => {
    const { store, storeWhole, storeFlag } = useLeadFields()
    store(lead, 'Length', ['length'])('', '2 m')
    expect(stored()).toMatchObject({ label: 'Length of W1', was: '2 m', to: null })
    storeWhole(lead, 'Contacts', ['ends', 0, 'contacts_per_pole'])('2', 1)
    expect(stored().to).toBe(2)
    storeWhole(lead, 'Contacts', ['ends', 0, 'contacts_per_pole'])('two', 1)
    expect(stored().to).toBe('two')
    storeFlag(lead, 'Made', ['made'])('no', 'yes')
    expect(stored()).toMatchObject({ was: true, to: false })
    storeFlag(lead, 'Made', ['made'])('yes', null)
    expect(stored()).toMatchObject({ was: null, to: true })
  })
  it('offer each port once: those of the family, and the part’s own', () => {
    held.catalogue.value = { families: [{ key: 'controller_board', ports: [{ name: 'power' }] }] }
    held.document.value = {
      parts: [{ ref: 'B', ports: [{ name: 'power' }, { name: 'fan0' }] }],
      needs: [
        { ref: 'board', role: 'Board', family: 'controller_board', choice: 'B' },
        { ref: 'other', role: 'Other', family: 'unknown' },
      ],
    }

    expect(useLeadFields().ports.value.map((one) => one.value)).toEqual(['board.power', 'board.fan0'])
  })
  it('offer a port for each circuit that the sheet counts', () => {
    held.catalogue.value = {
      families: [{ key: 'connector', counted_by: 'circuits', ports: [{ name: 'circuit' }] }],
    }
    const plug = (circuits?: unknown) => {
      held.document.value = {
        parts: [{ ref: 'P', specs: circuits === undefined ? {} : { circuits } }],
        needs: [{ ref: 'plug', role: 'Plug', family: 'connector', choice: 'P' }],
      }

      return useLeadFields().ports.value.map((one) => one.value)
    }

    expect(plug()).toEqual(['plug.circuit'])
    expect(plug({ value: '3', evidence: 'datasheet' })).toEqual(['plug.circuit', 'plug.circuit-2', 'plug.circuit-3'])
    expect(plug('many')).toEqual(['plug.circuit'])
    expect(plug('9000')).toHaveLength(64)
  })
})

describe('the steps', () => {
  it('come in the order they can be done, the next one open and waiting for nothing', () => {
    held.document.value = {
      steps: [
        { ref: 'a', title: 'A', state: 'done' },
        { ref: 'b', title: 'B', state: 'open' },
        { ref: 'c', title: 'C', state: 'open' },
      ],
    }
    held.overview.value = {
      steps: [
        { ref: 'a', waits_for: [], verdict: null, gates: [] },
        { ref: 'c', waits_for: ['b'], verdict: null, gates: [] },
        { ref: 'b', waits_for: [], verdict: null, gates: [] },
        { ref: 'gone', waits_for: [], verdict: null, gates: [] },
      ],
    }
    vi.spyOn(console, 'warn').mockImplementation(() => undefined)
    const { rows, next, runs, worked } = useSteps()

    expect(rows.value.map((row) => row.step.ref)).toEqual(['a', 'c', 'b'])
    expect(next.value?.step.ref).toBe('b')
    const step = (timings: { start: number; stop?: number }[]) => ({ timings }) as Step
    expect(runs(step([{ start: 5 }]))).toBe(true)
    expect(runs(step([{ start: 5, stop: 9 }]))).toBe(false)
    expect(runs({} as Step)).toBe(false)
    expect(runs({ timings: [{ start: 5, by: 'Tam' }] } as Step)).toBe(false)
    // A clock set back in between counts nothing, not less than nothing.
    expect(
      worked(
        step([
          { start: 5, stop: 9 },
          { start: 30, stop: 20 },
        ]),
      ),
    ).toBe(4)
  })
})

describe('a step whose server was not asked since', () => {
  it('waits no more for what was done or read meanwhile, and is kept by a danger that was logged', () => {
    const gate = (kind: string, says: string, ref: string | null) => ({ kind, says, ref })
    held.document.value = {
      steps: [
        { ref: 'a', title: 'A', state: 'done' },
        { ref: 'b', title: 'B', check: { what: 'gap', nominal: '0 mm', tolerance: '1 mm', measured: '0.1 mm' } },
        { ref: 'new', title: 'New', after: ['b'] },
      ],
      faults: [{ ref: 'X1', what: 'bare', severity: 'danger', step: 'b', found: '2026-01-01' }],
    }
    held.overview.value = {
      steps: [
        { ref: 'a', waits_for: [], verdict: null, gates: [] },
        {
          ref: 'b',
          waits_for: ['a'],
          verdict: null,
          gates: [
            gate('step', '“A” comes first', 'a'),
            gate('reading', 'gap was not measured', null),
            gate('part', 'Screws is not here', 'n'),
          ],
        },
      ],
    }
    vi.spyOn(console, 'warn').mockImplementation(() => undefined)
    const { rows } = useSteps()

    expect(rows.value[1]!.waitsFor).toEqual([])
    expect(rows.value[1]!.gates.map((one) => one.says)).toEqual(['open danger: bare', 'Screws is not here'])
    expect(rows.value.map((row) => row.step.ref)).toEqual(['a', 'b', 'new'])
    expect(rows.value[2]!.waitsFor).toEqual(['b'])
  })
})

describe('the first of a long list', () => {
  it('begins again when it is listed anew', async () => {
    const total = ref(400)
    const mark: Ref<Element | null> = ref(null)
    const scope = effectScope()
    const first = scope.run(() => useFirst(() => total.value, mark, 100))!
    first.value = 300
    total.value = 20
    await Promise.resolve()

    expect(first.value).toBe(100)
    scope.stop()
  })
})

describe('many at once', () => {
  const leads = () => held.document.value.leads as Lead[]
  const table = () =>
    effectScope().run(() =>
      useMany<Lead>({
        name: 'test',
        section: 'leads',
        one: 'lead',
        many: 'leads',
        rows: computed(leads),
        refOf: (lead) => lead.ref,
        columns: () => [
          { key: 'ref', title: 'Lead', text: (lead) => lead.ref },
          { key: 'length', title: 'Length', text: (lead) => lead.length ?? '', path: ['length'] },
          {
            key: 'bundle',
            title: 'Bundled with',
            text: (lead) => String(lead.bundled_with ?? ''),
            was: (lead) => lead.bundled_with,
            path: ['bundled_with'],
            value: Number,
          },
        ],
      }),
    )!
  beforeEach(() => {
    held.edits.length = 0
    held.document.value = {
      leads: [
        { ref: 'W2', from: 'a.out', to: 'b.in', length: '900 mm' },
        { ref: 'W10', from: 'a.out', to: 'c.in', length: '1.2 m', bundled_with: 2 },
        { ref: 'W1', from: 'a.out', to: 'd.in' },
      ],
    }
  })

  it('sorts by number within words, what is empty last either way, and back', () => {
    const many = table()
    const refs = () => many.sorted.value.map((lead) => lead.ref)
    many.sortBy('ref')
    expect(refs()).toEqual(['W1', 'W2', 'W10'])
    many.sortBy('ref')
    expect(refs()).toEqual(['W10', 'W2', 'W1'])
    many.sortBy('ref')
    expect(refs()).toEqual(['W2', 'W10', 'W1'])
    many.sortBy('length')
    many.sortBy('length')
    expect(refs().at(-1)).toBe('W1')
  })

  it('picks a range, sets a column of it in one edit, and leaves alone what is so already', async () => {
    const many = table()
    many.pick(leads()[0]!)
    many.pick(leads()[2]!, true)
    expect(many.picked.value.size).toBe(3)
    await many.setAll('length', '900 mm')
    expect(held.edits).toEqual([
      {
        label: 'Length of 2 leads',
        changes: [
          { section: 'leads', ref: 'W10', set: [{ path: ['length'], was: '1.2 m', to: '900 mm' }] },
          { section: 'leads', ref: 'W1', set: [{ path: ['length'], was: null, to: '900 mm' }] },
        ],
      },
    ])
    await many.removeAll()
    expect(held.edits[1]!.changes).toHaveLength(3)
    expect(many.picked.value.size).toBe(0)
  })

  it('takes back what it gave to a spreadsheet, and says what it does not know', async () => {
    const many = table()
    expect(await many.paste(many.copied())).toBe(true)
    expect(held.edits).toEqual([])
    expect(await many.paste('Lead\tBundled with\nW2\t3\nW10\t')).toBe(true)
    expect(held.edits[0]!.changes).toEqual([
      { section: 'leads', ref: 'W2', set: [{ path: ['bundled_with'], was: null, to: 3 }] },
      { section: 'leads', ref: 'W10', set: [{ path: ['bundled_with'], was: 2, to: null }] },
    ])
    for (const [text, says] of [
      ['Length\n1 m', 'headings, one of them “Lead”'],
      ['Lead\tColour\nW1\tred', 'no column “Colour”'],
      ['Lead\tLength\nW1\t1 m\nW99\t2 m', 'Line 3: there is no lead “W99”'],
    ] as const) {
      expect(await many.paste(text)).toBe(false)
      expect(many.reason.value).toContain(says)
    }
    expect(held.edits).toHaveLength(1)
  })

  it('creates what is kept nowhere yet, sets what goes with a column, and deletes only what is kept', async () => {
    const rows = [
      { ref: 'O1', price: '3.00' },
      { ref: 'belt (new)', price: '' },
      { ref: 'nut (new)', price: '' },
    ]
    const claimed: string[] = []
    const many = effectScope().run(() =>
      useMany<(typeof rows)[number]>({
        name: 'prices',
        section: 'offers',
        one: 'price',
        many: 'prices',
        rows: computed(() => rows),
        refOf: (row) => row.ref,
        isNew: (row) => row.price === '',
        begin: () => (claimed.length = 0),
        makes: (row, set) => {
          claimed.push(row.ref)

          return { section: 'offers', create: { ref: `O${claimed.length + 1}`, price: set[0]!.to } } as Change
        },
        columns: () => [
          { key: 'ref', title: 'Name', text: (row) => row.ref },
          {
            key: 'price',
            title: 'Price',
            text: (row) => row.price,
            path: ['price'],
            with: () => [{ path: ['date'], was: null, to: '2026-11-27' }],
          },
        ],
      }),
    )!
    many.pickAll(true)
    for (const created of ['O2', 'O2']) {
      await many.setAll('price', '4.20')
      expect(held.edits.at(-1)!.changes).toEqual([
        {
          section: 'offers',
          ref: 'O1',
          set: [
            { path: ['price'], was: '3.00', to: '4.20' },
            { path: ['date'], was: null, to: '2026-11-27' },
          ],
        },
        { section: 'offers', create: { ref: created, price: '4.20' } },
        { section: 'offers', create: { ref: 'O3', price: '4.20' } },
      ])
    }
    await many.removeAll()
    expect(held.edits.at(-1)!.changes).toEqual([{ section: 'offers', ref: 'O1', delete: true }])
  })

  it('reads quoted cells as it writes them', () => {
    const rows = [
      ['a', 'b "quoted"'],
      ['two\nlines', 'a\ttab'],
    ]
    expect(cells(tabbed(rows))).toEqual(rows)
  })

  it('takes leads, prices and unused parts along with the needs that go', () => {
    const part = (ref: string) => ({ ref, family: 'fan', name: ref })
    const need = (ref: string, choice: string) => ({ ref, role: ref, family: 'fan', choice, candidates: [choice] })
    const build = {
      needs: [need('one', 'shared'), need('two', 'shared'), need('three', 'alone')],
      parts: [part('shared'), part('alone')],
      offers: [{ ref: 'O1', part: 'alone', supplier: 's', price: '1' }],
      leads: [
        { ref: 'W1', from: 'psu.out', to: 'three.power' },
        { ref: 'W2', from: 'psu.out', to: 'one.power' },
      ],
    } as never
    const gone = (...refs: string[]) =>
      goingWith(
        (build as { needs: { ref: string }[] }).needs.filter((one) => refs.includes(one.ref)) as never,
        build,
      ).map((change) => `${change.section} ${change.ref}`)
    expect(gone('one')).toEqual(['leads W2', 'needs one'])
    expect(gone('three')).toEqual(['leads W1', 'needs three', 'offers O1', 'parts alone'])
    expect(gone('one', 'two')).toEqual(['leads W2', 'needs one', 'needs two', 'parts shared'])
  })
})
