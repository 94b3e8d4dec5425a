import { useEffect, useRef, useState, type HTMLAttributes, type ReactNode } from 'react'

interface Props extends HTMLAttributes<HTMLElement> {
  /** A section of the page with a name of its own, or a piece of one. */
  as?: 'div' | 'section'
  children: ReactNode
}

/** A wide table: where it is wider than the page it is moved sideways, with a finger or, once it is reached by Tab, with the arrow keys. */
export function Sideways({ as: As = 'div', className = '', children, ...rest }: Props) {
  const frame = useRef<HTMLDivElement>(null)
  const [isWider, setIsWider] = useState(false)
  useEffect(() => {
    const { current } = frame
    if (!current) return
    const measure = () => setIsWider(current.scrollWidth > current.clientWidth)
    measure()
    const watch = new ResizeObserver(measure)
    for (const of of [current, ...current.children]) watch.observe(of)
    return () => watch.disconnect()
  }, [])
  return (
    <As ref={frame} className={`table-responsive ${className}`.trim()} tabIndex={isWider ? 0 : undefined} {...rest}>
      {children}
    </As>
  )
}
