import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Copy, type Facts, type Finding, type Listing, opened, type Value, type Weighed, type Weighing } from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import { listingDraft, restoreDrafts } from '../kit/drafts'
import { HelpLink } from '../kit/helplink'
import { messages } from '../kit/messages'
import { factLines } from '../kit/names'
import { type Desk, draftKey, usePickActions, usePicks, weigh as weighDraft, weighKey } from '../kit/shop'
import { keysOf, type ShortcutId, useShortcuts } from '../kit/shortcuts'
import { Thread } from '../kit/thread'
import { toast } from '../kit/toast'
import { canFill, copyText, FieldPart, SaveState } from './fieldpart'
import { Figures, Held } from './figures'
import { FillPanel, keepTakeOf } from './fill'
import { AllFindings, type FindingActions, onceEach, PicturesKey } from './findings'
import { Pictures, PicturesState, usePictures } from './pictures'
import { Reading } from './reading'
import { type Pieces, piecesOf } from './segments'
import { SendOut } from './sendout'
import { Takes } from './takes'
import { allText, oneText } from './texts'
import { Tile } from './tile'
import { Versions } from './versions'

/** The panels beside the text; the address remembers which is open. */
const none: never[] = []
const sides: [string, string, string, ShortcutId][] = [
  ['picks', 'Picks', 'Your picks and the words they lack', 'picksPanel'],
  ['findings', 'Findings', 'What to fix', 'findingsPanel'],
  ['takes', 'Takes', 'Versions of the title with their scores', 'takesPanel'],
  ['read', 'Read', 'Known terms in the title, and better orders', 'readPanel'],
  ['versions', 'Versions', 'Earlier states of the listing', 'versionsPanel'],
  ['send', 'Publish', 'Publish or export', 'sendPanel'],
]

export function Write({ desk }: { desk: Desk }) {
  const listing = useQuery({
    queryKey: ['listing', desk.listingId],
    queryFn: async () => {
      await restoreDrafts()
      return ask(api.GET('/api/listings/{id}', { params: { path: { id: desk.listingId } } }))
    },
    refetchOnMount: 'always',
  })
  if (listing.isError && !listing.data)
    return (
      <main className="p-10" role="alert">
        <p className="mb-3">Couldn’t open the listing: {listing.error.message} Your text is kept.</p>
        <button type="button" className="btn btn-sm" onClick={() => listing.refetch()}>
          Try again
        </button>
      </main>
    )
  // While the server can't be reached, one continues with what was opened before.
  if (!listing.data || !(listing.isFetchedAfterMount || listing.isError)) return <main />
  return <Sheet key={listing.data.id} desk={desk} listing={listing.data} />
}

