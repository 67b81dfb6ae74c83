/**
 * What to look at, drawn small and our own: lines in a box of 120 by 80. `b`: belt or chain, `w`: wheels, `i`: tools and housings,
 * `e`: the place where one looks.
 */
export interface Look {
  b?: string
  w?: string
  i?: string
  e?: string
}

const ring = (x: number, y: number, r: number) =>
  `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
const TWO = ring(30, 42, 18) + ring(90, 42, 12)
const RUN = 'M28.5 24L89 30M28.5 60L89 54'
const teeth = (x: number, y: number, n: number) =>
  `M${x} ${y}` + Array.from({ length: n }, () => 'h4l2 8h6l2-8').join('') + 'h4'
const links = (y: number, n: number) =>
  Array.from(
    { length: n },
    (_, i) => ring(14 + i * 18, y, 4) + (i < n - 1 ? `M${14 + i * 18} ${y - 7}h18M${14 + i * 18} ${y + 7}h18` : ''),
  ).join('')
const GROOVES = 'M8 24h14l10 34h8l10-34h10l10 34h8l10-34h14v46H8z'
const WEDGE = 'M23 22h26l-7 26H30z'
const CLOCK = ring(98, 20, 13) + 'M98 20l6-6M98 33v9'

export const LOOKS: Record<string, Look> = {
  lacing: {
    b: 'M6 28h40v24H6zM74 28h40v24H74z',
    i: 'M40 24l6 4M40 56l6-4M80 24l-6 4M80 56l-6-4',
    e: 'M46 31c10-4 16 4 16 4M46 39c10-4 16 4 16 4M46 47c10-4 16 4 16 4M74 35c-10-4-16 4-16 4M74 43c-10-4-16 4-16 4M60 22v36',
  },
  lap: { b: 'M6 30h54l26 12H6zM114 54H54L28 42h86z', e: 'M96 22h-26M76 16l-8 6 8 6' },
  square: { b: 'M6 26h74v30H6z', i: 'M6 41h80', e: 'M80 14v54M80 68h18M68 41v10h12' },
  clip: {
    b: ring(44, 44, 5) + ring(80, 44, 5),
    i: 'M28 44a16 16 0 0 1 16-16h36a16 16 0 0 1 0 32H44a16 16 0 0 1-16-16z',
    e: 'M36 38h44a6 6 0 0 1 0 12H36M104 20H84M90 14l-8 6 8 6',
  },
  push: {
    w: ring(22, 52, 14) + ring(98, 52, 14),
    b: 'M22 38L60 46L98 38M22 66H98',
    i: 'M22 36H98M48 14h24',
    e: 'M60 10V42M54 34l6 8 6-8',
  },
  guard: {
    w: ring(36, 44, 12) + ring(82, 44, 16),
    i: 'M12 66V22a8 8 0 0 1 8-8h80a8 8 0 0 1 8 8v44z',
    e: 'M18 20h4M98 20h4M18 60h4M98 60h4',
  },
  ear: {
    w: ring(34, 44, 18),
    b: 'M34 26h50M34 62h50',
    e: 'M92 34a14 14 0 0 1 0 20M100 27a24 24 0 0 1 0 34M108 20a34 34 0 0 1 0 48',
  },
  strand: { w: TWO, b: RUN, e: 'M34 18q28 18 54 6M44 8v8M44 8l-3 4M44 8l3 4M78 40v-8M78 40l-3-4M78 40l3-4' },
  nose: { w: TWO, b: RUN, e: 'M44 18q6-6 0-12M58 20q6-6 0-12M72 22q6-6 0-12' },
  floor: { w: TWO, b: RUN, e: 'M26 74h.1M34 71h.1M42 75h.1M52 72h.1M62 75h.1M70 72h.1M80 74h.1M48 70h.1M58 70h.1' },
  oil: { b: links(50, 6), i: 'M52 4h16v14l-6 6h-4l-6-6z', e: 'M60 28c-4 5-4 8 0 8s4-3 0-8' },
  idler: {
    w: ring(26, 48, 16) + ring(98, 50, 12),
    b: 'M26 32q24-4 34 6t36 0M26 64L98 62',
    e: ring(60, 24, 11) + 'M48 12a18 18 0 0 1 24 0',
  },
  dogs: {
    b: links(22, 6),
    w: 'M10 68h100M22 68V40h10l-3-8M58 68V40h10l-3-8M94 68V40h10l-3-8',
    e: 'M29 32l3 8h-10M65 32l3 8',
  },
  bearing: {
    w: ring(60, 42, 26) + ring(60, 42, 10),
    i: 'M28 68h64v6H28z',
    e: ring(60, 24, 4) + ring(76, 34, 4) + ring(76, 50, 4) + ring(60, 60, 4) + ring(44, 50, 4) + ring(44, 34, 4),
  },
  heat: {
    w: ring(36, 46, 20) + ring(36, 46, 8),
    i: 'M112 24l-22 8 6 14 20-8zM98 46l6 16h8l-6-20',
    e: 'M84 36L58 44M70 8q5 6 0 12M82 8q5 6 0 12',
  },
  tach: { w: ring(34, 44, 22) + ring(34, 44, 6), i: 'M74 36h36v18H74zM84 54v14h14V54', e: 'M74 44L42 44M80 42h10' },
  fan: {
    w: ring(60, 42, 28),
    b: 'M60 42q-8-16 4-26M60 42q16-8 26 4M60 42q8 16-4 26M60 42q-16 8-26-4',
    e: 'M96 14l8 8M104 30h10M90 6l2 10',
  },
  belt: { b: 'M6 30q54-22 108 0M6 54q54-22 108 0M6 30v24M114 30v24', e: 'M40 36v9M54 32v9M68 32v9M82 36v9' },
  chunks: { b: 'M6 28h108M6 56h18l4-10h10l4 10h22l4-14h12l4 14h30M6 28v28M114 28v28', e: 'M28 46h10M68 42h12' },
  cords: { b: 'M8 24h80v32H8z', e: 'M88 30q14-8 22-2M88 38q12-2 20 4M88 46q14 4 18 12M88 52q8 8 14 18' },
  set: {
    b: 'M14 30h18l-4 26h-10zM50 24h18l-4 26h-10zM86 30h18l-4 26h-10z',
    i: 'M6 24h108',
    e: 'M59 24v-12M55 16l4-4 4 4',
  },
  ride: { w: 'M8 20h22l13 48h22l13-48h34', b: 'M31 26h46l-9 32H42z', e: 'M84 20v6M92 26H78M92 20v6' },
  bottom: { w: 'M8 18h22l13 48h22l13-48h34', b: 'M35 34h38l-8 31H43z', e: 'M42 66h24' },
  nick: { w: ring(56, 44, 30) + ring(56, 44, 8), e: 'M74 18l3 7 6-1M90 8l-7 8M98 18l-9 2M80 4l-2 8' },
  oneside: { b: 'M40 16h44l-9 46H54z', e: 'M40 16l8 14-1 16 7 16' },
  glaze: { b: 'M36 16h48l-12 46H48z', e: 'M41 24l8 30M46 22l7 26M79 24l-8 30' },
  snapped: { w: TWO, b: 'M28.5 24L52 26M89 30L66 28M28.5 60L89 54', e: 'M52 22l4 5-4 4M66 23l-4 5 5 5' },
  rolled: {
    w: 'M8 20h22l13 48h22l13-48h34',
    b: 'M42 22h24l14 30H30z',
    e: 'M84 60a12 12 0 0 0 10-14M94 46l-5 3M94 46l3 5',
  },
  tooth: { b: teeth(10, 34, 7), e: 'M40 34l-2 8M54 34l2 8M68 34l-2 8' },
  pulleyteeth: {
    w: 'M20 66c0-30 14-50 40-50s40 20 40 50',
    b: 'M30 36l-8-6M38 26l-6-8M50 19l-3-9M62 16V6M74 20l4-9M84 27l7-8M92 38l9-5',
    e: 'M62 16l6-8M74 20l9-6',
  },
  edge: { b: 'M10 26h100v26H10z', e: 'M10 52l6 5 5-5 6 6 6-6 5 5 6-5 5 6 6-6 6 5 5-5 6 6 5-6 6 5 5-5' },
  flange: { w: 'M30 10v60M90 10v60M30 22h60v36H30z', b: 'M36 30h48v20H36z', e: 'M90 10l8-4M90 70l8 4' },
  splice: { b: 'M6 30h46v22H6zM68 30h46v22H68z', e: 'M52 34h16M52 41h16M52 48h16' },
  crown: { w: 'M24 58V28q36-16 72 0v30z', i: 'M14 20h92', e: 'M60 20v0M30 20l-2 5M90 20l2 5' },
  joint: { b: links(40, 6), e: 'M46 58a10 10 0 0 0 10 4M68 22a10 10 0 0 0-8-4' },
  bent: {
    b:
      links(50, 3) +
      ring(66, 40, 4) +
      ring(80, 28, 4) +
      ring(98, 28, 4) +
      'M50 43l14-10M53 57l16-10M66 33l12-12M71 46l12-12M80 21h18M80 35h18',
    e: ring(66, 40, 9),
  },
  chain: {
    b: links(48, 6),
    i: 'M14 22h90M14 18v8M104 18v8M32 22v-3M50 22v-3M68 22v-3M86 22v-3',
    e: 'M14 30v10M104 30v10',
  },
  hook: {
    w: 'M8 70q52-8 104 0',
    b: 'M20 68q2-28 12-40 2 22 10 40M52 66q-2-26 14-40-2 22 6 40',
    e: 'M84 68q-8-30 16-38-8 16 2 38',
  },
  hub: {
    w: ring(60, 42, 32) + ring(60, 42, 16),
    i: ring(60, 42, 8),
    e: 'M57 26h6v8h-6zM44 40l4 4M76 40l-4 4M60 60v-4',
  },
  halves: {
    w: 'M24 10l28 26v12L24 74M96 10L68 36v12l28 26',
    b: 'M44 26h32l-6 14H50z',
    e: 'M54 60h12M54 60l4-3M54 60l4 3M66 60l-4-3M66 60l-4 3',
  },
  bolt: { i: 'M10 56h100v10H10zM22 18h48v38H22zM70 34h14', e: 'M88 44h12v12H88zM28 56v-4h6v4M58 56v-4h6v4' },
  mounts: {
    i: 'M20 14h66v22H20zM8 70h104',
    b: 'M26 36q-5 12 0 24h12q5-12 0-24M66 36q-9 10-6 24h14q7-14 4-24',
    e: 'M86 14l12 8M98 22l-2-6M98 22l-6 0',
  },
  groove: { w: GROOVES, b: WEDGE, e: 'M26 26c4 6 4 12 5 20' },
  line: { w: 'M14 22h10v40H14zM92 26h10v40H92z', i: 'M14 18L104 18', e: 'M92 20v6M98 20v6' },
  dial: {
    w: ring(40, 46, 24) + ring(40, 46, 6),
    i: CLOCK,
    e: 'M86 26L62 36M22 18a32 32 0 0 1 18-8M40 10l-6-2M40 10l-4 5',
  },
  keeper: {
    w: ring(56, 46, 22),
    b: 'M34 76V46a22 22 0 0 1 44 0v30',
    i: 'M20 24l10 8M92 24l-10 8',
    e: 'M84 34l4-4M28 34l-4-4',
  },
  spin: {
    w: ring(60, 42, 26) + ring(60, 42, 6),
    e: 'M30 24a34 34 0 0 1 30-18M60 6l-8-3M60 6l-6 6M90 60a34 34 0 0 1-30 18M60 78l8 3M60 78l6-6',
  },
  lift: { w: ring(50, 40, 18) + ring(50, 40, 6), i: 'M26 64h48M10 72l84-22', e: 'M50 16V4M46 8l4-4 4 4' },
  amps: {
    i: 'M22 12h34v56H22zM28 18h22v14H28zM39 50l6-8',
    b: 'M56 40h14q10 0 10-14V8',
    e: ring(39, 50, 9) + 'M88 58h20M98 48v20',
  },
  size: { w: ring(60, 42, 26) + ring(60, 42, 4), i: 'M34 76h52M34 72v8M86 72v8', e: 'M60 42l22-14' },
  mark: { b: 'M8 26h104v30H8z', e: 'M22 46V36l5 6 5-6v10M40 46V36M48 36h8v5h-8v5h8M64 46h8M80 36v10M88 36h8l-8 10h8' },
  chalk: { w: TWO, b: RUN, e: 'M52 22v12M24 24l6-3M60 22v12' },
  clock: { i: ring(60, 40, 28) + 'M60 20v20l14 8', e: 'M60 12v4M88 40h-4M60 68v-4M32 40h4' },
  clutch: { w: ring(30, 44, 16) + ring(90, 44, 14), b: 'M30 28q30 22 60 2M30 60L90 58', e: 'M60 12v18M56 26l4 5 4-5' },
  blade: { i: ring(60, 42, 7), b: 'M8 38h45v8H8zM67 38h45v8H67z', e: 'M8 46h16M112 38H96' },
  load: { w: ring(28, 50, 14), b: 'M28 36h50M28 64h50', i: 'M78 30h34v38H78z', e: 'M95 26V8M91 14l4-6 4 6' },
  pulse: { b: 'M4 42h16l6-22 10 44 8-30 6 8h14l6-22 10 44 8-30 6 8h22', e: 'M26 20v0M36 64v0' },
  filter: {
    i: 'M24 10h72v60H24zM36 10v60M48 10v60M60 10v60M72 10v60M84 10v60',
    e: 'M4 32h14M13 27l5 5-5 5M4 50h14M13 45l5 5-5 5',
  },
  rotation: { w: ring(60, 42, 26), e: 'M42 42a18 18 0 0 1 34-8M76 34l-8-1M76 34l1-8' },
  strobe: { w: TWO, b: 'M28.5 24q14-10 20 1t20 0 20 5M28.5 60q14 10 20-1t20 0 20-5', e: 'M60 42l-4 6h8l-4 8' },
  drip: { w: TWO, b: RUN, e: 'M44 4c-4 6-4 9 0 9s4-3 0-9M62 2c-4 6-4 9 0 9s4-3 0-9M80 6c-4 6-4 9 0 9s4-3 0-9' },
  sun: {
    w: ring(30, 56, 12) + ring(78, 58, 9),
    b: 'M30 44L78 49M30 68L78 67',
    e: ring(98, 18, 9) + 'M98 2v4M98 30v4M82 18h4M110 18h4M87 7l3 3M106 26l3 3M109 7l-3 3M90 26l-3 3',
  },
  lock: { i: 'M38 36h44v34H38zM46 36V24a14 14 0 0 1 28 0v12', e: 'M60 48v10' },
  walk: { b: 'M6 24h108', i: 'M24 24v16h14V24M82 24v16h14V24M52 24v10l6 8 8-4V24', e: 'M59 42l6 10M69 36l8 6' },
}
