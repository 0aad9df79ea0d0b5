import { useQuery, useQueryClient } from '@tanstack/react-query'
import { memo, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import {
  api,
  ask,
  type Copy,
  type Field,
  type Finding,
  type Listing,
  opened,
  type PickWeight,
  type Value,
  type Weighed,
  type Weighing,
} from '../kit/api'
import { ConflictBox } from '../kit/conflict'
import { type DraftView, listingDraft, restoreDrafts } from '../kit/drafts'
import { useKeys } from '../kit/keys'
import { compact, full } from '../kit/numbers'
import { draftKey, type Place, usePicks, weigh as weighDraft, weighKey } from '../kit/shop'
import { type Column, Table } from '../kit/table'
import { TermGaps, Thread } from '../kit/thread'
import { toast } from '../kit/toast'
import { Editor } from './editors'
import { FillPanel, keepTakeOf } from './fill'
import { AllFindings, FieldFindings, PicturesKey } from './findings'
import { Pictures, PicturesState, usePictures } from './pictures'
import { Reading } from './reading'
import { type Piece, type Pieces, piecesOf } from './segments'
import { SendOut } from './sendout'
import { Takes } from './takes'
import { allText, oneText } from './texts'
import { Tile } from './tile'
import { Versions } from './versions'

/** What can stand beside the work; the address remembers which. */
const sides = [
  ['picks', 'Picks', 'The picks and what they lack'],
  ['findings', 'Findings', 'What the check says: Alt N walks them'],
  ['takes', 'Takes', 'Every try at the title: Alt T'],
  ['read', 'Read', 'What the title holds, and could in another order: Alt R'],
  ['versions', 'Versions', 'Every state kept: Alt V'],
  ['send', 'Send', 'To the market, or out as a file: Alt M'],
] as const

export function Write({ place }: { place: Place }) {
  const listing = useQuery({
    queryKey: ['listing', place.listingId],
    queryFn: async () => {
      await restoreDrafts()
      return ask(api.GET('/api/listings/{id}', { params: { path: { id: place.listingId } } }))
    },
    refetchOnMount: 'always',
  })
  if (listing.isError && !listing.data)
    return (
      <main className="p-10" role="alert">
        <p className="mb-3">The listing could not be opened: {listing.error.message}. What you typed is kept.</p>
        <button type="button" className="btn btn-sm" onClick={() => listing.refetch()}>
          Try again
        </button>
      </main>
    )
  // While the server cannot be asked, one goes on with what was opened before.
  if (!listing.data || !(listing.isFetchedAfterMount || listing.isError)) return <main />
  return <Sheet key={listing.data.id} place={place} listing={listing.data} />
}

function Sheet({ place, listing }: { place: Place; listing: Listing }) {
  const cache = useQueryClient()
  const [params, set] = useAddress()
  const [draft] = useState(() => listingDraft(listing.id, listing.copy as Copy, listing.revision))
  const saving = useSyncExternalStore(draft.subscribe, draft.snapshot)
  const copy = saving.value
  const [weighed, setWeighed] = useState<{ copy: Copy; weighing: Weighed } | null>(null)
  const [began, setBegan] = useState<Weighed | null>(null)
  const [problem, setProblem] = useState('')
  const latest = useRef(copy)
  const asking = useRef(false)
  const keyAt = useRef(0)
  const picks = usePicks(place)
  const picksSeen = picks.dataUpdatedAt

  // One question to the engine at a time; what was typed meanwhile is asked next.
  const weigh = useCallback(async () => {
    if (asking.current) return
    asking.current = true
    let fields: Copy
    do {
      fields = latest.current
      try {
        const weighing = await weighDraft(cache, place, fields)
        cache.setQueryData(weighKey(place), weighing)
        setWeighed({ copy: fields, weighing })
        setBegan((b) => b ?? weighing)
        setProblem('')
      } catch (e) {
        setProblem((e as Error).message)
      }
    } while (fields !== latest.current)
    asking.current = false
  }, [cache, place])

  // biome-ignore lint/correctness/useExhaustiveDependencies: weighed again when the picks change
  useEffect(() => {
    cache.setQueryData(draftKey(place), latest.current)
    weigh()
  }, [picksSeen, weigh])

  // The check comes after the lines: it waits until nothing is typed for a moment, and the last one asked for counts.
  const [findings, setFindings] = useState<Finding[] | null>(null)
  const checks = useRef(0)
  const [checkedAt, setCheckedAt] = useState(0)
  // What it was about: a fix made of an older text would lose what was typed since.
  const checked = useRef<{ copy: Copy; pictures: string[] }>(null)
  const pictures = usePictures(place, () => check())
  const check = useCallback(async (): Promise<Finding[]> => {
    const mine = ++checks.current
    try {
      await pictures.flush()
      const about = { copy: latest.current, pictures: pictures.now() }
      const { findings } = await ask(
        api.POST('/api/listings/{id}/check', {
          params: { path: { id: place.listingId } },
          body: { marketId: place.market.id, fields: about.copy as never },
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
  }, [place, pictures.flush, pictures.now])
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
      cache.setQueryData(draftKey(place), next)
      draft.change(next, keepBefore)
      weigh()
    },
    [cache, place, draft, weigh],
  )
  const change = useCallback((key: string, value: Value) => put({ ...latest.current, [key]: value }), [put])
  const now = useCallback(() => latest.current, [])

  // A step that was not typed: the state before it is kept as a version, and it can be undone.
  const step = useCallback(
    (next: Copy, what: string, why: string) => {
      const before = latest.current
      put(next, why)
      toast(what, () => put(before, 'before an undo'))
    },
    [put],
  )
  const takeTheirs = () => {
    const mine = latest.current
    draft.takeTheirs()
    latest.current = draft.snapshot().value
    cache.setQueryData(draftKey(place), latest.current)
    weigh()
    toast('The other window’s text is used', () => put(mine, 'before an undo'))
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
    async (finding: Finding) => {
      if (!finding.fix) return
      const { field } = finding.fix
      const still =
        field === PicturesKey ? checked.current?.pictures === altTextsNow() : checked.current?.copy[field] === latest.current[field]
      const now = still ? finding : (await check()).find((f) => f.key === finding.key)
      if (!now?.fix) return toast('What was typed since has settled it')
      const said = `Done: ${now.fix.label.toLowerCase()}`
      if (field === PicturesKey) {
        const before = altTextsNow()
        putAltTexts(now.fix.value as string[])
        toast(said, () => putAltTexts(before))
      } else step({ ...latest.current, [field]: now.fix.value as Value }, said, 'before a fix')
    },
    [step, check, putAltTexts, altTextsNow],
  )
  const aside = useCallback(
    async (f: Finding) => {
      const put = async (away: boolean) => {
        await ask(api.PUT('/api/listings/{id}/asides', { params: { path: { id: place.listingId } }, body: { key: f.key, aside: away } }))
        check()
      }
      try {
        await put(!f.aside)
        toast(f.aside ? 'Brought back' : 'Put aside until that text changes', () => put(f.aside))
      } catch (e) {
        toast((e as Error).message)
      }
    },
    [place, check],
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
  // The finding that a key is about: the one just walked to, else one of the very tag or line one is in, else one of the field.
  const ofFocused = (fixable: boolean) => {
    const key = focusedKey()
    const here = open.filter((f) => f.field === key && (!fixable || f.fix))
    const boxes = [...document.querySelectorAll(`[data-field="${key}"] :is(textarea, input, select)`)]
    const item = boxes.indexOf(document.activeElement as Element)
    return here.find((f) => f === open[walked.current]) ?? here.find((f) => f.item === item) ?? here[0]
  }
  const keepTitle = useCallback(
    async (text: string) => {
      await keepTakeOf(place.listingId, text)
      cache.invalidateQueries({ queryKey: ['takes', place.listingId] })
    },
    [cache, place],
  )
  // The title that is left is kept first: none is ever lost.
  const putTitle = useCallback(
    async (text: string, what = 'Title changed') => {
      if (!title) return
      const now = String(latest.current[title.key] ?? '')
      if (now.trim()) await ask(api.POST('/api/listings/{id}/takes', { params: { path: { id: place.listingId } }, body: { text: now } }))
      step({ ...latest.current, [title.key]: text }, what, 'before another title')
      cache.invalidateQueries({ queryKey: ['takes', place.listingId] })
    },
    [cache, place, step, title],
  )
  const copyAll = () => copyText('The whole listing', allText(listing.fields, latest.current))
  // What is sent, exported or kept is the saved text: it must be what is on the screen.
  const settle = useCallback(async () => {
    await draft.flush()
    if (draft.unsaved) throw new Error('Your latest text is not saved yet, so nothing was done. Try again once it is saved.')
  }, [draft])
  useKeys({
    'Alt+c': () => {
      const field = focusedField()
      field ? copyText(field.label, oneText(field, copy[field.key])) : copyAll()
    },
    'Alt+f': () => {
      const field = focusedField() ?? title
      if (field && canFill(field)) show('fill', field.key)
    },
    'Alt+n': () => {
      if (open.length === 0) return toast('No finding is open')
      walked.current = (walked.current + 1) % open.length
      show('findings')
      goTo(open[walked.current])
    },
    'Alt+Enter': () => {
      const f = ofFocused(true)
      f ? fix(f) : toast('No fix for this field')
    },
    'Alt+a': () => {
      const f = ofFocused(false)
      if (f) aside(f)
    },
    'Alt+t': () => show('takes'),
    'Alt+r': () => show('read'),
    'Alt+v': () => show('versions'),
    'Alt+m': () => show('send'),
    'Alt+p': () => show('picks'),
  })
  const category = copy[listing.fields.find((f) => f.shape === 'path')?.key ?? '']
  const byField = useRef(new Map<string, Finding[]>())
  const found = useMemo(() => {
    // What is said of a field stays the same object while it is the same, so that the field is not drawn again.
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
            <span className="inline-flex items-center gap-2" title="The one pick this listing is built around">
              Lead <b className="font-semibold">{lead.text}</b> <Thread grade={lead.grade} />
            </span>
          ) : (
            <Link className="link" to={`${place.base}/pick`}>
              Choose a lead
            </Link>
          )}
          <SaveState saving={saving} again={() => draft.flush()} />
          <button type="button" className="link" onClick={copyAll}>
            Copy all
          </button>
          <button type="button" className="link" onClick={() => show('send')}>
            Send or export
          </button>
        </div>
        {problem && <p className="text-accent mb-2">The figures could not be worked out: {problem} Your text is as you wrote it.</p>}
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
            fix={fix}
            aside={aside}
            fill={canFill(field) ? show : undefined}
            fields={field.shape === 'path' ? listing.fields : undefined}
            category={field.shape === 'choices' ? category : undefined}
          />
        ))}
        <PicturesState pictures={pictures} />
        {listing.fields.every((f) => f.role !== 'alt') && (
          <Pictures texts={altTexts} put={putAltTexts} findings={found.get(PicturesKey) ?? none} fix={fix} aside={aside} />
        )}
        <h2 className="text-[14px] font-semibold mb-1">
          As a result elsewhere{' '}
          <small className="quiet text-[13px] font-normal font-sans">what a shopper sees of it before opening it</small>
        </h2>
        <Tile picture={altTexts[0]} fields={listing.fields} copy={copy} platform={listing.platformName} />
      </section>
      <aside className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto auto minmax(0,1fr)' }}>
        <Figures place={place} began={began} weighing={weighing} />
        <nav className="side-tabs" aria-label="Beside the work">
          {sides.map(([key, name, about]) => (
            <button key={key} type="button" title={about} aria-pressed={side === key} onClick={() => show(key)}>
              {name}
              {key === 'findings' && open.length > 0 && (
                <span className={`count ${open.some((f) => f.level === 'must') ? 'must' : ''}`}>{open.length}</span>
              )}
            </button>
          ))}
        </nav>
        {filled ? (
          <FillPanel
            key={filled.key}
            place={place}
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
          <AllFindings fields={listing.fields} findings={findings} fix={fix} aside={aside} go={goTo} />
        ) : side === 'takes' && title ? (
          <Takes
            place={place}
            field={title}
            copy={now}
            version={checkedAt}
            use={putTitle}
            keep={() => keepTitle(String(latest.current[title.key] ?? ''))}
          />
        ) : side === 'read' && title ? (
          <Reading
            place={place}
            text={String(weighed?.copy[title.key] ?? copy[title.key] ?? '')}
            copy={now}
            put={(t) => putTitle(t, 'Words put in another order')}
          />
        ) : side === 'versions' ? (
          <Versions
            listingId={listing.id}
            copy={now}
            settle={settle}
            bring={(v) => step(v.copy as Copy, 'Brought back', 'before a version was brought back')}
          />
        ) : side === 'send' ? (
          <SendOut place={place} settle={settle} copyAll={copyAll} />
        ) : (
          <Held place={place} weighing={weighing} pointed={pointed} point={point} />
        )}
      </aside>
    </main>
  )
}

