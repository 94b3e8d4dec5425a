import { type GunChange } from '@contract/changeover.ts'
import { aboutMoney, amount, cable, type Units } from '@web/format/numbers.ts'

const whose = (n: number) => (n === 0 ? 'a guess until yours are logged' : `yours, ${n}`)

/** "about 31 min (23–50, a guess until yours are logged), 0.15 m of wire, 4 l of gas". */
export function costSentence(gun: GunChange, units: Units, currency: string): string {
  const { cost } = gun
  const said = [
    `about ${Math.round(cost.minutes)} min (${Math.round(cost.minutesLow)}–${Math.round(cost.minutesHigh)}, ${whose(cost.learntFrom)})`,
  ]
  if (cost.wireM > 0) {
    const weight = cost.wireKg >= 0.01 ? ` (${amount(cost.wireKg, 'kg', units)})` : ''
    said.push(`${cable(Math.round(cost.wireM * 100) / 100, units)} of wire${weight}`)
  }
  if (cost.gasL >= 1) said.push(`${Math.round(cost.gasL)} l of gas`)
  const scrap = (cost.wireMinor ?? 0) + (cost.gasMinor ?? 0)
  if (cost.standMinor) said.push(`${aboutMoney(cost.standMinor + scrap, currency)} with what it stands`)
  else if (scrap > 0) said.push(aboutMoney(scrap, currency))
  return `${said.join(', ')}.`
}
