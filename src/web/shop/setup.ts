import { type ShopAnswer } from '@contract/shop.ts'

/** One page of the set-up: what it is for in a line, and what is still missing there. */
interface SetupPart {
  name: string
  isFor: string
  missing?: (shop: ShopAnswer) => string | null
}
const some = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`
const untoldBays = (shop: ShopAnswer) =>
  shop.areas.filter((a) => !a.built.wireId && shop.stations.some((s) => s.areaId === a.id))

/** Pages by what they are about, those that are opened most first. */
export const SETUP = [
  {
    group: 'The floor',
    parts: {
      places: {
        name: 'places',
        isFor: 'Where guns stand, in the order of the walk, and how the guns of a bay are built.',
        missing: (shop) => {
          const untold = untoldBays(shop)
          return untold.length === 0
            ? null
            : `Not said yet how guns are built in ${untold.map((a) => a.name).join(', ')}.`
        },
      },
      guns: {
        name: 'spare guns',
        isFor: 'Guns on the shelf that can be hung at once, and how tight the joints are made.',
      },
      shifts: {
        name: 'shifts',
        isFor: 'When work is done: wear runs then, and “before the next break” goes by it.',
        missing: (shop) => (shop.shifts.length === 0 ? 'No shifts yet: time runs day and night.' : null),
      },
    },
  },
  {
    group: 'Wire and parts',
    parts: {
      parts: {
        name: 'parts and wires',
        isFor: 'What is put on guns: numbers, prices, and the wires that run.',
        missing: (shop) => {
          const unnumbered = shop.parts.filter((p) => p.code === p.name).length
          const unpriced = shop.parts.filter((p) => p.priceMinor === null).length
          const said = [
            shop.wires.length === 0 ? 'No wire yet.' : null,
            shop.parts.length === 0 ? 'No parts yet.' : null,
            unnumbered > 0 ? `${some(unnumbered, 'part has', 'parts have')} no number yet.` : null,
            unpriced > 0 ? `${some(unpriced, 'part has', 'parts have')} no price.` : null,
          ].filter(Boolean)
          return said.length === 0 ? null : said.join(' ')
        },
      },
      fit: {
        name: 'what fits',
        isFor: 'Guns of one family take the same parts; feeders and written procedures.',
        missing: (shop) => (shop.families.length === 0 ? 'No gun family yet.' : null),
      },
      counts: { name: 'counts and purchases', isFor: 'What is on the shelf, what was bought, what the tins say.' },
    },
  },
  {
    group: 'How it is done here',
    parts: {
      rules: {
        name: 'limits',
        isFor: 'Change, clean and look at so much use; what an hour of standing costs.',
        missing: (shop) => (shop.rules.length === 0 ? 'No limit yet: nothing is ever due.' : null),
      },
      schools: { name: 'house rules', isFor: 'Where practitioners differ: how it is done in this shop.' },
      why: { name: 'why it stops', isFor: 'The causes Down goes by, and what this shop knows better.' },
      guides: { name: 'guides', isFor: 'How a job is done, step by step, in this shop’s words.' },
    },
  },
  {
    group: 'People and the shop',
    parts: {
      people: {
        name: 'people and devices',
        isFor: 'Who signs in, and tablets that belong to a booth or hall.',
        missing: (shop) => (shop.people.length < 2 ? 'Nobody but you yet.' : null),
      },
      prints: { name: 'cards and labels', isFor: 'A card at each booth: scanned, it opens that gun.' },
      bring: {
        name: 'bring in a sheet',
        isFor:
          'Any sheet as it is: guns, past work, purchases, totals. It is looked through first; nothing is kept before you say so.',
      },
      holds: {
        name: 'how it holds up',
        isFor:
          'Whether the database, the back-ups, the disk and the feeders are well, and what devices could not hand over.',
      },
      site: { name: 'the shop', isFor: 'Name, time zone, units, money, and how others reach this machine.' },
    },
  },
] as const satisfies readonly { group: string; parts: Record<string, SetupPart> }[]

export const setupPart = (key: string): SetupPart | undefined =>
  SETUP.flatMap(({ parts }) => Object.entries<SetupPart>(parts)).find(([k]) => k === key)?.[1]
