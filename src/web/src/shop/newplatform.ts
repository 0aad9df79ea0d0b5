import { api, messageOf, type PlatformView, type Profile } from '../kit/api'
import { type FieldRule, idOf } from './profilerules'

/** What a field is for; with the shape, the weight and whether early words count more that suit it. */
export const roles: Record<string, { name: string } & Pick<FieldRule, 'shape' | 'weight' | 'front'>> = {
  title: { name: 'title', shape: 'line', weight: 0.8, front: true },
  tags: { name: 'tags', shape: 'phrases', weight: 0.6 },
  bullets: { name: 'bullets', shape: 'lines', weight: 0.5 },
  backend: { name: 'backend', shape: 'words', weight: 0.4 },
  body: { name: 'description', shape: 'text', weight: 0.3 },
  brand: { name: 'brand', shape: 'line', weight: 0.4 },
  materials: { name: 'materials', shape: 'phrases', weight: 0.3 },
  '': { name: 'other', shape: 'line', weight: 0.3 },
}

/** A new field of a role: searched, with the weight that suits it. */
export const newField = (label: string, role: string): FieldRule => {
  const { shape, weight, front } = roles[role] ?? roles['']
  return { key: idOf(label), label, role, shape, indexed: true, weight, ...(front && { front }) }
}

/** A platform of the seller's own, begun from another: its categories come along only when they are asked for. */
export function begunFrom(like: PlatformView, name: string, categories: boolean): Profile {
  const profile = like.profile as unknown as Profile
  const fields = profile.fields.map((f) =>
    categories
      ? f
      : {
          ...f,
          ...(f.tree && { tree: [] }),
          ...(f.attributes && { attributes: f.attributes.filter((a) => !a.category) }),
        },
  )
  return { ...profile, id: idOf(name), name, about: `Started from ${like.name}.`, fields }
}

/** Adds a platform; throws an error that says why where it cannot. */
export async function addPlatform(profile: Profile, like: string | null): Promise<PlatformView> {
  const { data, error, response } = await api.POST('/api/platforms', { body: { profile: profile, like } })
  if (!data) {
    throw new Error(messageOf(error, response.status))
  }
  return data
}
