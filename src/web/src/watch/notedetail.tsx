import { useQuery } from '@tanstack/react-query'
import { api, ask, type Note, type Schemas } from '../kit/api'
import { HelpLink } from '../kit/helplink'
import { counted, dayName, fixed, full } from '../kit/numbers'
import { queryKey } from '../kit/queries'
import { EffectPart } from './effect'

type RankEffect = Schemas['RankEffectView']

/** What a note changed, word by word, and what happened after it. */
export function NoteDetail({ note, nights }: { note: Note; nights: boolean }) {
  const changes =
    useQuery({
      queryKey: queryKey('notechanges', note.id),
      queryFn: () => ask(api.GET('/api/notes/{note}/changes', { params: { path: { note: note.id } } })),
      enabled: note.isAutomatic,
    }).data ?? []
  const ranks = useQuery({
    queryKey: queryKey('noteranks', note.id),
    queryFn: () => ask(api.GET('/api/notes/{note}/ranks', { params: { path: { note: note.id } } })),
    enabled: note.listingId !== null && note.marketId !== null,
  }).data
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
      {ranks && <RanksPart ranks={ranks} />}
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

/** Ranks before and after a change: the verdict, what it rests on, and the terms that were won and lost. */
function RanksPart({ ranks }: { ranks: RankEffect }) {
  const { effect } = ranks
  return (
    <section className="mb-4" data-testid="effect-ranks">
      <h4 className="text-[14.5px] font-semibold">
        Ranks <HelpLink to="before-and-after" about="before and after" />
      </h4>
      <p className="text-[15px]" data-testid="verdict">
        {ranks.says}
      </p>
      {effect.p !== null && (
        <p className="quiet text-[13px] mt-1">
          {counted(effect.terms, 'term')} found on both sides: {full(effect.better)} better, {full(effect.worse)} worse. Wilcoxon’s
          signed-rank test: p = {effect.p < 0.001 ? 'below 0.001' : fixed(effect.p, 3)}; from 0.05 on it can be chance.
        </p>
      )}
      {(
        [
          ['Found now', effect.gained],
          ['No longer found', effect.lost],
        ] as const
      ).map(
        ([name, terms]) =>
          terms.length > 0 && (
            <p key={name} className="text-[14px] mt-1">
              <b className="font-semibold">{name}:</b> {terms.join(', ')}
            </p>
          ),
      )}
      {ranks.from !== null && ranks.to !== null && (
        <p className="quiet text-[13px] mt-1">
          Checks of {counted(effect.daysBefore, 'day')} before and {counted(effect.daysAfter, 'day')} after, {dayName(ranks.from)} to{' '}
          {dayName(ranks.to)}.
        </p>
      )}
    </section>
  )
}
