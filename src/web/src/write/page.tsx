import { useCallback, useRef, useState } from 'react'
import { useAddress } from '../kit/address'
import { api, ask, type Listing, type Value } from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import { copyText } from '../kit/copy'
import { listingDraft, useDraftView } from '../kit/drafts/drafts'
import { useSteps } from '../kit/drafts/steps'
import { Key } from '../kit/key'
import { messages } from '../kit/messages'
import { OpenListing } from '../kit/openlisting'
import type { Desk } from '../kit/shop'
import { useShortcuts } from '../kit/shortcuts'
import { toast } from '../kit/toast'
import { canFill, FieldPart } from './fieldpart'
import { PicturesKey } from './findings'
import { PagePreview } from './pagepreview'
import { Pictures, PicturesState, usePictures } from './pictures'
import { ResultPreview } from './resultpreview'
import { SheetHead } from './sheethead'
import { panelKeys, SidePanel } from './sidepanel'
import { allText, oneText } from './texts'
import { Tile } from './tile'
import { useCheck } from './usecheck'
import { useDraftWeighing } from './usedraftweighing'
import { focusedField, useFindings } from './usefindings'
import { usePageFigures } from './usepagefigures'
import { useTitle } from './usetitle'

const none: never[] = []

/** A listing's text, with what it holds of the picks under each field, and its panels beside it. */
export function Write({ desk }: { desk: Desk }) {
  return <OpenListing desk={desk}>{(listing) => <Sheet key={listing.id} desk={desk} listing={listing} />}</OpenListing>
}

