import createClient from 'openapi-fetch'
import type { components, paths } from '../api/schema'

export const api = createClient<paths>({ baseUrl: '' })

type Schemas = components['schemas']
export type Shop = Schemas['ShopView']
export type Product = Schemas['ProductView']
export type Market = Schemas['MarketView']
export type Dug = Schemas['DugTerm']
export type Norm = Schemas['Norm']
export type Measured = Schemas['Measured']
export type Pick = Schemas['PickView']
export type Picks = Schemas['PicksView']
export type Home = Schemas['Home']
export type Fit = Schemas['Fit']
export type Grade = Schemas['Grade']
export type Listing = Schemas['ListingView']
export type Field = Schemas['FieldView']
export type Weighing = Schemas['WeighingView']
export type PickWeight = Schemas['PickWeight']
export type Span = Schemas['Span']
export type Room = Schemas['Room']

/** What stands in one field: a text, a list, or attributes by name. */
export type Value = string | string[] | Record<string, string | string[]>
export type Copy = Record<string, Value>

/** Unwraps an answer; a problem becomes an error that says what was wrong. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call
  if (response.ok) return data as T
  const problem = error as { detail?: string; title?: string } | undefined
  throw new Error(problem?.detail ?? problem?.title ?? `The server answered ${response.status}.`)
}