/** Whether the text is on disk; where it is not, why, and that it is kept. */
const SaveState = memo(function SaveState({ saving, again }: { saving: DraftView<Copy>; again: () => void }) {
  const stuck = saving.state === 'failed' || saving.state === 'refused'
  return (
    <span className="ml-auto quiet" role="status" data-testid="save-state" data-state={saving.state}>
      {saving.state === 'saved' ? (
        'All saved'
      ) : stuck ? (
        <span className="text-accent">
          Not saved. {saving.message} Your text is kept in this browser.{' '}
          <button type="button" className="link" onClick={again}>
            Try again
          </button>
        </span>
      ) : saving.state === 'conflict' ? (
        <span className="text-accent">Not saved: changed in another window</span>
      ) : saving.restored ? (
        'Saving text from your last visit…'
      ) : (
        'Saving…'
      )}
    </span>
  )
})

/** One field with its name, its room and its editor; it is drawn anew only when something of its own changes. */
const FieldPart = memo(function FieldPart(p: {
  field: Field
  platform: string
  value: Value | undefined
  weighedValue: Value | undefined
  change: (key: string, value: Value) => void
  pieces: Piece[][]
  pointed: string | undefined
  findings: Finding[]
  fix: (f: Finding) => void
  aside: (f: Finding) => void
  fill: ((side: string, field: string) => void) | undefined
  fields: Field[] | undefined
  category: Value | undefined
}) {
  const { field, value } = p
  return (
    <div className="mb-4" data-field={field.key}>
      <h2 className="flex gap-2.5 items-baseline text-[14px] font-semibold">
        {field.label} <small className="quiet text-[13px] font-normal font-sans">{aboutField(field, value, p.platform)}</small>
        <span className="ml-auto font-sans font-medium text-[13px] flex gap-3">
          {p.fill && (
            <button
              type="button"
              className="link"
              title="Suggests what would hold the most: Alt F in the field"
              onClick={() => p.fill?.('fill', field.key)}
              aria-label={`Fill ${field.label}`}
            >
              {field.shape === 'lines' ? 'Closing line' : 'Fill'}
            </button>
          )}
          <button
            type="button"
            className="link"
            onClick={() => copyText(field.label, oneText(field, value))}
            aria-label={`Copy ${field.label}`}
          >
            Copy
          </button>
        </span>
      </h2>
      <Editor
        field={field}
        value={value}
        weighedValue={p.weighedValue}
        change={(v) => p.change(field.key, v)}
        pieces={p.pieces}
        pointed={p.pointed}
        fields={p.fields}
        category={p.category}
      />
      <FieldFindings findings={p.findings} fix={p.fix} aside={p.aside} />
    </div>
  )
})

