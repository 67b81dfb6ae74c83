/** A field that two people typed differently: where it is, what each typed, and whether this page changed it since it was opened. */
export interface Clash {
  path: string
  label: string
  mine: string
  theirs: string
  changedHere: boolean
}

type Leaves = Map<string, { text: string; value: unknown }>

/**
 * Every field of a record by its dotted path: an entry, a word, or a list. A list as long as `beside`, the other's at the
 * same place, goes on field by field; another length makes it one thing.
 */
function leaves(value: unknown, beside: unknown, path = '', found: Leaves = new Map()): Leaves {
  const inside = (key: string, inner: unknown) =>
    leaves(inner, (beside as Record<string, unknown> | undefined)?.[key], path ? `${path}.${key}` : key, found)
  if (Array.isArray(value) && Array.isArray(beside) && value.length === beside.length)
    value.forEach((inner, index) => inside(String(index), inner))
  else if (Array.isArray(value)) found.set(path, { text: listText(value), value })
  else if (value && typeof value === 'object') {
    const entry = value as { text?: string; unit?: string }
    if (typeof entry.text === 'string') {
      found.set(path, { text: entry.text.trim() ? `${entry.text} ${entry.unit ?? ''}`.trim() : '–', value })
    } else for (const [key, inner] of Object.entries(value)) inside(key, inner)
  } else found.set(path, { text: value === null || value === undefined || value === '' ? '–' : String(value), value })
  return found
}

function listText(list: unknown[]): string {
  const names = list.map((item) => (item as { name?: string } | null)?.name).filter(Boolean)
  return list.length ? `${list.length}${names.length ? `: ${names.join(', ')}` : ''}` : '–'
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

/** The fields in which mine and theirs differ; `was`: what mine began from. */
export function clashes(mine: object, theirs: object, was: object): Clash[] {
  const [here, there, before] = [leaves(mine, theirs), leaves(theirs, mine), leaves(was, mine)]
  return [...new Set([...here.keys(), ...there.keys()])]
    .filter((path) => !same(here.get(path), there.get(path)))
    .map((path) => ({
      path,
      label: path
        .replace(/^stages\.0\./, '')
        .replace(/^stages\./, 'belt.')
        .split('.')
        .filter(
          (part) => !['quantities', 'choices', 'layout', 'size', 'words', 'driver', 'machine', 'fitted'].includes(part),
        )
        .map((part) => (/^\d+$/.test(part) ? String(Number(part) + 1) : part))
        .join(', ')
        .replaceAll('_', ' '),
      mine: here.get(path)?.text ?? '–',
      theirs: there.get(path)?.text ?? '–',
      changedHere: !same(here.get(path), before.get(path)),
    }))
}

/** Theirs, with only the chosen fields put back to mine. */
export function merged<T extends object>(mine: T, theirs: T, chosen: ReadonlySet<string>): T {
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
  return result as T
}
