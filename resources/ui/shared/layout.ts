import type { ELK, ElkNode } from 'elkjs/lib/elk-api'

let layout: Promise<ELK> | undefined

/** Layouts are worked out in a worker of its own: thousands of lines never hold up the page. */
async function layouts(): Promise<ELK> {
  if (typeof Worker === 'undefined') {
    const { default: Elk } = await import('elkjs/lib/elk.bundled.js')

    return new Elk()
  }
  const [{ default: Elk }, { default: workerUrl }] = await Promise.all([
    import('elkjs/lib/elk-api.js'),
    import('elkjs/lib/elk-worker.min.js?url'),
  ])

  return new Elk({ workerUrl })
}

/** Where the boxes and lines of a graph come to lie. */
export async function laidOut(graph: ElkNode): Promise<ElkNode> {
  layout ??= layouts()

  return (await layout).layout(graph)
}
