import type { Overview } from '@/api/client'
import { written } from './decimals'
import { day } from './format'

/** What is still to be worked; steps that say no hours count for nothing in it. */
type Forecast = Pick<Overview['forecast'], 'hours_left' | 'date' | 'steps_without_guide'>

/** Hours left as a figure: the least where some step says none, "?" where none does. */
export function hoursLeft(forecast: Forecast): string {
  const hours = written(String(forecast.hours_left))
  if (forecast.steps_without_guide === 0) return hours
  return forecast.hours_left > 0 ? `≥ ${hours}` : '?'
}

/** The day it is done, or before which it is not where some step says no hours; "–" where there is no day to name. */
export function dayDone(forecast: Forecast): string {
  const least = forecast.date !== null && forecast.steps_without_guide > 0
  return least ? `not before ${day(forecast.date)}` : day(forecast.date)
}

/** What the figures leave out; '' where they leave out nothing. */
export function leftOut(forecast: Forecast): string {
  const steps = forecast.steps_without_guide
  if (steps === 0) return ''
  return steps === 1 ? '1 open step says no hours' : `${steps} open steps say no hours`
}
