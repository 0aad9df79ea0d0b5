// Before each file of tests: a page for the parts to stand on, and a server made by hand, which the client takes hold of when it is made.
import './dom'
import './server'