/** Fields that a fill can suggest something for. */
const canFill = (field: Field) =>
  field.indexed &&
  (field.shape === 'phrases' || field.shape === 'words' || field.shape === 'lines' || (field.shape === 'line' && field.role === 'title'))

/** Reach and grip as they are now. */
const Figures = memo(function Figures({ place, began, weighing }: { place: Place; began: Weighed | null; weighing: Weighing | undefined }) {
  return (
    <div className="grid grid-cols-2 gap-3 mb-2">
      <div>
        <div className="big" data-testid="reach">
          {weighing && weighing.totalVolume > 0 ? (
            <>
              {Math.round(weighing.reach)}
              <span className="text-[24px]">%</span>
            </>
          ) : (
            '–'
          )}
        </div>
        <p className="quiet text-[13px] mt-1 leading-snug">
          <b className="text-base-content">Reach.</b> {weighing?.eligible} of {weighing?.picks} picks
          {weighing && weighing.totalVolume > 0
            ? `; ${full(weighing.volume)} of ${full(weighing.totalVolume)} searches a month`
            : '; no pick has known searches'}
          {weighing && weighing.unknownVolume > 0 ? `; ${weighing.unknownVolume} unknown` : ''}
        </p>
      </div>
      <div>
        <div className="big" data-testid="grip">
          {weighing && weighing.totalVolume > 0 ? Math.round(weighing.grip) : '–'}
        </div>
        <p className="quiet text-[13px] mt-1 leading-snug">
          <b className="text-base-content">Grip</b>, out of 100: how firmly it holds them. {since(began, weighing)}{' '}
          <Link className="link" to={`${place.base}/weigh`}>
            What makes it
          </Link>
        </p>
      </div>
    </div>
  )
})

