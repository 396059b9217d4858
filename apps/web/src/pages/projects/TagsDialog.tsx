import { MOST_TAGS, PROJECTS, type ProjectCard } from '@kite/api/projects';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ask } from '../../api/client';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { sayWrong } from '../../ui/says';

/** Words in the order in which they were written, each once, as many as a project may have. */
export const tagsIn = (text: string): string[] =>
  [...new Set(text.split(',').map((tag) => tag.trim().slice(0, 40).trim()))].filter(Boolean).slice(0, MOST_TAGS);

export const TagsDialog = ({ project, onClose }: { project: ProjectCard; onClose: () => void }) => {
  const queries = useQueryClient();
  const [text, setText] = useState(project.tags.join(', '));
  const keep = useMutation({
    mutationFn: () => ask(PROJECTS.tag, { id: project.id }, { tags: tagsIn(text) }),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['projects'] });
      onClose();
    },
    onError: sayWrong,
  });
  return (
    <Dialog open onClose={onClose} title={`Words to find “${project.name}” by`} width={440}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          keep.mutate();
        }}
      >
        <label className="flex flex-col gap-1">
          <span className="text-ink-2">Words, with commas between: a client, a season, a kind</span>
          <input
            autoFocus
            value={text}
            maxLength={500}
            className="h-[28px] rounded-md bg-paper-2 px-2"
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        <Button type="submit" look="primary" className="self-end" disabled={keep.isPending}>
          Keep these words
        </Button>
      </form>
    </Dialog>
  );
};