function Sheet({ desk, listing }: { desk: Desk; listing: Listing }) {
  const [params, set] = useAddress()
  const [draft] = useState(() => listingDraft(listing.id, listing.copy, listing.revision))
  const saving = useDraftView(draft)
  const copy = saving.value
  const pictures = usePictures(desk)
  const title = listing.fields.find((f) => f.role === 'title')

  const { weighing, began, pieces, picksSeen, ...weighed } = useDraftWeighing(desk, draft, pictures.view.revision)
  const checked = useCheck(desk, draft, pictures.draft, { copy, pictures: pictures.view.revision, picks: picksSeen })
  const steps = useSteps(draft, { screen: 'write', product: desk.product.id, listing: desk.listingId, page: listing.page?.id })
  const titles = useTitle(listing.id, draft, title, steps.replaceField)
  const findings = useFindings(desk, draft, pictures.draft, checked, steps.replaceField)
  const { actions } = findings

  const figures = usePageFigures(desk, listing.page !== null, copy, `${pictures.view.revision} ${picksSeen} ${listing.page?.hasSuffix}`)
  const derived: Record<string, string | undefined> = { title: figures?.derivedTitle, meta: figures?.derivedDescription }
  const pixels: Record<string, number | undefined> = { title: figures?.title.pixels, meta: figures?.description.pixels }
  const writeOut = (key: string) => {
    const text = derived[listing.fields.find((f) => f.key === key)?.role ?? '']
    if (text) steps.replaceField(key, text, messages.derivedUsed, 'derivedText')
  }
  const insert = async (word: string, head: string) => {
    try {
      const { label, field, value } = await ask(
        api.POST('/api/listings/{id}/page/modifier', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: draft.snapshot().value, word, head },
        }),
      )
      steps.replaceField(field, value as Value, label, 'word')
    } catch (e) {
      toast((e as Error).message)
    }
  }
  const change = useCallback((key: string, value: Value) => draft.change({ ...draft.snapshot().value, [key]: value }), [draft])
  const pointed = params.get('at') ?? undefined
  const point = useCallback((key: string | null) => set({ at: key }), [set])
  const side = params.get('side') ?? 'picks'
  const filled = side === 'fill' ? listing.fields.find((f) => f.key === params.get('field')) : undefined
  const show = useCallback(
    (next: string | null, field: string | null = null) => set({ side: next === 'picks' ? null : next, field }),
    [set],
  )
  const panel = useRef<HTMLElement>(null)
  // The focus goes to the panel that a key opens.
  const openPanel = (key: string) => {
    show(key)
    setTimeout(() => panel.current?.querySelector<HTMLElement>('.side-part, [role=row][tabindex="0"]')?.focus())
  }
  // Sending, exporting and saving a version use the saved text: it must be what is on the screen.
  const settle = useCallback(async () => {
    await draft.flush()
    if (draft.unsaved) throw new Error(messages.textNotSaved)
  }, [draft])
  const copyAll = () => copyText('Listing', allText(listing.fields, draft.snapshot().value))
  const takeTheirs = () => {
    const mine = draft.snapshot().value
    draft.takeTheirs()
    toast(messages.otherText, () => draft.change(mine, 'undo'))
  }
  const [within, setWithin] = useState<string>()
  const [previewing, setPreviewing] = useState(false)
  const closePreview = useCallback(() => setPreviewing(false), [])
  const fieldOfFocus = () => listing.fields.find((f) => f.key === focusedField())
  useShortcuts({
    previewPage: listing.page ? () => setPreviewing(true) : false,
    undo: steps.undo,
    redo: steps.redo,
    copyField: () => {
      const field = fieldOfFocus()
      field ? copyText(field.label, oneText(field, copy[field.key])) : copyAll()
    },
    fill: () => {
      const field = fieldOfFocus() ?? title
      if (field && canFill(field)) show('fill', field.key)
    },
    ...findings.keys(() => show('findings')),
    ...panelKeys(openPanel),
  })
  const category = copy[listing.fields.find((f) => f.shape === 'path')?.key ?? '']
  const problem = weighed.problem || checked.problem

  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 408px' }}>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the boxes in it have the focus */}
      <section
        className="sheet"
        data-testid="sheet"
        onKeyDown={(e) => steps.undoInBox(e, focusedField())}
        onFocus={() => setWithin((before) => focusedField() ?? before)}
      >
        <SheetHead
          desk={desk}
          lead={weighing?.terms.find((t) => t.key === listing.leadKey)}
          saving={saving}
          again={() => draft.flush()}
          copyAll={copyAll}
          publish={() => show('send')}
        />
        {problem && <p className="text-accent mb-2">Couldn’t work out reach and grip: {problem} Your text is not affected.</p>}
        {saving.theirs && (
          <ConflictBox
            what="This listing"
            savedAt={saving.theirs.savedAt}
            rows={listing.fields.map((f) => ({
              label: f.label,
              mine: oneText(f, copy[f.key]),
              theirs: oneText(f, saving.theirs?.value[f.key]),
            }))}
            keepMine={() => draft.keepMine()}
            takeTheirs={takeTheirs}
          />
        )}
        {listing.fields
          .filter((f) => f.role !== 'alt' && (f.role !== 'productTags' || listing.page?.kind === 'product'))
          .map((field) => (
            <FieldPart
              key={field.key}
              field={field}
              platform={listing.platformName}
              isPage={listing.page !== null}
              value={copy[field.key]}
              weighedValue={weighed.weighedCopy?.[field.key]}
              change={change}
              pieces={pieces.get(field.key) ?? none}
              pointed={pointed}
              findings={checked.byField.get(field.key) ?? none}
              actions={actions}
              fill={canFill(field) ? show : undefined}
              fields={field.shape === 'path' ? listing.fields : undefined}
              category={field.shape === 'choices' ? category : undefined}
              placeholder={derived[field.role]}
              pixels={pixels[field.role]}
              suffix={
                field.role === 'title' ? (listing.page?.hasSuffix && listing.page.suffix ? listing.page.suffix : undefined) : undefined
              }
              writeOut={derived[field.role] ? writeOut : undefined}
            />
          ))}
        <PicturesState pictures={pictures} />
        <Pictures
          draft={pictures.draft}
          texts={pictures.view.value}
          locked={desk.product.lockedPictures}
          findings={checked.byField.get(PicturesKey) ?? none}
          actions={actions}
        />
        <h2 className="text-[14px] font-semibold mb-1 flex gap-3 items-baseline">
          Search result preview
          {listing.page && (
            <button type="button" className="link ml-auto font-sans font-medium text-[13px]" onClick={() => setPreviewing(true)}>
              The page as a visitor sees it <Key of="previewPage" />
            </button>
          )}
        </h2>
        {previewing && listing.page && (
          <PagePreview page={listing.page.id} settle={() => Promise.all([settle(), pictures.draft.flush()])} close={closePreview} />
        )}
        {listing.page ? (
          <ResultPreview figures={figures} brand={listing.page.brand} />
        ) : (
          <Tile picture={pictures.view.value[0]} fields={listing.fields} copy={copy} platform={listing.platformName} />
        )}
      </section>
      <SidePanel
        box={panel}
        desk={desk}
        listing={listing}
        draft={draft}
        title={title}
        titles={titles}
        steps={steps}
        weighing={weighing}
        weighedCopy={weighed.weighedCopy}
        began={began}
        checked={checked.checked}
        open={checked.open}
        actions={actions}
        round={checked.round}
        side={side}
        filled={filled}
        here={listing.fields.find((f) => f.key === within)}
        show={show}
        pointed={pointed}
        point={point}
        settle={settle}
        copyAll={copyAll}
        figures={figures}
        insert={insert}
      />
    </main>
  )
}
