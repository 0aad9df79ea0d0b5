// Before each file of tests: a page for the parts to stand on, a server made by hand, which the client takes hold of when it is made, and
// patience for a busy machine.
import './dom'
import './server'
import { configure } from '@testing-library/react'

configure({ asyncUtilTimeout: 15_000 })
