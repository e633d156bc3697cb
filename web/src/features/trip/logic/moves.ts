// A move in a few words, its number in the reader's units.
import { fishLengthUnit, formatLength, formatSpeed, tackleLengthFromM, type UnitChoice } from '@/shared/units/units'
import type { Move } from '../api'

type Answer = Move['answer']

/** What is done: the core says it with the trade's feet and inches, a speed without its number. */
export function answerWords(answer: Answer, units: UnitChoice): string {
  const speed = answer.change.speed_changed
  if (speed) return `${answer.title} to ${formatSpeed(speed.speed_mps, units)}`
  const number = measured(answer, units)
  // The last number: a rod may have one in its name.
  return number ? answer.title.replace(/^(.*)\b\d+ (?:ft|in)\b/, `$1${number}`) : answer.title
}

function measured({ kind, change }: Answer, units: UnitChoice): string | null {
  const { line_set: line, rod_rigged: rigged } = change
  if (line) return formatLength(line.wanted_depth_m ?? line.setting_m, units)
  if (rigged?.leader_m && kind === 'leader') return `${Math.round(tackleLengthFromM(rigged.leader_m, units))} ${fishLengthUnit(units)}`
  return rigged?.setback_m && kind === 'setback' ? formatLength(rigged.setback_m, units) : null
}

/** What was done at once, on one rod or several. */
export function doneWords(answers: readonly Answer[], units: UnitChoice): string {
  return answers.map((answer) => answerWords(answer, units)).join('; ')
}
