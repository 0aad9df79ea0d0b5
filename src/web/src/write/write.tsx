import { useQuery, useQueryClient } from '@tanstack/react-query'
import { memo, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useAddress } from '../kit/address'
import { api, ask, type Copy, type Field, type Listing, opened, type PickWeight, type Value, type Weighed, type Weighing } from '../kit/api'
import { useKeys } from '../kit/keys'
import { compact, full } from '../kit/numbers'
import { draftKey, type Place, usePicks, weighKey } from '../kit/shop'
import { type Column, Table } from '../kit/table'
import { TermGaps, Thread } from '../kit/thread'
import { toast } from '../kit/toast'
import { Editor } from './editors'
import { type SaveState, saverOf, settled, type Theirs } from './saver'
import { type Piece, type Pieces, piecesOf } from './segments'

export function Write({ place }: { place: Place }) {
  const listing = useQuery({
    queryKey: ['listing', place.listingId],
    queryFn: async () => {
      await settled(place.listingId)
      return ask(api.GET('/api/listings/{id}', { params: { path: { id: place.listingId } } }))
    },
    refetchOnMount: 'always',
  })
  if (listing.isError) return <main className="p-10">The listing could not be opened: {listing.error.message}</main>
  if (!listing.data || !listing.isFetchedAfterMount) return <main />
  return <Sheet key={listing.data.id} place={place} listing={listing.data} />
}

function Sheet({ place, listing }: { place: Place; listing: Listing }) {
  const cache = useQueryClient()
  const [params, set] = useAddress()
  const [copy, setCopy] = useState(listing.copy as Copy)
  const [weighed, setWeighed] = useState<{ copy: Copy; weighing: Weighed } | null>(null)
  const [began, setBegan] = useState<Weighed | null>(null)
  const [save, setSave] = useState<SaveState>({ state: 'saved' })
  const [theirs, setTheirs] = useState<Theirs | null>(null)
  const [problem, setProblem] = useState('')
  const [saver] = useState(() => saverOf(listing.id, listing.revision))
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
        const weighing = await ask(
          api.POST('/api/listings/{id}/weigh', {
            params: { path: { id: place.listingId } },
            body: { marketId: place.market.id, fields: fields as never },
          }),
        )
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

  useEffect(() => {
    saver.onState = setSave
    saver.onConflict = setTheirs
    const leave = () => {
      saver.flush()
    }
    window.addEventListener('pagehide', leave)
    return () => {
      window.removeEventListener('pagehide', leave)
      leave()
    }
  }, [saver])

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
    (next: Copy) => {
      keyAt.current ||= performance.now()
      latest.current = next
      setCopy(next)
      cache.setQueryData(draftKey(place), next)
      saver.change(next)
      weigh()
    },
    [cache, place, saver, weigh],
  )
  const change = useCallback((key: string, value: Value) => put({ ...latest.current, [key]: value }), [put])
  const take = (their: Theirs) => {
    saver.take(their.revision)
    setTheirs(null)
    latest.current = their.copy
    setCopy(their.copy)
    weigh()
  }
  const keep = (their: Theirs) => {
    saver.revision = their.revision
    setTheirs(null)
    saver.change(latest.current)
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

  const focusedField = () =>
    listing.fields.find((f) => f.key === document.activeElement?.closest('[data-field]')?.getAttribute('data-field'))
  useKeys({
    'Alt+c': () => {
      const field = focusedField()
      field ? copyText(field.label, oneText(field, copy[field.key])) : copyText('The whole listing', allText(listing.fields, copy))
    },
  })
  const download = async (kind: 'csv' | 'json') => {
    await saver.flush()
    window.location.assign(`/api/listings/${listing.id}/export.${kind}`)
  }
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
          <span className="ml-auto quiet" role="status" data-testid="save-state">
            {save.state === 'saved' ? (
              'All saved'
            ) : save.state === 'failed' ? (
              <span className="text-accent">{save.message}</span>
            ) : (
              'Saving…'
            )}
          </span>
          <button type="button" className="link" onClick={() => copyText('The whole listing', allText(listing.fields, copy))}>
            Copy all
          </button>
          <button type="button" className="link" onClick={() => download('csv')}>
            CSV
          </button>
          <button type="button" className="link" onClick={() => download('json')}>
            JSON
          </button>
        </div>
        {problem && <p className="text-accent mb-2">The figures could not be worked out: {problem} Your text is as you wrote it.</p>}
        {theirs && <TwoWindows fields={listing.fields} mine={copy} theirs={theirs} keep={() => keep(theirs)} take={() => take(theirs)} />}
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
            avoided={avoidedIn(weighing, field.key)}
          />
        ))}
      </section>
      <Held place={place} began={began} weighing={weighing} pointed={pointed} point={point} />
    </main>
  )
}

