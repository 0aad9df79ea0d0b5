import type { ReactNode } from 'react'
import type { Listing, Weighing } from '../kit/api'
import type { ListingSteps } from '../kit/drafts/steps'
import type { Desk } from '../kit/shop'

/** What every view of Weigh is given: the listing as it is being edited, and what stands around the view. */
export type ViewProps = {
  desk: Desk
  listing: Listing
  steps: ListingSteps
  weighing: Weighing
  /** The names of the views. */
  head: ReactNode
  /** The names of the panels beside the view. */
  tabs: ReactNode
  /** The moves, where their panel is chosen. */
  moves: ReactNode
}
