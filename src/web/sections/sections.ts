/** The sections, in the order of the head and of a phone's last page. A new one is a row here and a route in `main.tsx`. */
export const SECTIONS: readonly { to: string; name: string; isOf?: 'cells' | 'classes' }[] = [
  { to: '/', name: 'Floor' },
  { to: '/down', name: 'Down' },
  { to: '/walk', name: 'Walk' },
  { to: '/cells', name: 'Cells', isOf: 'cells' },
  { to: '/classes', name: 'Classes', isOf: 'classes' },
  { to: '/practice', name: 'Practice booth' },
  { to: '/life', name: 'Part life' },
  { to: '/drag', name: 'Drag' },
  { to: '/payback', name: 'Payback' },
  { to: '/parts', name: 'Parts' },
  { to: '/spools', name: 'Spools' },
  { to: '/logbook', name: 'Logbook' },
  { to: '/shop', name: 'Our shop' },
]
/** Those a shop has a use for. */
export const sectionsFor = (me: { hasCells: boolean; hasClasses: boolean } | undefined) =>
  SECTIONS.filter((s) => !s.isOf || (s.isOf === 'cells' ? me?.hasCells : me?.hasClasses))
