import type { ReactNode } from 'react'
import type { Watch } from '../kit/api'
import type { Desk } from '../kit/shop'

/** What every view of Watch is given. */
export type ViewProps = { desk: Desk; watch: Watch; head: ReactNode }
