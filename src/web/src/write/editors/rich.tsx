import { Image } from '@tiptap/extension-image'
import { type Editor, EditorContent, useEditor, useEditorState } from '@tiptap/react'
import { StarterKit } from '@tiptap/starter-kit'
import { useEffect, useRef, useState } from 'react'
import { LinkBox } from '../linkbox'
import { PictureBox } from '../picturebox'
import { asText } from '../texts'
import { type EditorProps, none } from './props'
import { ThreadMarks, threadsOf } from './richthreads'

const extensions = [
  StarterKit.configure({
    heading: { levels: [2, 3, 4] },
    code: false,
    codeBlock: false,
    strike: false,
    underline: false,
    horizontalRule: false,
    link: { openOnClick: false, protocols: ['page'], HTMLAttributes: { rel: null, target: null } },
  }),
  Image,
  ThreadMarks,
]

/** The body of a page: headings, bold, italic, lists, links and pictures, with threads under matched words. */
export function Rich({ field, value, weighedValue, change, pieces, pointed, describedBy, invalid }: EditorProps) {
  const html = asText(value)
  // What was given out last: a text that comes back the same is not put in again, which would lose the cursor.
  const given = useRef(html)
  const latest = useRef(change)
  latest.current = change
  const editor = useEditor({
    extensions,
    content: html,
    injectCSS: false,
    editorProps: {
      attributes: {
        'aria-label': field.label,
        'aria-multiline': 'true',
        role: 'textbox',
        class: 'rich',
        'aria-describedby': describedBy ?? '',
      },
    },
    onUpdate: ({ editor }) => {
      given.current = editor.isEmpty ? '' : editor.getHTML()
      latest.current(given.current)
    },
  })
  useEffect(() => {
    if (!editor || html === given.current) return
    given.current = html
    editor.commands.setContent(html, { emitUpdate: false })
  }, [editor, html])
  const weighed = asText(weighedValue)
  useEffect(() => {
    if (!editor) return
    // Pieces of another text wait for the next answer.
    const marks = weighed === given.current ? (pieces[0] ?? none) : none
    editor.view.dispatch(editor.state.tr.setMeta('threads', threadsOf(editor.state.doc, weighed, marks, pointed)))
  }, [editor, pieces, weighed, pointed])
  if (!editor) return null
  return (
    <div className={`field-box ${invalid ? 'over' : ''}`}>
      <Toolbar editor={editor} />
      <EditorContent editor={editor} />
    </div>
  )
}

function Toolbar({ editor }: { editor: Editor }) {
  const [asked, setAsked] = useState<'link' | 'picture' | null>(null)
  // Draws the buttons again when what the cursor is in changes.
  const on = useEditorState({
    editor,
    selector: ({ editor }) => ({
      level: [2, 3, 4].find((level) => editor.isActive('heading', { level })),
      bold: editor.isActive('bold'),
      italic: editor.isActive('italic'),
      bulletList: editor.isActive('bulletList'),
      orderedList: editor.isActive('orderedList'),
      link: editor.isActive('link') ? String(editor.getAttributes('link').href ?? '') : undefined,
    }),
  })
  const tool = (name: string, title: string, on: boolean, run: () => void) => (
    <button type="button" className="choice" title={title} aria-pressed={on} onMouseDown={(e) => e.preventDefault()} onClick={run}>
      {name}
    </button>
  )
  const close = () => {
    setAsked(null)
    editor.commands.focus()
  }
  return (
    <div className="flex flex-wrap gap-1 mb-1 text-[13px]" role="toolbar" aria-label="Format">
      {([2, 3, 4] as const).map((level) => (
        <span key={level}>
          {tool(`H${level}`, `Heading of level ${level} (Ctrl Alt ${level})`, on.level === level, () =>
            editor.chain().focus().toggleHeading({ level }).run(),
          )}
        </span>
      ))}
      {tool('Bold', 'Ctrl B', on.bold, () => editor.chain().focus().toggleBold().run())}
      {tool('Italic', 'Ctrl I', on.italic, () => editor.chain().focus().toggleItalic().run())}
      {tool('List', 'Ctrl Shift 8', on.bulletList, () => editor.chain().focus().toggleBulletList().run())}
      {tool('Numbers', 'Ctrl Shift 7', on.orderedList, () => editor.chain().focus().toggleOrderedList().run())}
      {tool('Link', 'A page of the shop, or an address', on.link !== undefined, () => setAsked('link'))}
      {tool('Picture', 'A picture with its alt text', false, () => setAsked('picture'))}
      {asked === 'link' && (
        <LinkBox
          now={on.link}
          done={(href, name) => {
            setAsked(null)
            const chain = editor.chain().focus()
            if (href === null) chain.extendMarkRange('link').unsetLink().run()
            else if (editor.state.selection.empty && !editor.isActive('link'))
              chain.insertContent({ type: 'text', text: name, marks: [{ type: 'link', attrs: { href } }] }).run()
            else chain.extendMarkRange('link').setLink({ href }).run()
          }}
          close={close}
        />
      )}
      {asked === 'picture' && (
        <PictureBox
          done={(src, alt) => {
            setAsked(null)
            editor.chain().focus().setImage({ src, alt }).run()
          }}
          close={close}
        />
      )}
    </div>
  )
}
