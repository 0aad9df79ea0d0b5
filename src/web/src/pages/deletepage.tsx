import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ask, type Page } from '../kit/api'
import { useChanges } from '../kit/changes'
import { Dialog } from '../kit/dialog'
import { counted } from '../kit/numbers'
import { queryKey } from '../kit/queries'

/** Asks what happens to the pages inside a page that is deleted, and to the links that lead to it. */
export function DeletePage({ page, inside, close }: { page: Page; inside: number; close: () => void }) {
  const { run } = useChanges()
  const [children, setChildren] = useState(false)
  const [links, setLinks] = useState(true)
  const about = useQuery({
    queryKey: queryKey('pages', 'deletion', page.id),
    queryFn: () => ask(api.GET('/api/pages/{id}/deletion', { params: { path: { id: page.id } } })),
    staleTime: 0,
  }).data
  const remove = () => {
    close()
    run(() => ask(api.POST('/api/pages/{id}/delete', { params: { path: { id: page.id } }, body: { children, links } })))
  }
  return (
    <Dialog name="Delete page" close={close} width={480}>
      <h2 className="text-[20px] font-bold mb-2">Delete “{page.name}”</h2>
      {inside > 0 && (
        <fieldset className="mb-3 text-[14px]">
          <legend className="font-semibold mb-1">{counted(inside, 'page')} inside it</legend>
          <label className="flex gap-2 items-center">
            <input type="radio" name="children" className="radio radio-xs" checked={!children} onChange={() => setChildren(false)} /> Move
            up one level
          </label>
          <label className="flex gap-2 items-center">
            <input type="radio" name="children" className="radio radio-xs" checked={children} onChange={() => setChildren(true)} /> Delete
            too
          </label>
        </fieldset>
      )}
      {about && about.linkedFrom.length > 0 && (
        <fieldset className="mb-3 text-[14px]">
          <legend className="font-semibold mb-1">
            {counted(about.linkedFrom.length, 'page')} {about.linkedFrom.length === 1 ? 'links' : 'link'} to it:{' '}
            <span className="font-normal">{about.linkedFrom.slice(0, 4).join(', ')}</span>
          </legend>
          <label className="flex gap-2 items-center">
            <input type="radio" name="links" className="radio radio-xs" checked={links} onChange={() => setLinks(true)} /> Remove the links,
            leave their words
          </label>
          <label className="flex gap-2 items-center">
            <input type="radio" name="links" className="radio radio-xs" checked={!links} onChange={() => setLinks(false)} /> Leave them as
            findings to fix
          </label>
        </fieldset>
      )}
      <p className="quiet text-[13.5px] mb-3">Undo restores everything.</p>
      <button type="button" className="btn btn-sm btn-primary" onClick={remove}>
        Delete
      </button>
    </Dialog>
  )
}
