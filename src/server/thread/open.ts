import { Worker, type WorkerOptions } from 'node:worker_threads'

/** A thread from the bundle's file of that name; run from source it learns to read the source of the same name first. */
export function openThread(bundled: URL, options: WorkerOptions): Worker {
  if (!import.meta.url.endsWith('.ts')) return new Worker(bundled, options)
  const source = bundled.href.replace(/[.]js$/, '.ts')
  const boot = `import('tsx/esm/api').then((tsx) => { tsx.register(); return import(${JSON.stringify(source)}) })`
  return new Worker(boot, { ...options, eval: true })
}
