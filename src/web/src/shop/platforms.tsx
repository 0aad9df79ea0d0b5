import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useRef, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type PlatformView, type Profile } from '../kit/api'
import { useChanges } from '../kit/changes'
import { NameDialog } from '../kit/dialog'
import { hasUnsavedProfile } from '../kit/drafts/drafts'
import { messages } from '../kit/messages'
import { counted } from '../kit/numbers'
import { queryKey, refresh } from '../kit/queries'
import { ShopHead } from '../kit/shophead'
import { ToastLine, toast } from '../kit/toast'
import { addPlatform, begunFrom } from './newplatform'
import { ProfileSheet } from './profile'

/** Every platform; one of them open to be edited, with what a change would do to the listings. */
export function Platforms() {
  const [params, set] = useAddress()
  const list = useQuery({ queryKey: queryKey('platforms'), queryFn: async () => (await api.GET('/api/platforms')).data })
  const cache = useQueryClient()
  const file = useRef<HTMLInputElement>(null)
  const [naming, setNaming] = useState(false)
  const [categories, setCategories] = useState(false)
  const { run } = useChanges()
  const [round, setRound] = useState(0)
  const open = list.data?.platforms.find((p) => p.id === params.get('id')) ?? list.data?.platforms[0]
  const reload = async (id?: string) => {
    await refresh(cache, 'platforms')
    if (id) set({ id })
  }
  const add = async (profile: Profile, like: string | null, said: string) => {
    try {
      await addPlatform(profile, like)
      await reload(profile.id)
      toast(said)
    } catch (e) {
      toast(messages.notAdded((e as Error).message))
    }
  }
  const importFrom = async (chosen: File) => {
    let profile: Profile
    try {
      profile = JSON.parse(await chosen.text()) as Profile
    } catch (e) {
      return toast(messages.notJson(chosen.name, (e as Error).message))
    }
    await add(profile, open?.id ?? null, messages.imported(profile.name))
  }
  const remove = (p: PlatformView) =>
    run(
      () => ask(api.DELETE('/api/platforms/{id}', { params: { path: { id: p.id } } })),
      () => set({ id: null }),
    )
  return (
    <div className="frame of-shop">
      <ShopHead name="Platforms" />
      <main className="work" style={{ gridTemplateColumns: '250px minmax(0,1fr)' }}>
        <aside className="side !border-l-0" style={{ borderRight: '1px solid var(--tin-2)' }}>
          <h3 className="!mt-0">Platforms</h3>
          <p className="quiet text-[13px] mb-2">
            A platform is a set of rules: its fields, their limits, and what its search treats as equal. Duplicate the one most like yours
            and enter your own.
          </p>
          <nav aria-label="Platforms">
            {list.data?.platforms.map((p) => (
              <button
                type="button"
                key={p.id}
                className={`take w-full text-left cursor-pointer block ${p.id === open?.id ? 'cursor' : ''}`}
                aria-current={p.id === open?.id ? 'true' : undefined}
                onClick={() => set({ id: p.id })}
              >
                <b>{p.name}</b>
                <span className="quiet text-[12.5px] block">
                  {p.shipped ? 'Built-in' : 'Yours'}, {counted(p.listings, 'listing')}
                  {p.id !== open?.id && hasUnsavedProfile(p.id) && <span className="text-accent">, not saved</span>}
                </span>
              </button>
            ))}
          </nav>
          <p className="flex flex-col gap-2 mt-3 items-start">
            {open && (
              <>
                <button type="button" className="btn btn-sm btn-primary" onClick={() => setNaming(true)}>
                  Duplicate {open.name}…
                </button>
                <label className="flex gap-2 items-center text-[13px] cursor-pointer">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-sm"
                    checked={categories}
                    onChange={(e) => setCategories(e.target.checked)}
                  />
                  Include its categories
                </label>
                {!open.shipped && (
                  <button type="button" className="btn btn-sm" onClick={() => remove(open)}>
                    Delete {open.name}
                  </button>
                )}
              </>
            )}
            <button type="button" className="btn btn-sm" onClick={() => file.current?.click()}>
              Import JSON…
            </button>
            <a className="link text-[13px]" href="/schemas/platform.json">
              The format (JSON Schema)
            </a>
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              className="hidden"
              aria-label="Platform as JSON"
              onChange={(e) => {
                const chosen = e.target.files?.[0]
                e.target.value = ''
                if (chosen) importFrom(chosen)
              }}
            />
          </p>
        </aside>
        {open && list.data && (
          <ProfileSheet key={`${open.id} ${round}`} view={open} usual={list.data.thresholds} again={() => setRound((r) => r + 1)} />
        )}
      </main>
      <ToastLine />
      {naming && open && (
        <NameDialog
          title={`Duplicate ${open.name}`}
          label="Name of your platform"
          value={`${open.name} (copy)`}
          action="Duplicate"
          done={(name) => add(begunFrom(open, name, categories), open.id, `${name} added. Enter its own limits.`)}
          close={() => setNaming(false)}
        />
      )}
    </div>
  )
}
