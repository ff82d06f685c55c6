'use client';
import { EditorContent, useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { Bold, Heading3, Italic, Link2, List, ListOrdered } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Button } from '../kit/button';

/** A text with its form: bold, italic, lists, links. What is not allowed on a page is taken out when it is shown. */
export function RichText({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (html: string) => void;
}) {
  const [linking, setLinking] = useState<string | null>(null);
  const editor = useEditor({
    extensions: [
      StarterKit.configure({
        heading: { levels: [3] },
        link: { openOnClick: false, protocols: ['https', 'mailto', 'tel'] },
      }),
    ],
    content: value,
    immediatelyRender: false,
    editorProps: {
      attributes: {
        class:
          'input min-h-[84px] py-2 font-serif !text-[16px]/[24px] [&_ul]:list-disc [&_ul]:pl-5 [&_ol]:list-decimal [&_ol]:pl-5 [&_a]:underline [&_p]:mb-2',
        'aria-label': label,
        role: 'textbox',
        'aria-multiline': 'true',
      },
    },
    onUpdate: ({ editor: now }) => onChange(now.getHTML()),
  });
  if (!editor) return <div className="input min-h-[84px]" />;
  const tool = (name: string, icon: ReactNode, on: boolean, act: () => void) => (
    <button
      type="button"
      aria-label={name}
      aria-pressed={on}
      className={`grid size-8 place-items-center rounded-control ${on ? 'bg-petal' : 'hover:bg-wash'}`}
      onMouseDown={(event) => event.preventDefault()}
      onClick={act}
    >
      {icon}
    </button>
  );
  const look = { size: 15, strokeWidth: 1.6, 'aria-hidden': true } as const;
  return (
    <div>
      <div className="mb-1 flex items-center gap-0.5" role="toolbar" aria-label={`Form of ${label}`}>
        {tool('Bold', <Bold {...look} />, editor.isActive('bold'), () => editor.chain().focus().toggleBold().run())}
        {tool('Italic', <Italic {...look} />, editor.isActive('italic'), () =>
          editor.chain().focus().toggleItalic().run(),
        )}
        {tool('Heading', <Heading3 {...look} />, editor.isActive('heading'), () =>
          editor.chain().focus().toggleHeading({ level: 3 }).run(),
        )}
        {tool('List', <List {...look} />, editor.isActive('bulletList'), () =>
          editor.chain().focus().toggleBulletList().run(),
        )}
        {tool('Numbered list', <ListOrdered {...look} />, editor.isActive('orderedList'), () =>
          editor.chain().focus().toggleOrderedList().run(),
        )}
        {tool('Link', <Link2 {...look} />, editor.isActive('link'), () =>
          setLinking((editor.getAttributes('link').href as string | undefined) ?? 'https://'),
        )}
      </div>
      {linking === null ? null : (
        <div className="mb-1 flex gap-2">
          <input
            aria-label="Address of the link"
            className="input"
            autoFocus
            value={linking}
            onChange={(event) => setLinking(event.target.value)}
          />
          <Button
            onClick={() => {
              const chain = editor.chain().focus().extendMarkRange('link');
              if (linking.length > 8) chain.setLink({ href: linking }).run();
              else chain.unsetLink().run();
              setLinking(null);
            }}
          >
            Link it
          </Button>
        </div>
      )}
      <EditorContent editor={editor} />
    </div>
  );
}
