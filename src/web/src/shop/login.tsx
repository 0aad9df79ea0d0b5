import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, ask } from '../kit/api'
import { Rabbit } from '../kit/shophead'

/** Asks for the owner's password, where the shop is opened from another computer. */
export function Login() {
  const [password, setPassword] = useState('')
  const [error, setError] = useState('')
  const navigate = useNavigate()
  const cache = useQueryClient()
  useEffect(() => {
    document.title = 'Log in · Tin Rabbit'
  }, [])
  const logIn = async () => {
    try {
      await ask(api.POST('/api/session', { body: { password } }))
      await cache.invalidateQueries()
      navigate('/', { replace: true })
    } catch (e) {
      setError((e as Error).message)
    }
  }
  return (
    <main className="max-w-sm mx-auto pt-[18vh] px-6">
      <div className="flex items-center gap-2 head font-bold text-[22px] mb-6">
        <Rabbit /> Tin Rabbit
      </div>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          logIn()
        }}
      >
        <label className="block mb-4">
          <span className="sub block">Owner’s password</span>
          <input
            autoFocus
            type="password"
            autoComplete="current-password"
            className="input w-full"
            value={password}
            maxLength={200}
            onChange={(e) => setPassword(e.target.value)}
          />
        </label>
        {error && (
          <p className="text-accent mb-3" role="alert">
            {error}
          </p>
        )}
        <button type="submit" className="btn btn-primary" disabled={!password}>
          Log in
        </button>
      </form>
    </main>
  )
}
