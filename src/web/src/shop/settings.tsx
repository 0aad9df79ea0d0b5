import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type Backup } from '../kit/api'
import { forgetDrafts } from '../kit/drafts'
import { ToastLine, toast, toastAgain } from '../kit/toast'
import { ShopHead } from './frame'

const kinds: Record<Backup['kind'], string> = {
  daily: 'Daily',
  manual: 'By you',
  restore: 'Before a restore',
  update: 'Before an update',
}

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const size = new Intl.NumberFormat(undefined, { style: 'unit', unit: 'megabyte', maximumFractionDigits: 1 })

/** What is about the shop as a whole: its backups. */
export function Settings() {
  return (
    <div className="frame" style={{ gridTemplateRows: '56px minmax(0,1fr)' }}>
      <ShopHead name="Settings" />
      <main className="overflow-auto">
        <div className="max-w-3xl mx-auto p-6">
          <Backups />
        </div>
      </main>
      <ToastLine />
    </div>
  )
}

function Backups() {
  const cache = useQueryClient()
  const list = useQuery({ queryKey: ['backups'], queryFn: () => ask(api.GET('/api/backups')) })
  const [asked, setAsked] = useState<string | null>(null)
  const [busy, setBusy] = useState('')
  const backUp = async () => {
    setBusy('Backing up…')
    try {
      const made = await ask(api.POST('/api/backups'))
      toast(`Backed up and verified, ${size.format(made.bytes / 1e6)}`)
    } catch (e) {
      toastAgain(`Not backed up: ${(e as Error).message}`, backUp)
    }
    setBusy('')
    cache.invalidateQueries({ queryKey: ['backups'] })
  }
  const restore = async (name: string) => {
    setAsked(null)
    setBusy('Restoring…')
    try {
      await ask(api.POST('/api/backups/restore', { body: { name } }))
      // Everything in this window is of the shop as it was.
      await forgetDrafts()
      localStorage.removeItem('last')
      window.location.assign('/')
    } catch (e) {
      toastAgain(`Not restored: ${(e as Error).message}`, () => restore(name))
      setBusy('')
    }
  }
  return (
    <section data-testid="backups">
      <h1 className="text-[24px] font-bold mb-1">Backups</h1>
      <p className="quiet text-[14px] mb-3">
        The whole shop is backed up once a day, and each backup is verified. The last {list.data?.kept ?? 14} of each kind are kept in{' '}
        <span className="num text-[13px]">{list.data?.folder}</span>.
      </p>
      <p className="flex items-center gap-3 mb-4">
        <button type="button" className="btn btn-primary btn-sm" disabled={busy !== ''} onClick={backUp}>
          Back up now
        </button>
        <span className="quiet text-[14px]" role="status">
          {busy}
        </span>
      </p>
      {list.isError && <p className="text-accent">The backups could not be listed: {list.error.message}</p>}
      {list.data?.backups.length === 0 && (
        <p className="quiet">No backups yet. The first is made a moment after the start, or when you press the button.</p>
      )}
      {list.data && list.data.backups.length > 0 && (
        <table className="plain w-full text-[14px]">
          <thead>
            <tr>
              <th>When</th>
              <th>Made</th>
              <th className="!text-right w-24">Size</th>
              <th className="w-[26rem]" />
            </tr>
          </thead>
          <tbody>
            {list.data.backups.map((b) => (
              <tr key={b.name}>
                <td>{when.format(new Date(b.at))}</td>
                <td>{kinds[b.kind]}</td>
                <td className="!text-right num">{size.format(b.bytes / 1e6)}</td>
                <td className="!text-right">
                  {asked === b.name ? (
                    <span className="inline-flex gap-2 items-center">
                      <span className="text-[13px]">The shop as it is now is backed up first.</span>
                      <button type="button" autoFocus className="btn btn-xs btn-primary" onClick={() => restore(b.name)}>
                        Restore
                      </button>
                      <button type="button" className="btn btn-xs" onClick={() => setAsked(null)}>
                        Cancel
                      </button>
                    </span>
                  ) : (
                    <button type="button" className="link" disabled={busy !== ''} onClick={() => setAsked(b.name)}>
                      Restore…
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}