/** Every pick with what it lacks. */
const Held = memo(function Held({
  place,
  weighing,
  pointed,
  point,
}: {
  place: Place
  weighing: Weighing | undefined
  pointed: string | undefined
  point: (key: string | null) => void
}) {
  const terms = useMemo(
    () => [...(weighing?.terms ?? [])].sort((a, b) => firmness(a) - firmness(b) || (b.volume ?? -1) - (a.volume ?? -1)),
    [weighing],
  )
  if (weighing?.picks === 0)
    return (
      <p className="quiet">
        Nothing to hold yet.{' '}
        <Link className="link" to={`${place.base}/dig`}>
          Dig
        </Link>{' '}
        for terms and pick some; each will show here with its thread and the word it lacks.
      </p>
    )
  return (
    <Table
      name="Picks and what they lack"
      rows={terms}
      columns={columns}
      id={(t) => t.key}
      at={terms.findIndex((t) => t.key === pointed)}
      rowHeight={33}
      onAt={(_, t) => point(!t || t.key === pointed ? null : t.key)}
      empty=""
    />
  )
})

const none: never[] = []
const firm = { missing: 0, spread: 1, together: 2, inflected: 3, whole: 4 }
const firmness = (t: PickWeight) => firm[t.grade]

function since(began: Weighed | null, now: Weighed | undefined) {
  if (!began || !now) return ''
  const by = Math.round((now.grip - began.grip) * 10) / 10
  return by === 0 ? '' : `${by > 0 ? '+' : '−'}${Math.abs(by)} since you came.`
}

