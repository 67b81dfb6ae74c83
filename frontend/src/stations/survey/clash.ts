import type { Survey } from '../../sheet/form'

/** A field that two people typed differently: where it is, what each typed, and whether this page changed it since it was opened. */
export interface Clash {
  path: string
  label: string
  mine: string
  theirs: string
  changedHere: boolean
}

type Leaves = Map<string, { text: string; value: unknown }>

/** Every field of a survey by its dotted path: an entry, a word, or a list as a whole. */
function leaves(value: unknown, path = '', found: Leaves = new Map()): Leaves {
  if (Array.isArray(value)) found.set(path, { text: value.length ? `${value.length} in the list` : '–', value })
  else if (value && typeof value === 'object') {
    const entry = value as { text?: string; unit?: string }
    if (typeof entry.text === 'string') {
      found.set(path, { text: entry.text.trim() ? `${entry.text} ${entry.unit ?? ''}`.trim() : '–', value })
    } else for (const [key, inner] of Object.entries(value)) leaves(inner, path ? `${path}.${key}` : key, found)
  } else found.set(path, { text: value === null || value === undefined || value === '' ? '–' : String(value), value })
  return found
}

function same(
  a: { text: string; value: unknown } | undefined,
  b: { text: string; value: unknown } | undefined,
): boolean {
  const lists = Array.isArray(a?.value) || Array.isArray(b?.value)
  return lists
    ? JSON.stringify(a?.value ?? []) === JSON.stringify(b?.value ?? [])
    : (a?.text ?? '–') === (b?.text ?? '–')
}

/** The fields in which my survey and theirs differ; `was`: the survey that mine began from. */
export function clashes(mine: Survey, theirs: Survey, was: Survey): Clash[] {
  const [here, there, before] = [leaves(mine), leaves(theirs), leaves(was)]
  return [...new Set([...here.keys(), ...there.keys()])]
    .filter((path) => !same(here.get(path), there.get(path)))
    .map((path) => ({
      path,
      label: path
        .split('.')
        .filter((part) => !['quantities', 'choices'].includes(part))
        .join(', ')
        .replaceAll('_', ' '),
      mine: here.get(path)?.text ?? '–',
      theirs: there.get(path)?.text ?? '–',
      changedHere: !same(here.get(path), before.get(path)),
    }))
}

/** Theirs, with only the chosen fields put back to mine. */
export function merged(mine: Survey, theirs: Survey, chosen: ReadonlySet<string>): Survey {
  const result = JSON.parse(JSON.stringify(theirs)) as Record<string, unknown>
  for (const path of chosen) {
    const parts = path.split('.')
    const last = parts.pop()!
    let from: unknown = mine
    let into = result
    for (const part of parts) {
      from = (from as Record<string, unknown> | undefined)?.[part]
      into = (into[part] ??= {}) as Record<string, unknown>
    }
    into[last] = (from as Record<string, unknown> | undefined)?.[last]
  }
  return result as Survey
}
