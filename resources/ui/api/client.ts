import { told } from '@/shared/decimals'
import type { components } from './schema'

type Schemas = components['schemas']

export type Build = Schemas['Build']
export type BuildDocument = Schemas['Document']
export type Overview = Schemas['Overview']
export type FindingSummary = Schemas['FindingSummary']
export type FindingsChange = Schemas['FindingsChange']
export type Finding = Schemas['Finding']
export type Cause = Schemas['Cause']
export type Starter = Schemas['Starter']
export type Verdict = Schemas['Verdict']
export type Tally = Schemas['Tally']
export type Doubt = Schemas['Doubt']
export type Change = Schemas['Change']
export type Trouble = Schemas['Trouble']
export type JudgingState = Schemas['JudgingState']
export type EditResult = Schemas['EditResult']
export type EditRecord = Schemas['EditRecord']
export type ChangeRecord = Schemas['ChangeRecord']
export type Session = Schemas['Session']
export type Revoked = Schemas['Revoked']
export type DoorEvent = Schemas['Event']
export type Role = Schemas['Role']
export type SeenAs = Schemas['SeenAs']
export type Account = Schemas['Account']
export type WorkshopPeople = Schemas['WorkshopPeople']
export type BuildPeople = Schemas['BuildPeople']
export type Pulse = Schemas['Pulse']
export type Invited = Schemas['Invited']
export type WorkshopBuilds = Schemas['WorkshopBuilds']
export type PowerScenario = Schemas['PowerScenario']
export type PowerOutput = Schemas['PowerOutput']
export type Money = Schemas['Money']
export type Order = Schemas['Order']
export type Split = Schemas['Split']
export type Arrival = Schemas['Arrival']
export type Dates = Schemas['Dates']
export type WayBack = Schemas['WayBack']
export type OpenItem = Schemas['OpenItem']
export type Evening = Schemas['Evening']
export type DerivedSteps = Schemas['DerivedSteps']
export type Documents = Schemas['Documents']
export type BagLines = Schemas['BagLines']
export type ScrewInHand = Schemas['ScrewInHand']
export type LookAhead = Schemas['LookAhead']
export type FaultCase = Schemas['FaultCase']
export type Alignments = Schemas['Alignments']
export type AlignmentOutcome = Schemas['AlignmentOutcome']
export type BeltNote = Schemas['BeltNote']
export type Resonances = Schemas['Resonances']
export type HeaterLoop = Schemas['HeaterLoop']
export type FollowingError = Schemas['FollowingError']
export type ProgramCheck = Schemas['ProgramCheck']
export type StartList = Schemas['StartList']
export type Upkeep = Schemas['Upkeep']
export type BuildBook = Schemas['BuildBook']
export type MachinePicture = Schemas['MachinePicture']
export type Arrangements = Schemas['Arrangements']
export type Ladder = Schemas['Ladder']
export type Rung = Ladder['rungs'][number]
export type Hours = Schemas['Hours']
export type Spare = Schemas['Spare']
export type Claim = Schemas['Claim']
export type Purchase = Schemas['purchase']
export type Prints = Schemas['Prints']
export type Mesh = Schemas['Mesh']
export type Errand = Schemas['Errand']
export type Printer = Schemas['printer']
export type Frontier = Schemas['Frontier']
export type PurchaseRow = Schemas['PurchaseRow']
export type Catalogue = Schemas['Catalogue']
export type Family = Schemas['Family']
export type Field = Schemas['Field']
export type Preview = Schemas['Preview']
export type Mapping = Schemas['Mapping']
export type ImportState = Schemas['ImportState']
export type Part = Schemas['part']
export type Need = Schemas['need']
export type Lead = Schemas['lead']
export type LeadEnd = Schemas['end']
export type Scenario = Schemas['scenario']
export type Step = Schemas['step']
export type Fault = Schemas['fault']
export type PaperDocument = Schemas['document']
export type Bag = Schemas['bag']
export type Question = Schemas['question']
export type Offer = Schemas['offer']
export type FullSpec = Schemas['fullSpec']
export type ProblemBody = Schemas['Problem']
export type Scope = Schemas['Scope']
export type Routes = Schemas['Routes']
export type RouteColumn = Schemas['RouteColumn']
export type TrueCost = Schemas['TrueCost']
export type Comparison = Schemas['Comparison']
export type Candidate = Schemas['Candidate']
export type MeasureRow = Schemas['MeasureRow']
export type Variant = Schemas['Variant']
export type VariantDiff = Schemas['VariantDiff']
export type LibraryPage = Schemas['LibraryPage']
export type LibraryLine = Schemas['LibraryLine']
export type LibraryItem = Schemas['LibraryItem']
export type LibraryEntry = Schemas['LibraryEntry']
export type Wiring = Schemas['Wiring']
export type Harness = Schemas['Harness']
export type Loom = Schemas['Loom']
export type Remedies = Schemas['Remedies']
export type Remedy = Schemas['Remedy']
export type RemedySet = Schemas['RemedySet']
export type Stops = Schemas['Stops']
export type Ports = Schemas['Ports']
export type ProposedLead = Schemas['ProposedLead']
export type ProposedLeads = Schemas['ProposedLeads']
export type Channel = Schemas['Channel']
export type PortMove = Schemas['PortMove']
export type SettingLine = Schemas['SettingLine']
export type Zone = Schemas['zone']
export type Axis = Schemas['axis']
export type AxisMotion = Schemas['AxisMotion']
export type PickedMotors = Schemas['PickedMotors']
export type Joints = Schemas['Joints']
export type Heat = Schemas['Heat']
export type BeltLoop = Schemas['BeltLoop']
export type CuttingData = Schemas['CuttingData']
export type TurningParts = Schemas['TurningParts']
export type PickedCoupling = Schemas['PickedCoupling']
export type DecisionState = Schemas['DecisionState']
export type Brief = Schemas['brief']
export type Route = Schemas['route']
export type Decision = Schemas['decision']
export type Path = (string | number)[]

