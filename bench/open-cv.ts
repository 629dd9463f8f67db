import { createRequire } from 'node:module'
import { join } from 'node:path'

// OpenCV compiled to WebAssembly, on a picture of bytes.

interface Mat {
  data: Uint8Array
  data32F: Float32Array
  delete(): void
}

/** What is used of OpenCV: the package's own types know little of it. */
interface OpenCv {
  Mat: new (rows?: number, cols?: number, type?: number) => Mat
  Size: new (width: number, height: number) => object
  Point: new (x: number, y: number) => object
  CV_8UC4: number
  CV_32FC1: number
  INTER_LINEAR: number
  WARP_INVERSE_MAP: number
  WARP_POLAR_LOG: number
  BORDER_CONSTANT: number
  GaussianBlur(src: Mat, dst: Mat, size: object, sigma: number): void
  blur(src: Mat, dst: Mat, size: object): void
  filter2D(src: Mat, dst: Mat, depth: number, kernel: Mat): void
  warpPolar(src: Mat, dst: Mat, size: object, middle: object, radius: number, flags: number): void
  remap(src: Mat, dst: Mat, x: Mat, y: Mat, interpolation: number, border: number): void
  onRuntimeInitialized?: () => void
}

/** In an object of its own: the library has a `then`, which a promise would wait for for ever. */
async function load(): Promise<{ cv: OpenCv }> {
  const require = createRequire(join(process.cwd(), 'package.json'))
  const cv = require('@techstark/opencv-js') as OpenCv
  // It is ready at once, or tells when it is.
  if (!cv.Mat) await new Promise<void>((done) => (cv.onRuntimeInitialized = done))
  return { cv }
}

/** Operations on a picture, each made ready to be run again and again. */
export async function openCv(bytes: Uint8Array, w: number, h: number) {
  const { cv } = await load()
  const mats: Mat[] = []
  const keep = (mat: Mat) => {
    mats.push(mat)
    return mat
  }
  const src = keep(new cv.Mat(h, w, cv.CV_8UC4))
  src.data.set(bytes)
  const dst = keep(new cv.Mat())
  const middle = new cv.Point(w / 2, h / 2)
  const radius = Math.hypot(w, h) / 2
  const plane = (rows: number, cols: number, of: (x: number, y: number) => number) => {
    const mat = keep(new cv.Mat(rows, cols, cv.CV_32FC1))
    for (let y = 0; y < rows; y++) for (let x = 0; x < cols; x++) mat.data32F[y * cols + x] = of(x, y)
    return mat
  }
  /** On rings or rays, a box along one of the axes, and back: one row a sample of the widest ring. */
  const polar = (flags: number, box: object) => {
    const turned = keep(new cv.Mat())
    const smoothed = keep(new cv.Mat())
    const size = new cv.Size(Math.ceil(radius), Math.ceil(2 * Math.PI * radius))
    return () => {
      cv.warpPolar(src, turned, size, middle, radius, cv.INTER_LINEAR + flags)
      cv.blur(turned, smoothed, box)
      const back = cv.INTER_LINEAR + flags + cv.WARP_INVERSE_MAP
      cv.warpPolar(smoothed, dst, new cv.Size(w, h), middle, radius, back)
    }
  }
  return {
    blur: (sigma: number) => () => cv.GaussianBlur(src, dst, new cv.Size(0, 0), sigma),
    smear(length: number, angle: number) {
      const size = length + 1
      const [dx, dy] = [Math.cos((angle * Math.PI) / 180), -Math.sin((angle * Math.PI) / 180)]
      const half = length / 2
      // A line of even weight, a pixel wide.
      const weight = (x: number, y: number) => {
        const [u, v] = [x - half, y - half]
        return Math.max(0, 1 - Math.abs(u * dy - v * dx)) * (Math.abs(u * dx + v * dy) <= half ? 1 / length : 0)
      }
      const kernel = plane(size, size, weight)
      return () => cv.filter2D(src, dst, -1, kernel)
    },
    spin: (angle: number) => polar(0, new cv.Size(1, Math.round((angle / 360) * 2 * Math.PI * radius))),
    zoom: () => polar(cv.WARP_POLAR_LOG, new cv.Size(Math.round((Math.log(1.15) * radius) / Math.log(radius)), 1)),
    remap() {
      const by = (x: number, y: number) => ((x + y) / (w + h) - 0.5) * 40
      const [x, y] = [plane(h, w, (u, v) => u + by(u, v)), plane(h, w, (u, v) => v + by(u, v) / 2)]
      return () => cv.remap(src, dst, x, y, cv.INTER_LINEAR, cv.BORDER_CONSTANT)
    },
    end: () => mats.forEach((mat) => mat.delete()),
  }
}
