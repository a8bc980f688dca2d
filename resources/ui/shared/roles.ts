import { inject, provide, ref, type InjectionKey, type Ref } from 'vue'
import type { Role, SeenAs } from '@/api/client'

/** What each role may, in the words of whoever gives it. */
export const roles: { value: Role; title: string; may: string }[] = [
  { value: 'owner', title: 'Owner', may: 'changes everything, deletes builds, and says who may what' },
  { value: 'builder', title: 'Builder', may: 'begins builds and changes those of the workshop' },
  { value: 'reader', title: 'Reader', may: 'sees everything and changes nothing' },
]
export const roleTitle = (role: SeenAs | null): string =>
  roles.find((one) => one.value === role)?.title ?? (role === 'visitor' ? 'Visitor' : 'Guest')
export const mayChange = (role: SeenAs | null | undefined): boolean => role === 'owner' || role === 'builder'

const key: InjectionKey<Ref<boolean>> = Symbol('may change')
/** Tells all cells below whether what they show may be changed. */
export const provideMayChange = (may: Ref<boolean>): void => provide(key, may)
export const useMayChange = (): Ref<boolean> => inject(key, ref(true))
