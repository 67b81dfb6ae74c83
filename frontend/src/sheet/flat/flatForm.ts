import type { Entry, SheetForm } from '../../api/client'

type Kept = NonNullable<SheetForm['survey']['flat']>
/** A flat-belt drive as typed, with every field there. */
export type FlatForm = Required<Kept>

const KEYS = [
  'flat_width',
  'flat_thickness',
  'driver_diameter',
  'driven_diameter',
  'driver_face',
  'driven_face',
  'driver_crown',
  'driven_crown',
  'centre_distance',
  'driver_speed',
]

export function completedFlat(kept?: Kept): FlatForm {
  const entry = (): Entry => ({ text: '', unit: '', origin: null })
  return {
    quantities: { ...Object.fromEntries(KEYS.map((key) => [key, entry()])), ...kept?.quantities },
    belt: kept?.belt ?? '',
    lay: kept?.lay ?? 'open',
    rotation: kept?.rotation ?? 'clockwise',
    driver_surface: kept?.driver_surface ?? '',
    driven_surface: kept?.driven_surface ?? '',
  }
}
