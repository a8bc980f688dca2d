/** What can be done from anywhere in a build: where it is done, and other words somebody may look for it by. */
export interface PlaceAction {
  title: string
  also: string
  path: string
}

/** The actions that are done on a page of their own. */
export const places: PlaceAction[] = [
  { title: 'Add a part', also: 'new need component', path: 'choose/parts?add' },
  { title: 'Take a part from the library', also: 'shelf search example', path: 'choose/library' },
  { title: 'Bring a parts list', also: 'import csv spreadsheet paste bom upload', path: 'choose/import' },
  { title: 'Add a lead', also: 'new wire cable conductor', path: 'prove/leads?add' },
  { title: 'Propose leads', also: 'wire ports automatic', path: 'prove/leads?propose' },
  { title: 'Copy this build', also: 'fork variant duplicate', path: 'scope/variants' },
  { title: 'Set the budget', also: 'money limit settings contingency', path: 'scope/brief' },
  { title: 'Set the mains and the outlet', also: 'voltage country breaker settings site', path: 'scope/brief' },
  { title: 'Set the air temperature', also: 'ambient settings site warm', path: 'prove/power' },
  { title: 'Set what is on at once', also: 'scenario load duty', path: 'prove/power' },
  { title: 'Set shipping, duty and tax', also: 'supplier terms vat customs carrier currency', path: 'buy/money' },
  { title: 'Change many prices together', also: 'offers paste spreadsheet', path: 'buy/money?prices' },
  { title: 'Set exchange rates', also: 'currency settings', path: 'buy/money' },
  { title: 'Read settings back', also: 'firmware driver current', path: 'prove/settings' },
  { title: 'Next step at the bench', also: 'assembly guide build', path: 'build/bench' },
]
