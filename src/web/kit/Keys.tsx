import { type ComponentProps } from 'react'
import { Button } from 'react-bootstrap'

type Props = ComponentProps<typeof Button>
const joined = (...classes: (string | undefined)[]) => classes.filter(Boolean).join(' ') || undefined

/** A key to hit with a glove: 72 px, or low where several stand in a row; chalk is the one that goes on. */
export function Key({
  size,
  tone,
  className,
  ...button
}: Omit<Props, 'size' | 'variant' | 'bsPrefix'> & { size?: 'low' | undefined; tone?: 'chalk' | undefined }) {
  return (
    <Button
      bsPrefix="key"
      variant=""
      className={joined(size && `key-${size}`, tone && `key-${tone}`, className)}
      {...button}
    />
  )
}

/** Words that can be tapped. */
export const Bare = (props: Omit<Props, 'variant' | 'bsPrefix'>) => <Button bsPrefix="bare" variant="" {...props} />

/** Something drawn that can be tapped: a row, a cell, a picture; its look is its own. */
export const Plain = (props: Omit<Props, 'variant' | 'bsPrefix'>) => <Button bsPrefix="tap" variant="" {...props} />
