import type { Fault } from '@/api/client'

export const isOpenFault = (fault: Fault) => fault.state !== 'fixed' && fault.state !== 'closed'

/** An open danger: the machine is not to be powered. */
export const isOpenDanger = (fault: Fault) => fault.severity === 'danger' && isOpenFault(fault)
