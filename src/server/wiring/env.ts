import { z } from 'zod'

const shape = z.object({
  DATABASE_URL: z.string().startsWith('mysql://', 'expected mysql://…'),
  PORT: z.coerce.number().int().min(1).max(65_535).default(8460),
  WITH_DEMO: z.enum(['0', '1']).default('0'),
  SAY_READY: z.enum(['0', '1']).default('0'),
  /** Shared with the demo's feeder stand-in, so that both make the same tokens. */
  STANDIN_SECRET: z.string().min(16).optional(),
  /** On the network too, encrypted; certificates live in the folder. */
  LAN_FOLDER: z.string().min(1).optional(),
  TRUST_PORT: z.coerce.number().int().min(1).max(65_535).default(8461),
  LOCAL_PORT: z.coerce.number().int().min(1).max(65_535).default(8462),
  /** The built web app, where it does not lie beside the server. */
  WEB_FOLDER: z.string().min(1).optional(),
  /** Where the shop's data lie and its daily back-ups go, as far as this machine has them: told on the page of how it holds up. */
  DATA_FOLDER: z.string().min(1).optional(),
  BACKUP_FOLDER: z.string().min(1).optional(),
  /** Names it is asked for by, beside the machine's own: behind a name server or something that passes on. */
  HOSTS: z
    .string()
    .default('')
    .transform((text) =>
      text
        .toLowerCase()
        .split(/[\s,]+/)
        .filter(Boolean),
    ),
  /** Moves the program's clock, for journeys that begin at an instant of their own. */
  CLOCK_SHIFT_MS: z.coerce.number().int().default(0),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info']).default('warn'),
})
export type Env = Readonly<z.infer<typeof shape>>

/** The environment, read and checked once; what is wrong is said by name. */
export function readEnv(source: Record<string, string | undefined>): Env {
  const read = shape.safeParse(source)
  if (!read.success)
    throw new Error(
      `The environment is off: ${read.error.issues.map((i) => `${i.path.join('.')} ${i.message}`).join('; ')}`,
    )
  return Object.freeze(read.data)
}
