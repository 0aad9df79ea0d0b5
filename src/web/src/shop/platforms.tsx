import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, type PlatformView } from '../kit/api'
import { counted } from '../kit/numbers'
import { ToastLine, toast } from '../kit/toast'
import { NameBox } from '../kit/walked'
import { ShopHead } from './frame'
import { draftOf, idOf, type Profile, ProfileSheet } from './profile'

/** Every platform; one of them open to be changed, and what a change would do to the listings. */
export function Platforms() {
  const [params, set] = useAddress()
  const list = useQuery({ queryKey: ['platforms'], queryFn: async () => (await api.GET('/api/platforms')).data })
  const cache = useQueryClient()
  const file = useRef<HTMLInputElement>(null)
  const [naming, setNaming] = useState(false)
  const [round, setRound] = useState(0)
  const open = list.data?.platforms.find((p) => p.id === params.get('id')) ?? list.data?.platforms[0]
  const reload = async (id?: string) => {
    await Promise.all([cache.invalidateQueries({ queryKey: ['platforms'] }), cache.invalidateQueries({ queryKey: ['shop'] })])
    if (id) set({ id })
  }
  const add = async (profile: Profile, like: string | null, said: string) => {
    const { error, response } = await api.POST('/api/platforms', { body: { profile: profile as never, like } })
    if (!response.ok) return toast((error as { detail?: string })?.detail ?? 'It could not be added')
    await reload(profile.id)
    toast(said)
  }
  const copyOf = (p: PlatformView, name: string | null) => {
    setNaming(false)
    if (name)
      add(
        { ...(p.profile as unknown as Profile), id: idOf(name), name, about: `Begun from ${p.name}.` },
        p.id,
        `${name} begun from ${p.name}: type in its own limits`,
      )
  }
  const bring = async (chosen: File) => {
    try {
      const profile = JSON.parse(await chosen.text()) as Profile
      await add(profile, open?.id ?? null, `${profile.name} brought in`)
    } catch (e) {
      toast(`${chosen.name} is not JSON: ${(e as Error).message}`)
    }
  }
  return (
    <div className="frame" style={{ gridTemplateRows: '56px minmax(0,1fr)' }}>
      <ShopHead name="Platforms" />
      <main className="work" style={{ gridTemplateColumns: '250px minmax(0,1fr)' }}>
        <aside className="side !border-l-0" style={{ borderRight: '1px solid var(--tin-2)' }}>
          <h3 className="!mt-0">Platforms</h3>
          <p className="quiet text-[13px] mb-2">
            Each is a set of rules: its fields, their limits, how its search compares words. Copy the nearest and type in your own.
          </p>
          <nav aria-label="Platforms">
            {list.data?.platforms.map((p) => (
              <button
                type="button"
                key={p.id}
                className={`take w-full text-left cursor-pointer block ${p.id === open?.id ? 'cursor' : ''}`}
                onClick={() => set({ id: p.id })}
              >
                <b>{p.name}</b>
                <span className="quiet text-[12.5px] block">
                  {p.shipped ? 'came with the program' : 'yours'}, {counted(p.listings, 'listing')}
                  {p.id !== open?.id && draftOf(p.id) && <span className="text-accent">, changes not saved</span>}
                </span>
              </button>
            ))}
          </nav>
          <p className="flex flex-col gap-2 mt-3 items-start">
            {open &&
              (naming ? (
                <NameBox label="Name of your platform" value={`${open.name}, mine`} done={(name) => copyOf(open, name)} />
              ) : (
                <button type="button" className="btn btn-sm btn-primary" onClick={() => setNaming(true)}>
                  Copy {open.name}…
                </button>
              ))}
            <button type="button" className="btn btn-sm" onClick={() => file.current?.click()}>
              Bring one in (JSON)…
            </button>
            <a className="link text-[13px]" href="/schemas/platform.json">
              The format, as JSON Schema
            </a>
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              className="hidden"
              aria-label="A profile as JSON"
              onChange={(e) => {
                const chosen = e.target.files?.[0]
                e.target.value = ''
                if (chosen) bring(chosen)
              }}
            />
          </p>
        </aside>
        {open && list.data && (
          <ProfileSheet
            key={`${open.id} ${round}`}
            view={open}
            usual={list.data.thresholds}
            saved={() => reload()}
            again={() => setRound((r) => r + 1)}
          />
        )}
      </main>
      <ToastLine />
    </div>
  )
}
