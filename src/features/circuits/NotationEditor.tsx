'use client';

import { autocompletion, type CompletionContext, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { type Diagnostic, lintGutter, setDiagnostics } from '@codemirror/lint';
import { EditorState } from '@codemirror/state';
import { drawSelection, EditorView, keymap, lineNumbers } from '@codemirror/view';
import { useEffect, useRef } from 'react';
import { type SuggestContext, suggest, type TextProblem } from '#core/notation';

const LOOK = EditorView.theme({
  '&': { backgroundColor: 'var(--sheet)', color: 'var(--ink)', fontSize: '1rem' },
  '.cm-content': {
    fontFamily: 'var(--font-reading, monospace)',
    caretColor: 'var(--copper)',
    padding: '0.6rem 0',
  },
  '.cm-line': { padding: '2px 0.6rem' },
  '.cm-gutters': { backgroundColor: 'var(--sunk)', color: 'var(--soft)', border: 'none' },
  '&.cm-focused': { outline: '3px solid var(--copper)' },
  '.cm-cursor': { borderLeftColor: 'var(--copper)', borderLeftWidth: '2px' },
  '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': { backgroundColor: 'var(--copper-wash)' },
  '.cm-tooltip': { backgroundColor: 'var(--sheet)', color: 'var(--ink)', border: '2px solid var(--ink)' },
  '.cm-tooltip-autocomplete ul li': { padding: '6px 10px' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': {
    backgroundColor: 'var(--copper-wash)',
    color: 'var(--ink)',
  },
  '.cm-diagnostic-error': { borderLeft: '4px solid var(--bad)' },
  '.cm-lintRange-error': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--bad)',
    textDecorationThickness: '2px',
  },
});

/** The text of a circuit, read as it is typed; mistakes are underlined where they are. */
export function NotationEditor({
  text,
  problems,
  context,
  onText,
}: {
  text: string;
  problems: readonly TextProblem[];
  context: SuggestContext;
  onText: (text: string) => void;
}) {
  const host = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | null>(null);
  const marked = useRef(false);
  const latest = useRef({ text, context, onText });
  latest.current = { text, context, onText };

  useEffect(() => {
    const made = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: latest.current.text,
        extensions: [
          lineNumbers(),
          history(),
          drawSelection(),
          lintGutter(),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ 'aria-label': 'The circuit as text', spellcheck: 'false' }),
          autocompletion({
            override: [
              (asked: CompletionContext) => {
                const line = asked.state.doc.lineAt(asked.pos);
                const { from, list } = suggest(line.text, asked.pos - line.from, latest.current.context);
                if (list.length === 0) return null;
                if (!asked.explicit && asked.pos - line.from === from) return null;
                return {
                  from: line.from + from,
                  options: list.map(({ insert, says }) => ({ label: insert, detail: says })),
                };
              },
            ],
          }),
          keymap.of([...completionKeymap, ...defaultKeymap, ...historyKeymap]),
          LOOK,
          EditorView.updateListener.of((update) => {
            // What the page itself puts there was typed by nobody.
            const now = update.state.doc.toString();
            if (update.docChanged && now !== latest.current.text) latest.current.onText(now);
          }),
        ],
      }),
    });
    view.current = made;
    return () => {
      view.current = null;
      made.destroy();
    };
  }, []);

  useEffect(() => {
    const current = view.current;
    if (current && current.state.doc.toString() !== text) {
      current.dispatch({ changes: { from: 0, to: current.state.doc.length, insert: text } });
    }
  }, [text]);

  useEffect(() => {
    const current = view.current;
    if (!current) return;
    const { doc } = current.state;
    const marks = problems.flatMap((one): Diagnostic[] => {
      if (one.line > doc.lines) return [];
      const line = doc.line(one.line);
      const from = Math.min(line.to, line.from + one.from);
      const to = Math.min(line.to, line.from + one.to);
      return [{ from, to: Math.max(from, to), severity: 'error', message: one.message }];
    });
    // A change of nothing would still put the cursor back while something is being selected.
    if (marks.length === 0 && !marked.current) return;
    marked.current = marks.length > 0;
    current.dispatch(setDiagnostics(current.state, marks));
  }, [problems]);

  return <div ref={host} className="min-h-56 rounded-md border-2 border-line" data-testid="notation" />;
}
