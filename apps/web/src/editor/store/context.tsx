import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { Editor } from './editor';
import type { EditorState } from './state';

export const EditorContext = createContext<Editor | null>(null);

export const useEditor = (): Editor => {
  const editor = useContext(EditorContext);
  if (!editor) throw new Error('used outside an open project');
  return editor;
};

/** A slice of the editor's state; the component renders again when the slice changes. */
export const useSlice = <T,>(select: (state: EditorState) => T): T => useStore(useEditor().store, useShallow(select));
