import type { Param } from '@kite/core/document/params';
import { KINDS } from '@kite/core/recipe/table';
import { HelpFrame } from './HelpFrame';
import { ABOUT } from './cards';

const GROUPS = [
  ['source', 'Sources add outlines or pictures'],
  ['step', 'Steps change what stands above them'],
  ['paint', 'Paints draw the outlines'],
  ['cover', 'Covers change what is drawn: masks, mattes, effects'],
  ['group', 'Groups keep cards together'],
] as const;

/** What a value is, by its kind. */
const aboutOf = ({ label, kind, hint, ...param }: Param): string => {
  const choices = 'choices' in param ? param.choices.map((choice) => choice.label.toLowerCase()).join(', ') : '';
  return [label, kind === 'choice' && choices ? ` (${choices})` : '', hint ? `: ${hint}` : ''].join('');
};

/** What each card does and what can be set on it, as the cards say it themselves. */
export const CardsPage = () => (
  <HelpFrame title="Cards">
    <p>
      A layer shows what its recipe makes, from top to bottom. Every value of a card can have keyframes and a formula.
      New ones come from “Add a card” below the recipe, or by Ctrl+K and a name.
    </p>
    {GROUPS.map(([role, title]) => (
      <section key={role} className="flex flex-col gap-2">
        <h2 className="text-lg font-semibold">{title}</h2>
        <dl className="flex flex-col gap-2">
          {[...KINDS.values()]
            .filter((kind) => kind.role === role)
            .map(({ kind, label, params }) => (
              <div key={kind} id={kind}>
                <dt className="font-medium">{label}</dt>
                <dd>
                  {ABOUT[kind]}
                  <span className="block text-sm text-ink-2">{Object.values(params).map(aboutOf).join(' · ')}</span>
                </dd>
              </div>
            ))}
        </dl>
      </section>
    ))}
  </HelpFrame>
);
