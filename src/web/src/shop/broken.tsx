import { Link, useRouteError } from 'react-router'

/** An address that names nothing. */
export function NotFound() {
  return (
    <main className="max-w-xl mx-auto pt-[14vh] px-6">
      <h1 className="text-[26px] font-bold mb-2">There is no page at this address</h1>
      <p className="quiet mb-5">The link may be old, or the product may have been removed. Nothing of your shop is lost.</p>
      <Link className="btn btn-primary" to="/">
        Go to my shop
      </Link>
    </main>
  )
}

/** What is shown in the place of a screen that failed. The rest of the program goes on. */
export function Broken() {
  const error = useRouteError()
  const message = error instanceof Error ? error.message : String(error)
  return (
    <main className="max-w-xl mx-auto pt-[14vh] px-6" role="alert">
      <h1 className="text-[26px] font-bold mb-2">This screen stopped working</h1>
      <p className="mb-2">What you typed is kept. Reload to go on, or open another screen.</p>
      <p className="quiet text-[13px] mb-5">{message}</p>
      <p className="flex gap-3">
        <button type="button" className="btn btn-primary" onClick={() => window.location.reload()}>
          Reload
        </button>
        <a className="btn" href="/">
          Go to my shop
        </a>
      </p>
    </main>
  )
}
