import { useQuery } from '@tanstack/react-query'
import { api, ask, type Note } from '../kit/api'
import { queryKey } from '../kit/queries'
import { EffectPart } from './effect'

/** What a note changed, word by word, and what happened after it. */
export function NoteDetail({ note, nights }: { note: Note; nights: boolean }) {
  const changes =
    useQuery({
      queryKey: queryKey('notechanges', note.id),
      queryFn: () => ask(api.GET('/api/notes/{note}/changes', { params: { path: { note: note.id } } })),
      enabled: note.isAutomatic,
    }).data ?? []
  return (
    <div data-testid="note-detail">
      <h3 className="!mt-0">{note.text}</h3>
      {note.term && <p className="quiet text-[14px]">About the term “{note.term}”</p>}
      {note.effects.length > 0 ? (
        note.effects.map((e) => <EffectPart key={e.measure} effect={e} nights={nights} />)
      ) : (
        <p className="quiet text-[14px] mb-3">
          {note.isAutomatic && note.kinds.length === 0
            ? 'The first time it was sent: there are no days before to compare with.'
            : 'No figures are known of these days. Import them under By day to see whether it helped.'}
        </p>
      )}
      {changes.map((c) => (
        <section key={c.field} className="mb-2">
          <h4 className="text-[14px] font-semibold">{c.label}</h4>
          <p className="text-[14px] whitespace-pre-wrap break-words">
            {c.words.map((w, i) =>
              w.are === 'added' ? (
                // biome-ignore lint/suspicious/noArrayIndexKey: the runs of one answer
                <ins key={i}>{w.text}</ins>
              ) : w.are === 'removed' ? (
                // biome-ignore lint/suspicious/noArrayIndexKey: the runs of one answer
                <del key={i}>{w.text}</del>
              ) : (
                // biome-ignore lint/suspicious/noArrayIndexKey: the runs of one answer
                <span key={i}>{w.text}</span>
              ),
            )}
          </p>
        </section>
      ))}
    </div>
  )
}
