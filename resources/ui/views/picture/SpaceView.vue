<script setup lang="ts">
import {
  AmbientLight,
  BoxGeometry,
  Color,
  DirectionalLight,
  EdgesGeometry,
  Group,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  MeshLambertMaterial,
  PerspectiveCamera,
  Raycaster,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
} from 'three'
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { MachinePicture } from '@/api/client'
import { around, moved, swept, type Box, type Meeting, type Stand } from './geometry'

/** The machine in space, to be turned with mouse, finger or keys. Where the device cannot draw it, it says so. */
const { picture, stand, picked, meeting } = defineProps<{
  picture: MachinePicture
  stand: Stand
  picked: string | null
  meeting: Meeting[]
}>()
const emit = defineEmits<{ pick: [place: string] }>()
const frame = ref<HTMLDivElement | null>(null)
const reason = ref('')
const meshes = new Map<string, Mesh<BoxGeometry, MeshLambertMaterial>>()
let renderer: WebGLRenderer | null = null
let controls: OrbitControls | null = null
let watched: ResizeObserver | null = null
let asked = 0
const scene = new Scene()
const camera = new PerspectiveCamera(40, 1, 1, 100_000)
const machine = new Group()
const colour = (name: string) => {
  const found = getComputedStyle(frame.value!).getPropertyValue(`--v-theme-${name}`).trim()

  return new Color(found === '' ? '#888' : `rgb(${found})`)
}
/** x to the right, z up, y away from whoever looks. */
const inSpace = (x: number, y: number, z: number) => new Vector3(x, z, -y)

function draw(): void {
  asked = 0
  if (renderer !== null) renderer.render(scene, camera)
}
function redraw(): void {
  if (asked === 0) asked = requestAnimationFrame(draw)
}
function build(): void {
  machine.clear()
  meshes.clear()
  for (const body of picture.bodies) {
    const [w, d, h] = [0, 1, 2].map((i) => Math.max(0.1, body.high[i]! - body.low[i]!)) as [number, number, number]
    const shape = new BoxGeometry(w, h, d)
    const clear = body.kind === 'zone' || body.encloses
    const mesh = new Mesh(
      shape,
      new MeshLambertMaterial({ transparent: clear, opacity: clear ? 0.12 : 1, depthWrite: !clear }),
    )
    mesh.name = body.place
    mesh.add(new LineSegments(new EdgesGeometry(shape), new LineBasicMaterial({ color: colour('on-surface') })))
    machine.add(mesh)
    meshes.set(body.key, mesh)
  }
  place()
}
/** Puts each body where the axes have it, in the colour of what it is. */
function place(): void {
  const meets = new Set(meeting.flatMap((one) => [one.one, one.other]))
  for (const body of picture.bodies) {
    const by = moved(body.carried, picture.axes, stand)
    const middle = [0, 1, 2].map((i) => (body.low[i]! + body.high[i]!) / 2 + by[i]!) as [number, number, number]
    const mesh = meshes.get(body.key)
    mesh?.position.copy(inSpace(...middle))
    mesh?.material.color.copy(
      meets.has(body.key)
        ? colour('fails')
        : body.place === picked
          ? colour('live')
          : body.kind === 'workpiece'
            ? new Color('#cda873')
            : body.carried.length > 0
              ? new Color('#b9c4cc')
              : new Color('#e4e2dc'),
    )
  }
  redraw()
}
function home(): void {
  const all: Box = around(picture.bodies.map((body) => swept(body, picture.axes)))
  const middle = [0, 1, 2].map((i) => (all.low[i]! + all.high[i]!) / 2) as [number, number, number]
  const far = Math.hypot(...[0, 1, 2].map((i) => all.high[i]! - all.low[i]!)) * 1.05
  controls?.target.copy(inSpace(...middle))
  camera.position.copy(inSpace(...middle).add(new Vector3(far * 0.6, far * 0.55, far * 0.85)))
  camera.near = far / 100
  camera.far = far * 10
  camera.updateProjectionMatrix()
  controls?.update()
  redraw()
}
function pick(event: MouseEvent): void {
  const box = frame.value!.getBoundingClientRect()
  const at = new Vector2(
    ((event.clientX - box.left) / box.width) * 2 - 1,
    -((event.clientY - box.top) / box.height) * 2 + 1,
  )
  const ray = new Raycaster()
  ray.setFromCamera(at, camera)
  // What is clear is looked through.
  const hit = ray
    .intersectObjects([...meshes.values()], false)
    .find((one) => !(one.object as Mesh<BoxGeometry, MeshLambertMaterial>).material.transparent)
  if (hit) emit('pick', hit.object.name)
}
onMounted(() => {
  try {
    renderer = new WebGLRenderer({ antialias: true, alpha: true })
  } catch {
    reason.value = 'This device cannot draw in space; the flat views show all of it.'

    return
  }
  renderer.setPixelRatio(Math.min(2, window.devicePixelRatio))
  renderer.domElement.tabIndex = 0
  renderer.domElement.addEventListener('click', pick)
  renderer.domElement.setAttribute('role', 'img')
  renderer.domElement.setAttribute('aria-label', 'The machine in space; arrow keys move it')
  frame.value!.append(renderer.domElement)
  controls = new OrbitControls(camera, renderer.domElement)
  controls.listenToKeyEvents(renderer.domElement)
  controls.addEventListener('change', redraw)
  const sun = new DirectionalLight('#ffffff', 2)
  sun.position.set(1, 2, 1.5)
  scene.add(new AmbientLight('#ffffff', 1.6), sun, machine)
  watched = new ResizeObserver(() => {
    const [width, height] = [frame.value!.clientWidth, frame.value!.clientHeight]
    renderer!.setSize(width, height)
    camera.aspect = width / Math.max(1, height)
    camera.updateProjectionMatrix()
    redraw()
  })
  watched.observe(frame.value!)
  build()
  home()
})
onBeforeUnmount(() => {
  cancelAnimationFrame(asked)
  watched?.disconnect()
  controls?.dispose()
  renderer?.dispose()
})
watch(() => picture, build)
watch(() => [stand, picked, meeting], place, { deep: true })
defineExpose({ home })
</script>

<template>
  <div ref="frame" class="space">
    <p v-if="reason" class="empty">{{ reason }}</p>
  </div>
</template>

<style scoped>
.space {
  width: 100%;
  height: 100%;
  min-height: 240px;
  overflow: hidden;
  touch-action: none;
}
</style>