/** One field with its name, its room and its editor; it is drawn anew only when something of its own changes. */
const FieldPart = memo(function FieldPart(p: {
  field: Field
  platform: string
  value: Value | undefined
  weighedValue: Value | undefined
  change: (key: string, value: Value) => void
  pieces: Piece[][]
  pointed: string | undefined
  avoided: string
}) {
  const { field, value } = p
  return (
    <div className="mb-4" data-field={field.key}>
      <h2 className="flex gap-2.5 items-baseline text-[14px] font-semibold">
        {field.label} <small className="quiet text-[13px] font-normal font-sans">{aboutField(field, value, p.platform)}</small>
        <span className="ml-auto font-sans font-medium text-[13px]">
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
      />
      {p.avoided && (
        <p className="text-accent text-[13px]" data-testid="avoided">
          <b>Must go:</b> {p.avoided}
        </p>
      )}
    </div>
  )
})

/** What the shop avoids and this field says, with the reasons. */
const avoidedIn = (weighing: Weighing | undefined, field: string) =>
  (weighing?.avoided ?? [])
    .filter((a) => a.spans.some((s) => s.field === field))
    .map((a) => `“${a.text}” is avoided${a.reason ? `: ${a.reason}` : ''} (${a.product})`)
    .join('; ')

/** Reach and grip, and every pick with what it lacks. */
const Held = memo(function Held({
  place,
  began,
  weighing,
  pointed,
  point,
}: {
  place: Place
  began: Weighed | null
  weighing: Weighing | undefined
  pointed: string | undefined
  point: (key: string | null) => void
}) {
  const terms = useMemo(
    () => [...(weighing?.terms ?? [])].sort((a, b) => firmness(a) - firmness(b) || (b.volume ?? -1) - (a.volume ?? -1)),
    [weighing],
  )
  return (
    <aside className="side !overflow-hidden grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
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
      {weighing?.picks === 0 ? (
        <p className="quiet">
          Nothing to hold yet.{' '}
          <Link className="link" to={`${place.base}/dig`}>
            Dig
          </Link>{' '}
          for terms and pick some; each will show here with its thread and the word it lacks.
        </p>
      ) : (
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
      )}
    </aside>
  )
})

const none: never[] = []
const firmness = (t: PickWeight) => ({ missing: 0, spread: 1, together: 2, inflected: 3, whole: 4 })[t.grade]

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

function oneText(field: Field, value: Value | undefined): string {
  if (value === undefined) return ''
  if (typeof value === 'string') return field.shape === 'words' ? value.trim().replace(/\s+/g, ' ') : value
  if (Array.isArray(value)) return value.filter((v) => v.trim()).join(field.separator)
  return Object.entries(value)
    .map(([k, v]) => `${k}: ${Array.isArray(v) ? v.join(' / ') : v}`)
    .join(field.separator)
}

const allText = (fields: Field[], copy: Copy) => fields.map((f) => `${f.label}\n${oneText(f, copy[f.key])}`).join('\n\n')

async function copyText(what: string, text: string) {
  if (!text) return toast(`${what} is empty: nothing was copied`)
  try {
    await navigator.clipboard.writeText(text)
    toast(`${what} copied, ${[...text].length} characters`)
  } catch {
    toast('The browser did not allow copying: select the text and copy it there')
  }
}

function TwoWindows({
  fields,
  mine,
  theirs,
  keep,
  take,
}: {
  fields: Field[]
  mine: Copy
  theirs: Theirs
  keep: () => void
  take: () => void
}) {
  const differ = fields.filter((f) => JSON.stringify(mine[f.key] ?? null) !== JSON.stringify(theirs.copy[f.key] ?? null))
  return (
    <div className="border border-accent rounded-md p-3 mb-3 text-[14px]" role="alert" data-testid="conflict">
      <b>This listing was saved in another window</b> at {new Date(theirs.savedAt).toLocaleTimeString()}. Nothing was written over; what you
      type here waits until you choose.
      <table className="plain mt-2">
        <thead>
          <tr>
            <th className="w-28">Field</th>
            <th>Here</th>
            <th>There</th>
          </tr>
        </thead>
        <tbody>
          {differ.map((f) => (
            <tr key={f.key}>
              <td>{f.label}</td>
              <td className="pr-4">{oneText(f, mine[f.key]) || '(empty)'}</td>
              <td>{oneText(f, theirs.copy[f.key]) || '(empty)'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 flex gap-2">
        <button type="button" className="btn btn-sm btn-primary" onClick={keep}>
          Keep what is here
        </button>
        <button type="button" className="btn btn-sm" onClick={take}>
          Take what is there
        </button>
      </p>
    </div>
  )
}
