import { type Delivered, RENDERS } from '@kite/api/renders';
import { useQuery } from '@tanstack/react-query';
import { useEffect } from 'react';
import { ask } from '../../api/client';
import { useEditor, useSlice } from '../store/context';

/** So long the document is left alone before it is checked, in ms. */
const REST = 600;

/** What the last files of each delivery weigh, in bytes: of versions the heaviest. */
const heaviestOf = (files: readonly Delivered[]): (readonly [delivery: string, bytes: number])[] => {
  const heaviest = new Map<string, number>();
  for (const { delivery, last } of files) {
    heaviest.set(delivery, Math.max(heaviest.get(delivery) ?? 0, last?.result?.bytes ?? 0));
  }
  return [...heaviest];
};

/** Checks the document whenever it has come to rest. */
export const useProofs = (): void => {
  const editor = useEditor();
  const { doc, rules, atRest, fonts, delivers } = useSlice((s) => ({
    doc: s.doc,
    rules: s.rules,
    atRest: !s.playing && !s.gesturing,
    fonts: s.fontsCame,
    delivers: s.doc.deliveries.length > 0,
  }));
  const { data } = useQuery({
    queryKey: ['delivered', doc.id],
    queryFn: () => ask(RENDERS.delivered, { id: doc.id }),
    enabled: delivers,
    refetchOnMount: false,
  });
  const weights = JSON.stringify(heaviestOf(data ?? []));
  useEffect(() => {
    if (!atRest) return;
    const timer = setTimeout(
      () => editor.prove({ rules, weights: JSON.parse(weights) as (readonly [string, number])[] }),
      REST,
    );
    return () => {
      clearTimeout(timer);
      editor.stopProving();
    };
  }, [editor, doc, rules, weights, atRest, fonts]);
};
