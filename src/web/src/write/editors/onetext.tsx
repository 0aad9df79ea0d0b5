import { Tape } from '../../kit/tape'
import { asText, measure, withoutSeconds } from '../texts'
import { Threaded } from '../threaded'
import { type EditorProps, none } from './props'

/** One text: a line, several lines, or separate words. */
export function OneText({ field, value, weighedValue, change, pieces, pointed, describedBy, invalid, placeholder, width }: EditorProps) {
  const text = asText(value)
  const single = field.shape === 'words' ? text.trim().replace(/\s+/g, ' ') : text
  const size =
    field.role === 'title'
      ? 'text-[21px] leading-[1.75]'
      : field.shape === 'words'
        ? 'text-[15px] leading-[1.9]'
        : 'text-[15px] leading-[1.9]'
  return (
    <>
      <div className="field-box">
        <Threaded
          label={field.label}
          value={text}
          change={field.shape === 'words' ? (t) => change(t.endsWith(' ') ? withoutSeconds(t) : t) : change}
          pieces={pieces[0] ?? none}
          weighed={asText(weighedValue)}
          pointed={pointed}
          className={size}
          line={field.shape === 'line' || field.shape === 'words'}
          describedBy={`${field.key}-tape ${describedBy ?? ''}`.trim()}
          invalid={invalid}
          placeholder={
            placeholder ||
            (field.role === 'title'
              ? 'Start with what it is'
              : field.shape === 'words'
                ? 'Words that no other field has, separated by spaces'
                : `Write the ${field.label.toLowerCase()}`)
          }
        />
      </div>
      {field.max !== null && (
        <Tape
          id={`${field.key}-tape`}
          used={measure(single, field.unit)}
          max={field.max}
          unit={field.unit}
          shows={field.shows}
          searched={field.indexedFirst}
        />
      )}
      {field.maxPixels !== null && width && (
        <p className={`num text-[12.5px] ${width.pixels > field.maxPixels ? 'text-accent' : 'quiet'}`}>
          {Math.round(width.pixels)} of {field.maxPixels} pixels
          {width.suffix && <span className="quiet font-sans"> with “{width.suffix.trim()}”</span>}
        </p>
      )}
    </>
  )
}
