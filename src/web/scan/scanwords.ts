import { type ScanAnswer } from '@contract/logbook.ts'
import { donePhrase } from '@web/format/words.ts'

/** What a scan did, in one line. */
export function scanSentence(answer: ScanAnswer): string {
  const [act] = answer.acts
  const phrase = donePhrase(act?.act ?? '', act?.position ?? null)
  switch (answer.said) {
    case 'logged':
      return `${phrase} · ${answer.stationName}.`
    case 'twice':
      return `Scanned a moment ago on ${answer.stationName}: logged once. Were there two? Scan the “two of them”.`
    case 'again':
      return `${phrase}, ${act?.count ?? 2} of them · ${answer.stationName}.`
    case 'open':
      return answer.stationName
    case 'gunHere':
      return `${answer.hungAt?.gunName ?? 'That gun'} on ${answer.stationName} now?`
  }
}
