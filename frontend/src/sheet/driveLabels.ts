import { computed, type Ref } from 'vue'

import { inSystem, say } from '../settings'
import type { DriveDrawn, DriveScene } from './driveScene'
import { type Label, type Obstacle, placeLabels, textWidth } from './labels'
import { SHAPES } from './marks'

interface Text {
  key: string
  lines: { text: string; size: number; strong?: boolean; class?: string; of?: string }[]
  places: { x: number; y: number }[]
}

type TextLine = Text['lines'][number]
const MARK = 16

/** What stands written on the drive's drawing, each text where it hides nothing. */
export function useDriveLabels(props: DriveDrawn, drawn: DriveScene, width: Ref<number>, height: Ref<number>) {
  const { narrow, focusWheel, shown, scene, dimensions, push, pulls } = drawn
  /** A number on the drawing wears the mark of its weakest input, like every other. */
  const mark = (line: TextLine): string => {
    const figure = line.of ? props.figures[line.of] : undefined
    return figure ? SHAPES[figure.weakest] : ''
  }
  const bare = (line: TextLine): number => textWidth(line.text, line.size) * (line.strong ? 1.1 : 1)
  const lineWidth = (line: TextLine): number => bare(line) + (mark(line) ? MARK : 0)

  const texts = computed<Text[]>(() => {
    const s = scene.value
    const [driver, driven] = s?.wheels ?? []
    if (!s || !driver || !driven) return []
    const small = narrow.value
    const size = small ? 12 : 13.5
    const found: Text[] = []
    const probe = push.value
    if (probe && props.figures.aim_low) {
      const force = {
        text: `${shown('aim_low')} to ${shown('aim_high')}`,
        size: small ? 15 : 21,
        strong: true,
        class: 'ember',
        of: 'aim_low',
      }
      found.push({
        key: 'push',
        lines: [force],
        places: [16, 24, 36].map((o) => ({
          x: probe.tail.x + probe.span.nx * o * 2.2,
          y: probe.tail.y + probe.span.ny * o,
        })),
      })
      found.push({
        key: 'deep',
        lines: [
          { text: `push ${shown('deflection')}`, size: size + 2, strong: true, class: 'ember', of: 'deflection' },
        ],
        places: [30, 40, 55].map((o) => ({ x: probe.px - probe.span.nx * o, y: probe.py - probe.span.ny * o })),
      })
    }
    for (const line of dimensions.value) {
      const mx = (line.x1 + line.x2) / 2
      const my = (line.y1 + line.y2) / 2
      const along = (t: number) => ({ x: line.x1 + (line.x2 - line.x1) * t, y: line.y1 + (line.y2 - line.y1) * t })
      const inWheel = line.key.endsWith('_outside')
      found.push({
        key: line.key,
        lines: [{ text: line.text, size, strong: line.hot, class: line.hot ? 'ember' : '', of: line.key }],
        places: inWheel
          ? [along(0.8), along(0.2), along(1.12), along(-0.12)]
          : line.key === 'span'
            ? [along(0.24), along(0.76), along(0.15)]
            : [{ x: mx, y: my }, along(0.35), along(0.65), along(0.25)],
      })
    }
    for (const w of s.wheels.filter((w) => !focusWheel.value || w.role === focusWheel.value)) {
      const isDriver = w.role === 'driver'
      const dx = Math.sign(w.cx - (isDriver ? driven : driver).cx) || -1
      const lines: Text['lines'] = [
        {
          text: isDriver ? 'DRIVER' : say(props.machine).toUpperCase(),
          size: small ? 12 : 14,
          strong: true,
          class: isDriver ? 'ember' : 'quench',
        },
      ]
      const speed = isDriver
        ? (props.figures.tach_driver ?? props.figures.driver_speed)
        : (props.figures.tach_driven ?? props.figures.driven_speed)
      if (!small && speed)
        lines.push({
          text: inSystem(speed),
          size: props.station === 'speed' ? 19 : 13.5,
          strong: props.station === 'speed',
          of: speed.key,
        })
      if (!small && props.station === 'speed' && props.figures[`${w.role}_rim_speed`])
        lines.push({ text: `rim ${shown(`${w.role}_rim_speed`)}`, size: 13, of: `${w.role}_rim_speed` })
      if (!small && props.station !== 'speed' && props.figures[`wrap_${w.role}`])
        lines.push({ text: `wrap ${shown(`wrap_${w.role}`)}`, size: 13, of: `wrap_${w.role}` })
      if (!small && isDriver && props.drawing?.bands) lines.push({ text: props.drawing.bands, size: 13 })
      const reach = w.r + s.thickness + 10
      const wide = Math.max(...lines.map(lineWidth)) / 2
      found.push({
        key: w.role,
        lines,
        places: [
          { x: w.cx + dx * (reach + wide), y: w.cy },
          { x: w.cx, y: w.cy - reach - lines.length * 9 },
          { x: w.cx, y: w.cy + reach + lines.length * 9 },
          { x: w.cx - dx * (reach + wide), y: w.cy - reach * 0.6 },
        ],
      })
    }
    for (const p of pulls.value) {
      found.push({
        key: `pull-${p.role}`,
        lines: [{ text: shown('shaft_pull'), size: small ? 13 : 17, strong: true, of: 'shaft_pull' }],
        places: [0.55, 0.8, 1.1, 0.3].flatMap((t) =>
          [18, -18].map((o) => ({ x: p.x1 + (p.x2 - p.x1) * t, y: p.y1 + (p.y2 - p.y1) * t + o })),
        ),
      })
    }
    if (!small) {
      for (const span of s.spans) {
        const strand = shown(span.tight ? 'tight_strand' : 'slack_strand')
        const plain = span.tight ? 'tight side, pulls' : 'slack side'
        const text = props.station === 'size' && strand ? `${span.tight ? 'tight' : 'slack'} ${strand}` : plain
        const inside = 18 + s.thickness / 2
        const at = (t: number) => ({
          x: span.x1 + (span.x2 - span.x1) * t - span.nx * inside,
          y: span.y1 + (span.y2 - span.y1) * t - span.ny * inside,
        })
        found.push({
          key: text,
          lines: [
            {
              text:
                props.station === 'speed' && !span.tight && props.figures.belt_speed
                  ? `belt ${shown('belt_speed')}`
                  : text,
              size: 13,
              class: 'soft',
              of:
                props.station === 'speed' && !span.tight
                  ? 'belt_speed'
                  : props.station === 'size' && strand
                    ? span.tight
                      ? 'tight_strand'
                      : 'slack_strand'
                    : undefined,
            },
          ],
          places: [at(0.5), at(0.35), at(0.65), at(0.2)],
        })
      }
    }
    return found
  })

  const labels = computed(() => {
    const s = scene.value
    if (!s) return []
    const boxes: Label[] = texts.value.map((t) => ({
      key: t.key,
      width: Math.max(...t.lines.map(lineWidth)),
      height: t.lines.reduce((sum, l) => sum + l.size * 1.25, 2),
      places: t.places,
    }))
    const tools = narrow.value
      ? { x: width.value - 80, y: height.value - 50, width: 72, height: 44 }
      : { x: width.value - 222, y: 6, width: 216, height: 46 }
    const plate = { x: 0, y: height.value - 20, width: narrow.value ? 120 : 330, height: 20 }
    const hubs: Obstacle[] = s.wheels.map((w) => ({
      x: w.cx - w.hub * 1.6,
      y: w.cy - w.hub * 1.6,
      width: w.hub * 3.2,
      height: w.hub * 3.2,
    }))
    const obstacles: Obstacle[] = [tools, plate, ...hubs]
    for (const span of s.spans) {
      for (let t = 0.04; t < 1; t += 0.04) {
        const x = span.x1 + (span.x2 - span.x1) * t
        const y = span.y1 + (span.y2 - span.y1) * t
        const r = s.thickness / 2 + 1
        obstacles.push({ x: x - r, y: y - r, width: 2 * r, height: 2 * r })
      }
    }
    for (const w of s.wheels) {
      for (let a = 0; a < 24; a++) {
        const angle = (a * Math.PI) / 12
        obstacles.push({
          x: w.cx + w.r * Math.cos(angle) - 5,
          y: w.cy + w.r * Math.sin(angle) - 5,
          width: 10,
          height: 10,
        })
      }
    }
    const sample = (x1: number, y1: number, x2: number, y2: number, owner?: string) => {
      const n = Math.max(2, Math.round(Math.hypot(x2 - x1, y2 - y1) / 8))
      for (let i = 0; i <= n; i++)
        obstacles.push({ x: x1 + ((x2 - x1) * i) / n - 2, y: y1 + ((y2 - y1) * i) / n - 2, width: 4, height: 4, owner })
    }
    for (const d of dimensions.value) sample(d.x1, d.y1, d.x2, d.y2, d.key)
    for (const p of pulls.value) sample(p.x1, p.y1, p.x2, p.y2)
    if (push.value) {
      const { span, px, py, mx, my, tail } = push.value
      sample(span.x1, span.y1, px, py)
      sample(px, py, span.x2, span.y2)
      sample(mx, my, tail.x, tail.y)
    }
    const foot = narrow.value ? 4 : 34
    const bounds = { x: 6, y: 6, width: width.value - 12, height: height.value - 12 - foot }
    const lines = new Map(texts.value.map((t) => [t.key, t.lines]))
    return placeLabels(boxes, obstacles, bounds).map((box) => {
      let y = box.y
      return {
        ...box,
        lines: (lines.get(box.key) ?? []).map((l) => ({
          ...l,
          x: box.x + box.width / 2 + (mark(l) ? MARK / 2 : 0),
          mark: mark(l),
          markX: box.x + (box.width - lineWidth(l)) / 2 + 1,
          y: (y += l.size * 1.25) - l.size * 0.3,
        })),
      }
    })
  })
  return labels
}
