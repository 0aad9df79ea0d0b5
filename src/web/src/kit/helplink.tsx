import { Link } from 'react-router'

/** The "?" beside a figure: it opens the part of the help that explains it. */
export function HelpLink({ to, about }: { to: string; about: string }) {
  return (
    <Link className="help-link" to={`/help#${to}`} title={`Help about ${about}`}>
      <span aria-hidden="true">?</span>
      <span className="sr-only">Help about {about}</span>
    </Link>
  )
}