/** What the server refused, with the field and the reason. */
export class Problem extends Error {
  constructor(readonly body: ProblemBody) {
    super(body.errors?.[0]?.reason ?? body.detail)
  }

  /** The reason for one field of a form. */
  at(pointer: string): string | undefined {
    return this.body.errors?.find((error) => error.pointer === pointer)?.reason
  }
}

function crossSiteToken(): string {
  const cookie = document.cookie.split('; ').find((part) => part.startsWith('XSRF-TOKEN='))

  return cookie === undefined ? '' : decodeURIComponent(cookie.slice('XSRF-TOKEN='.length))
}

async function call<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const headers: Record<string, string> = { Accept: 'application/json', 'X-XSRF-TOKEN': crossSiteToken() }
  let payload: BodyInit | undefined
  if (body instanceof FormData) {
    payload = body
  } else if (body !== undefined) {
    headers['Content-Type'] = 'application/json'
    payload = JSON.stringify(body)
  }
  let response: Response
  try {
    response = await fetch(path, { method, headers, body: payload, credentials: 'same-origin', signal })
  } catch {
    throw new Problem({
      type: 'about:blank',
      title: 'No answer',
      status: 0,
      detail: 'Frugal Magpie does not answer. What you typed is kept here; try again when it runs.',
    })
  }
  if (!response.ok) {
    const fallback = {
      type: 'about:blank',
      title: 'That did not work',
      status: response.status,
      detail: `The server answered ${response.status}. What you typed is kept here.`,
    }
    throw new Problem(((await response.json().catch(() => fallback)) ?? fallback) as ProblemBody)
  }

  return (response.status === 204 ? undefined : told(await response.json())) as T
}

export const api = {
  get: <T>(path: string, signal?: AbortSignal) => call<T>('GET', path, undefined, signal),
  post: <T>(path: string, body: unknown = {}) => call<T>('POST', path, body),
  put: <T>(path: string, body: unknown) => call<T>('PUT', path, body),
  delete: <T>(path: string, body?: unknown) => call<T>('DELETE', path, body),
}

export function upload<T>(path: string, name: string, file: File, more: Record<string, string> = {}): Promise<T> {
  const form = new FormData()
  form.append(name, file)
  for (const [key, value] of Object.entries(more)) form.append(key, value)

  return api.post<T>(path, form)
}

/** What went wrong, in words for the person in front of the screen. */
export function reasonOf(error: unknown): string {
  return error instanceof Error ? error.message : 'That did not work.'
}