function Sheet({ desk, listing }: { desk: Desk; listing: Listing }) {
  const cache = useQueryClient()
  const [params, set] = useAddress()
  const [draft] = useState(() => listingDraft(listing.id, listing.copy, listing.revision))
  const saving = useSyncExternalStore(draft.subscribe, draft.snapshot)
  const copy = saving.value
  const [weighed, setWeighed] = useState<{ copy: Copy; weighing: Weighed } | null>(null)
  const [began, setBegan] = useState<Weighed | null>(null)
  const [problem, setProblem] = useState('')
  const latest = useRef(copy)
  const asking = useRef(false)
  const keyAt = useRef(0)
  const picks = usePicks(desk)
  const picksSeen = picks.dataUpdatedAt

  // One question to the engine at a time; what was typed meanwhile is asked next.
  const weigh = useCallback(async () => {
    if (asking.current) return
    asking.current = true
    let fields: Copy
    do {
      fields = latest.current
      try {
        const weighing = await weighDraft(cache, desk, fields)
        cache.setQueryData(weighKey(desk), weighing)
        setWeighed({ copy: fields, weighing })
        setBegan((b) => b ?? weighing)
        setProblem('')
      } catch (e) {
        setProblem((e as Error).message)
      }
    } while (fields !== latest.current)
    asking.current = false
  }, [cache, desk])

  // biome-ignore lint/correctness/useExhaustiveDependencies: weighed again when the picks change
  useEffect(() => {
    cache.setQueryData(draftKey(desk), latest.current)
    weigh()
  }, [picksSeen, weigh])

  // The check comes after the lines: it waits until nothing is typed for a moment, and the last one asked for counts.
  const [findings, setFindings] = useState<Finding[] | null>(null)
  const checks = useRef(0)
  const [checkedAt, setCheckedAt] = useState(0)
  // What it was about: a fix made of an older text would lose what was typed since.
  const checked = useRef<{ copy: Copy; pictures: string[] }>(null)
  const pictures = usePictures(desk, () => check())
  const check = useCallback(async (): Promise<Finding[]> => {
    const mine = ++checks.current
    try {
      await pictures.flush()
      const about = { copy: latest.current, pictures: pictures.now() }
      const { findings } = await ask(
        api.POST('/api/listings/{id}/check', {
          params: { path: { id: desk.listingId } },
          body: { marketId: desk.market.id, fields: about.copy },
        }),
      )
      if (mine === checks.current) {
        checked.current = about
        setFindings(findings)
        setCheckedAt(mine)
      }
      return findings
    } catch (e) {
      setProblem((e as Error).message)
      return []
    }
  }, [desk, pictures.flush, pictures.now])
  // biome-ignore lint/correctness/useExhaustiveDependencies: checked again when the text or the picks change
  useEffect(() => {
    const timer = setTimeout(check, 400)
    return () => clearTimeout(timer)
  }, [copy, picksSeen, check])

  useEffect(() => {
    draft.flush()
    return () => {
      draft.flush()
    }
  }, [draft])

  // From key to repainted lines: measured here, reported by the bench. The message comes round after the frame is painted.
  useLayoutEffect(() => {
    if (!keyAt.current || weighed?.copy !== latest.current) return
    const start = keyAt.current
    keyAt.current = 0
    requestAnimationFrame(() => {
      const painted = new MessageChannel()
      painted.port1.onmessage = () => performance.measure('key to lines', { start })
      painted.port2.postMessage(null)
    })
  }, [weighed])

  const put = useCallback(
    (next: Copy, keepBefore: string | null = null) => {
      keyAt.current ||= performance.now()
      latest.current = next
      cache.setQueryData(draftKey(desk), next)
      draft.change(next, keepBefore)
      weigh()
    },
    [cache, desk, draft, weigh],
  )
  const change = useCallback((key: string, value: Value) => put({ ...latest.current, [key]: value }), [put])
  const now = useCallback(() => latest.current, [])

  const steps = useRef<{ what: string; undo: () => void }[]>([])
  // A step that was not typed: the state before it is kept as a version, and it can be undone.
  const step = useCallback(
    (next: Copy, what: string, why: string) => {
      const before = latest.current
      put(next, why)
      const undo = () => {
        steps.current = steps.current.filter((s) => s.undo !== undo)
        put(before, 'before an undo')
      }
      steps.current = [...steps.current, { what, undo }].slice(-50)
      toast(what, undo)
    },
    [put],
  )
  const takeTheirs = () => {
    const mine = latest.current
    draft.takeTheirs()
    latest.current = draft.snapshot().value
    cache.setQueryData(draftKey(desk), latest.current)
    weigh()
    toast(messages.otherText, () => put(mine, 'before an undo'))
  }

  const weighing: Weighing | undefined = useMemo(
    () => (weighed && picks.data ? opened(weighed.weighing, picks.data.picks) : undefined),
    [weighed, picks.data],
  )
  const drawn = useRef<Pieces>(new Map())
  const pieces = useMemo(() => {
    drawn.current = piecesOf(weighing, drawn.current)
    return drawn.current
  }, [weighing])
  const pointed = params.get('at') ?? undefined
  const point = useCallback((key: string | null) => set({ at: key }), [set])

  const side = params.get('side') ?? 'picks'
  const filled = side === 'fill' ? listing.fields.find((f) => f.key === params.get('field')) : undefined
  const show = useCallback(
    (next: string | null, field: string | null = null) => set({ side: next === 'picks' ? null : next, field }),
    [set],
  )
  const focusedKey = () => document.activeElement?.closest('[data-field]')?.getAttribute('data-field')
  const focusedField = () => listing.fields.find((f) => f.key === focusedKey())
  const title = listing.fields.find((f) => f.role === 'title')

  const { texts: altTexts, put: putAltTexts, now: altTextsNow } = pictures
  const fix = useCallback(
    async (finding: Finding, label?: string) => {
      const fixOf = (f: Finding | undefined) => [f?.fix, ...(f?.otherFixes ?? [])].find((x) => x && (!label || x.label === label))
      const wanted = fixOf(finding)
      if (!wanted) return
      const { field } = wanted
      const still =
        field === PicturesKey ? checked.current?.pictures === altTextsNow() : checked.current?.copy[field] === latest.current[field]
      const now = fixOf(still ? finding : (await check()).find((f) => f.key === finding.key))
      if (!now) return toast(messages.fixedAlready)
      const said = messages.fixDone(now.label)
      if (field === PicturesKey) {
        const before = altTextsNow()
        putAltTexts(now.value as string[])
        toast(said, () => putAltTexts(before))
      } else step({ ...latest.current, [field]: now.value as Value }, said, 'before a fix')
    },
    [step, check, putAltTexts, altTextsNow],
  )
  const aside = useCallback(
    async (f: Finding) => {
      const put = async (away: boolean) => {
        await ask(api.PUT('/api/listings/{id}/asides', { params: { path: { id: desk.listingId } }, body: { key: f.key, aside: away } }))
        check()
      }
      try {
        await put(!f.aside)
        toast(f.aside ? messages.restored : f.claim ? messages.dismissedWord(f.claim.word) : messages.dismissed, () => put(f.aside))
      } catch (e) {
        toast((e as Error).message)
      }
    },
    [desk, check],
  )
  const goTo = useCallback((f: Finding) => {
    const boxes = document.querySelectorAll<HTMLTextAreaElement | HTMLInputElement | HTMLSelectElement>(
      `[data-field="${f.field}"] textarea, [data-field="${f.field}"] input, [data-field="${f.field}"] select`,
    )
    const box = boxes[Math.min(f.item, boxes.length - 1)]
    box?.focus()
    if (box instanceof HTMLTextAreaElement && f.length > 0) box.setSelectionRange(f.start, f.start + f.length)
  }, [])
  const open = useMemo(() => (findings ?? []).filter((f) => !f.aside), [findings])
  const walked = useRef(-1)
  // The finding that a key is about: the one just visited, else one of the tag or line with the focus, else one of the field.
  const ofFocused = (fixable: boolean) => {
    const key = focusedKey()
    const here = open.filter((f) => f.field === key && (!fixable || f.fix || f.claim))
    const boxes = [...document.querySelectorAll(`[data-field="${key}"] :is(textarea, input, select)`)]
    const item = boxes.indexOf(document.activeElement as Element)
    return here.find((f) => f === open[walked.current]) ?? here.find((f) => f.item === item) ?? here[0]
  }
  const keepTitle = useCallback(
    async (text: string) => {
      await keepTakeOf(desk.listingId, text)
      cache.invalidateQueries({ queryKey: ['takes', desk.listingId] })
    },
    [cache, desk],
  )
  // The title that is replaced is saved first: none is lost.
  const putTitle = useCallback(
    async (text: string, what = 'Title changed') => {
      if (!title) return
      const now = String(latest.current[title.key] ?? '')
      if (now.trim()) await ask(api.POST('/api/listings/{id}/takes', { params: { path: { id: desk.listingId } }, body: { text: now } }))
      step({ ...latest.current, [title.key]: text }, what, 'before another title')
      cache.invalidateQueries({ queryKey: ['takes', desk.listingId] })
    },
    [cache, desk, step, title],
  )
  const copyAll = () => copyText('Listing', allText(listing.fields, latest.current))
  // Sending, exporting and saving a version use the saved text: it must be what is on the screen.
  const settle = useCallback(async () => {
    await draft.flush()
    if (draft.unsaved) throw new Error(messages.textNotSaved)
  }, [draft])
  const panels = useRef<HTMLElement>(null)
  const pickActions = usePickActions(desk)
  const addToFacts = useCallback(
    async (f: Finding) => {
      if (!f.claim) return
      const line = factLines[f.claim.facet]
      if (!line) return
      const facts = desk.product.facts as Facts
      const { problem } = await pickActions.fact(line, [...facts[line], f.claim.word.toLowerCase()])
      if (problem) return toast(messages.notAdded(problem))
      check()
    },
    [pickActions, desk.product.facts, check],
  )
  const required = onceEach(open.filter((f) => f.level === 'must')).length
  const actions: FindingActions = useMemo(() => ({ fix, dismiss: aside, addToFacts, go: goTo }), [fix, aside, addToFacts, goTo])
  // The focus goes to the panel that a key opens.
  const openPanel = (key: string) => {
    show(key)
    setTimeout(() => panels.current?.querySelector<HTMLElement>('.side-part, [role=row][tabindex="0"]')?.focus())
  }
  const visit = (by: number) => {
    if (open.length === 0) return toast(messages.noFindings)
    walked.current = (walked.current + by + open.length) % open.length
    show('findings')
    goTo(open[walked.current])
  }
  const lastStep = steps.current.at(-1)
  useShortcuts({
    // The fills and fixes of this listing come first; when there are none left, the frame undoes what it can.
    undo:
      lastStep !== undefined &&
      (() => {
        const last = steps.current.at(-1)
        last?.undo()
        if (last) toast(messages.undone(last.what))
      }),
    copyField: () => {
      const field = focusedField()
      field ? copyText(field.label, oneText(field, copy[field.key])) : copyAll()
    },
    fill: () => {
      const field = focusedField() ?? title
      if (field && canFill(field)) show('fill', field.key)
    },
    nextFinding: () => visit(1),
    previousFinding: () => visit(walked.current < 0 ? 0 : -1),
    applyFix: () => {
      const f = ofFocused(true)
      if (!f) return toast(messages.noFix)
      f.claim ? addToFacts(f) : fix(f)
    },
    addToFacts: () => {
      const f = open.find((x) => x.claim && x.field === focusedKey())
      f ? addToFacts(f) : toast(messages.noClaim)
    },
    dismiss: () => {
      const f = ofFocused(false)
      if (f) aside(f)
    },
    picksPanel: () => openPanel('picks'),
    findingsPanel: () => openPanel('findings'),
    takesPanel: () => openPanel('takes'),
    readPanel: () => openPanel('read'),
    versionsPanel: () => openPanel('versions'),
    sendPanel: () => openPanel('send'),
  })
  const category = copy[listing.fields.find((f) => f.shape === 'path')?.key ?? '']
  const byField = useRef(new Map<string, Finding[]>())
  const found = useMemo(() => {
    // The findings of a field stay the same object while they are the same, so that the field is not drawn again.
    const next = new Map<string, Finding[]>()
    for (const f of open) next.set(f.field, [...(next.get(f.field) ?? []), f])
    for (const [key, list] of next) {
      const old = byField.current.get(key)
      if (old && JSON.stringify(old) === JSON.stringify(list)) next.set(key, old)
    }
    byField.current = next
    return next
  }, [open])
  const lead = weighing?.terms.find((t) => t.key === listing.leadKey)

  return (
    <main className="work" style={{ gridTemplateColumns: 'minmax(0,1fr) 408px' }}>
      <section className="sheet" data-testid="sheet">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13.5px] mb-2">
          {lead ? (
            <span className="inline-flex items-center gap-2">
              Lead <b className="font-semibold">{lead.text}</b> <Thread grade={lead.grade} />
              <HelpLink to="lead" about="the lead" />
            </span>
          ) : (
            <Link className="link" to={`${desk.base}/pick`}>
              Set a lead
            </Link>
          )}
          <SaveState saving={saving} again={() => draft.flush()} />
          <button type="button" className="link" onClick={copyAll}>
            Copy all
          </button>
          <button type="button" className="link" onClick={() => show('send')}>
            Publish or export
          </button>
        </div>
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
        {listing.fields.map((field) => (
          <FieldPart
            key={field.key}
            field={field}
            platform={listing.platformName}
            value={copy[field.key]}
            weighedValue={weighed?.copy[field.key]}
            change={change}
            pieces={pieces.get(field.key) ?? none}
            pointed={pointed}
            findings={found.get(field.key) ?? none}
            actions={actions}
            fill={canFill(field) ? show : undefined}
            fields={field.shape === 'path' ? listing.fields : undefined}
            category={field.shape === 'choices' ? category : undefined}
          />
        ))}
        <PicturesState pictures={pictures} />
        {listing.fields.every((f) => f.role !== 'alt') && (
          <Pictures texts={altTexts} put={putAltTexts} findings={found.get(PicturesKey) ?? none} actions={actions} />
        )}
        <h2 className="text-[14px] font-semibold mb-1">Search result preview</h2>
        <Tile picture={altTexts[0]} fields={listing.fields} copy={copy} platform={listing.platformName} />
      </section>
      <aside ref={panels} className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }}>
        <Figures desk={desk} began={began} weighing={weighing} required={findings ? required : null} show={() => show('findings')} />
        <nav className="side-tabs" aria-label="Panels">
          {sides.map(([key, name, about, id]) => (
            <button key={key} type="button" title={`${about} (${keysOf(id)[0]})`} aria-pressed={side === key} onClick={() => show(key)}>
              {name}
              {key === 'findings' && open.length > 0 && (
                <span className={`count ${required > 0 ? 'must' : ''}`}>{onceEach(open).length}</span>
              )}
            </button>
          ))}
        </nav>
        {filled ? (
          <FillPanel
            key={filled.key}
            desk={desk}
            field={filled}
            copy={now}
            take={(value, what) =>
              filled.key === title?.key
                ? putTitle(String(value), what)
                : step({ ...latest.current, [filled.key]: value }, what, 'before a fill')
            }
            keepTake={keepTitle}
            close={() => show('picks')}
          />
        ) : side === 'findings' ? (
          <AllFindings fields={listing.fields} findings={findings} actions={actions} />
        ) : side === 'takes' && title ? (
          <Takes
            desk={desk}
            field={title}
            copy={now}
            version={checkedAt}
            use={putTitle}
            keep={() => keepTitle(String(latest.current[title.key] ?? ''))}
          />
        ) : side === 'read' && title ? (
          <Reading
            desk={desk}
            text={String(weighed?.copy[title.key] ?? copy[title.key] ?? '')}
            copy={now}
            put={(t) => putTitle(t, 'Changed the order of the words')}
          />
        ) : side === 'versions' ? (
          <Versions
            product={desk.product.id}
            listingId={listing.id}
            copy={now}
            settle={settle}
            restore={(v) => step(v.copy, 'Restored the version', 'before a version was restored')}
          />
        ) : side === 'send' ? (
          <SendOut desk={desk} settle={settle} copyAll={copyAll} />
        ) : (
          <Held desk={desk} weighing={weighing} pointed={pointed} point={point} />
        )}
      </aside>
    </main>
  )
}
