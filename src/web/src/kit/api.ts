import createClient from 'openapi-fetch'
import type { PlatformProfile } from '../api/platform'
import type { components, paths } from '../api/schema'
import { messages } from './messages'

export const api = createClient<paths>({ baseUrl: '' })

// Where a password is needed and none was given yet, every question ends at the place to give it. Unsaved text stays in the browser.
api.use({
  onResponse({ response }) {
    if (response.status === 401 && window.location.pathname !== '/login') window.location.assign('/login')
  },
})

export type Schemas = components['schemas']
export type Shop = Schemas['ShopView']
export type Country = Schemas['Country']
export type Product = Schemas['ProductView']
export type Market = Schemas['MarketView']
export type Dug = Schemas['DugTerm']
export type ShelfRow = Schemas['ShelfTerm']
export type ShelfQuery = Schemas['ShelfQuery']
export type ShelfOrder = Schemas['ShelfOrder']
export type TermView = Schemas['TermView']
export type Alike = Schemas['AlikeView']
export type Grid = Schemas['GridView']
export type Facet = Schemas['Facet']
export type Facts = Required<Schemas['Facts']>
export type ImportView = Schemas['ImportView']
export type ImportPart = Schemas['ImportPart']
export type TableLook = Schemas['TableLook']
export type ColumnRole = Schemas['ColumnRole']
export type Norm = Schemas['MarketStatistics']
export type ImportItem = Schemas['ImportItem']
export type ShopImport = Schemas['ShopImportView']
export type PictureView = Schemas['PictureView']
export type AltChange = Schemas['AltChange']
export type Site = Schemas['SiteView']
/** What the seller writes in the settings of the web shop. */
export type SiteTexts = { [key in 'brand' | 'address' | 'language' | 'country' | 'titleSuffix']: string }
/** A platform's rules as its form has them: each has an ID and a name. */
export type Profile = { [key in keyof PlatformProfile]: PlatformProfile[key] } & { id: string; name: string }
export type Page = Schemas['PageView']
export type PlannedPage = Schemas['PlannedPage']
export type PageFigures = Schemas['PageFigures']
export type Move = Schemas['MoveView']
export type OwnTerm = Schemas['OwnTerm']
export type Rival = Schemas['RivalView']
export type Rivals = Schemas['RivalsView']
export type FoundRival = Schemas['FoundRival']
export type HeldTerm = Schemas['HeldTerm']
export type Passing = Schemas['PassView']
export type Top = Schemas['TopView']
export type TopValue = Schemas['TopValue']
export type TopWord = Schemas['TopWord']
export type FigureDifference = Schemas['FigureDifference']
export type BuyerPhrase = Schemas['PhraseView']
export type ProductPlatforms = Schemas['ProductPlatforms']
export type PlacedTerm = Schemas['PlacedTerm']
export type Brought = Schemas['BroughtView']
export type ListingLine = Schemas['ListingLine']
export type WeighedListing = NonNullable<Schemas['WeighedListing']>
export type EditRequest = Schemas['EditRequest']
export type PlannedEdit = Schemas['PlannedEdit']
export type LeadView = Schemas['LeadView']
export type ClashView = Schemas['ClashView']
export type UntargetedTerm = Schemas['UntargetedTerm']
export type SeenPages = NonNullable<Schemas['SeenPages']>
export type HeadroomSteps = NonNullable<Schemas['HeadroomSteps']>
export type Measured = Schemas['Measured']
export type Pick = Schemas['PickView']
export type Home = Schemas['Home']
export type VersionReason = Schemas['VersionReason']
export type Fit = Schemas['Fit']
export type Grade = Schemas['Grade']
export type Listing = Schemas['ListingView']
export type Field = Schemas['FieldView']
export type Near = Schemas['NearMiss']
export type Weighed = Schemas['WeighingView']
/** What the listing holds of one pick, with the pick's words and numbers. */
export type PickWeight = {
  key: string
  text: string
  fit: Fit
  volume: number | null
  headroom: number | null
  demand: number | null
  worth: number | null
  grade: Grade
  grip: number
  grades: Grade[]
  strengths: number[]
  missing: string[]
  near: Near[]
  apart: boolean
  spans: Span[]
}
export type Weighing = Omit<Weighed, 'terms'> & { terms: PickWeight[] }
export type Fill = Schemas['FillView']
export type LeftOut = Schemas['LeftOutView']
export type Checked = Schemas['Checked']
export type Finding = Schemas['FindingView']
export type Take = Schemas['TakeView']
export type Version = Schemas['VersionView']
export type FieldChange = Schemas['FieldChange']
export type PlatformView = Schemas['PlatformView']
export type Unfit = Schemas['UnfitListing']
export type Span = Schemas['Span']
export type Room = Schemas['RoomUsed']
export type Backup = Schemas['BackupView']

export type DropView = Schemas['DropView']
export type DropChoice = Schemas['DropChoice']
export type DugSources = NonNullable<Schemas['DugSources']>
export type LookUp = Schemas['LookUp']

export type Watch = Schemas['WatchView']
export type FoundTerm = Schemas['FoundTerm']
export type Check = Schemas['FoundCheckView']
export type History = Schemas['HistoryView']
export type Note = Schemas['NoteView']
export type NoteKind = Schemas['NoteKind']
export type Effect = Schemas['EffectView']
export type Mover = Schemas['Mover']
export type Rules = Schemas['RulesView']
export type OfferedChange = NonNullable<Schemas['OfferedChange']>

/** What stands in one field: a text, a list, or attributes by name. */
export type Value = string | string[] | Record<string, string | string[]>
export type Copy = Record<string, Value>

/** What a problem says, without the paths of the fields: those are for programs. */
export function messageOf(error: unknown, status: number): string {
  const problem = error as { detail?: string; title?: string; errors?: Record<string, string[]> } | undefined
  const said = [...new Set(Object.values(problem?.errors ?? {}).flat())]
  return said.length > 0 ? said.join(' ') : (problem?.detail ?? problem?.title ?? messages.answered(status))
}

/** Unwraps an answer; a problem becomes an error that says what was wrong. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call
  if (response.ok) return data as T
  throw new Error(messageOf(error, response.status))
}

// What was put together before, by what the server said: the same saying of the same pick is the very same object.
const putTogether = new WeakMap<Weighed['terms'][number], { pick: Pick; fields: string; weight: PickWeight }>()

/** Puts what is held of each pick beside the pick itself. */
export function opened(weighed: Weighed, picks: Pick[]): Weighing {
  const byKey = new Map(picks.map((p) => [p.key, p]))
  const fields = weighed.fields.join()
  const nowhere = weighed.fields.map((): Grade => 'missing')
  const zero = weighed.fields.map(() => 0)
  return {
    ...weighed,
    terms: weighed.terms.flatMap((t) => {
      const pick = byKey.get(t.key)
      if (pick === undefined) return []
      const before = putTogether.get(t)
      if (before?.pick === pick && before.fields === fields) return [before.weight]
      const weight: PickWeight = {
        key: t.key,
        text: pick.text,
        fit: pick.fit,
        volume: pick.numbers.volume,
        headroom: pick.numbers.headroom,
        demand: pick.demand,
        worth: pick.worth,
        grade: t.grade,
        grip: t.grip,
        grades: t.grades ?? nowhere,
        strengths: t.strengths ?? zero,
        missing: t.missing ?? [],
        near: t.near ?? [],
        apart: t.apart ?? false,
        spans: t.spans ?? [],
      }
      putTogether.set(t, { pick, fields, weight })
      return [weight]
    }),
  }
}
