import { Link } from 'react-router'
import type { Copy, PickWeight } from '../kit/api'
import type { DraftView } from '../kit/drafts/draft'
import { HelpLink } from '../kit/helplink'
import type { Desk } from '../kit/shop'
import { Thread } from '../kit/thread'
import { SaveState } from './fieldpart'

/** Above the text: the lead and its thread, whether the text is saved, and what can be done with the whole listing. */
export function SheetHead(p: {
  desk: Desk
  lead: PickWeight | undefined
  saving: DraftView<Copy>
  again: () => void
  copyAll: () => void
  publish: () => void
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13.5px] mb-2">
      {p.lead ? (
        <span className="inline-flex items-center gap-2">
          Lead <b className="font-semibold">{p.lead.text}</b> <Thread grade={p.lead.grade} />
          <HelpLink to="lead" about="the lead" />
        </span>
      ) : (
        <Link className="link" to={`${p.desk.base}/pick`}>
          Set a lead
        </Link>
      )}
      <SaveState saving={p.saving} again={p.again} />
      <button type="button" className="link" onClick={p.copyAll}>
        Copy all
      </button>
      <button type="button" className="link" onClick={p.publish}>
        Publish or export
      </button>
    </div>
  )
}