const columns: Column<PickWeight>[] = [
  { key: 'thread', head: '', width: '40px', cell: (t) => <Thread grade={t.grade} /> },
  {
    key: 'text',
    head: <b className="font-medium">What is still lost, dearest first</b>,
    width: 'minmax(0,1fr)',
    cell: (t) => <TermGaps term={t} />,
  },
  {
    key: 'volume',
    head: 'a month',
    width: '58px',
    right: true,
    cell: (t) => (
      <span className="num text-[13px]" title={full(t.volume)}>
        {compact(t.volume)}
      </span>
    ),
  },
]

function aboutField(field: Field, value: Value | undefined, platform: string) {
  const parts: string[] = []
  const items = Array.isArray(value) ? value.filter((v) => v.trim()).length : 0
  if (field.maxItems !== null)
    parts.push(`${items} of ${field.maxItems}${items > field.maxItems ? `: ${items - field.maxItems} too many` : ''}`)
  if (field.maxItems !== null && field.max !== null) parts.push(`each up to ${field.max} ${field.unit}`)
  if (!field.indexed) parts.push(`not searched by ${platform}`)
  else if (field.indexedFirst) parts.push(`the first ${field.indexedFirst} characters are searched`)
  else if (field.role === '' || field.role === 'category' || field.role === 'attributes') parts.push('searched')
  return parts.join(', ')
}

async function copyText(what: string, text: string) {
  if (!text) return toast(`${what} is empty: nothing was copied`)
  try {
    await navigator.clipboard.writeText(text)
    toast(`${what} copied, ${[...text].length} characters`)
  } catch {
    toast('The browser did not allow copying: select the text and copy it there')
  }
}
