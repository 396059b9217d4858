import { expect, it } from 'vitest';
import { httpMarkdown } from './markdown';

it('docs/http.md is what the calls are checked by', async () => {
  await expect(httpMarkdown()).toMatchFileSnapshot('../../../docs/http.md');
});
