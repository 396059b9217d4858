import { NAMES } from '@kite/core/formula/compile';
import { READY_EASES } from '@kite/core/formula/functions/motion';
import { FUNCTIONS } from '@kite/core/formula/functions/table';
import { READY_FORMULAS } from '@kite/core/formula/ready';
import type { ReactNode } from 'react';
import { HelpFrame } from './HelpFrame';

const Code = ({ children }: { children: ReactNode }) => (
  <code className="rounded-sm bg-tail-2 px-1 py-0.5 font-mono text-sm text-tail">{children}</code>
);

const Part = ({ id, title, children }: { id: string; title: string; children: ReactNode }) => (
  <section aria-labelledby={id} className="flex flex-col gap-2">
    <h2 id={id} className="text-lg font-semibold">
      {title}
    </h2>
    {children}
  </section>
);

const PARTS = [
  ['begin', 'To begin with'],
  ['values', 'Values'],
  ['references', 'References'],
  ['sets', 'Sets and copies'],
  ['ready', 'Ready formulas'],
  ['names', 'Names'],
  ['functions', 'Functions'],
  ['wrong', 'When something is wrong'],
] as const;

/** What a formula is, and everything that one can be made of. */
export const FormulasPage = () => (
  <HelpFrame title="Formulas: the language">
    <ul className="flex flex-wrap gap-x-4 gap-y-1">
      {PARTS.map(([id, title]) => (
        <li key={id}>
          <a href={`#${id}`} className="text-sky underline">
            {title}
          </a>
        </li>
      ))}
    </ul>
    <Part id="begin" title="To begin with">
      <p>
        A formula works out a property at every frame. Move the pointer over a field of the inspector and press its ƒ:
        type a formula, or choose a ready one. Or drag the ƒ to another property, to a ribbon or to a layer, and say how
        it follows: the same, late by, scaled by, opposite.
      </p>
      <p>
        With a lead that is animated and five bars in a set with it, this is all that each bar needs. It follows the
        lead, later and lower by its order, and two knobs tune all five:
      </p>
      <p>
        <Code>{'lag({Lead bar / Position}, {Rig / Delay} * order) + [0, {Rig / Step} * order]'}</Code>
      </p>
      <p>
        The keyframes of the property stay where they are: <Code>value</Code> is what they give. A formula can be turned
        off, and baked to keyframes, and live again.
      </p>
    </Part>
    <Part id="values" title="Values">
      <ul className="flex list-disc flex-col gap-1 pl-5">
        <li>
          Numbers, <Code>12.5</Code>, and percentages, <Code>40%</Code>: opacity, scale and other percentages are 1 for
          100%. Angles are degrees, distances pixels, times seconds.
        </li>
        <li>
          Vectors, <Code>[12, -4]</Code>; their parts are <Code>.x</Code> and <Code>.y</Code>. With a number they work
          element by element: <Code>[2, 3] * 10</Code>.
        </li>
        <li>
          Colours, <Code>#FFB23E</Code>; texts, <Code>&quot;Stop &quot; + order</Code>; switches, <Code>true</Code> and{' '}
          <Code>false</Code>.
        </li>
        <li>
          <Code>+ - * / ^</Code>, comparisons <Code>= != &lt; &lt;= &gt; &gt;=</Code>, <Code>and or not</Code>,
          brackets, and choices, <Code>if(order = 0, 100%, 40%)</Code>.
        </li>
      </ul>
    </Part>
    <Part id="references" title="References">
      <p>
        A property is read by its names between braces: <Code>{'{Lead bar / Position}'}</Code>,{' '}
        <Code>{'{Rig / Delay}'}</Code> for a knob, <Code>{'{Badge / Trim / End}'}</Code> for a card’s. Typing{' '}
        <Code>{'{'}</Code> lists them. <Code>{'{this / Turn}'}</Code> is the layer’s own. Renaming, reordering or adding
        layers breaks nothing: what is meant is kept, the name is only how it is shown. A point’s parts can have
        formulas of their own.
      </p>
    </Part>
    <Part id="sets" title="Sets and copies">
      <p>
        Select layers and make a set: the first leads with <Code>order</Code> 0, the others follow with 1, 2, 3.
        Duplicating a follower adds it at the end; other layers that come in between change nothing. On a card above a
        repeater <Code>order</Code> is the number of the copy, and <Code>count</Code> how many there are.
      </p>
    </Part>
    <Part id="ready" title="Ready formulas">
      <ul className="grid grid-cols-2 gap-2">
        {READY_FORMULAS.map(({ name, says, sketch }) => (
          <li key={name} className="flex items-center gap-3 rounded-md border border-line px-3 py-2">
            <svg aria-hidden viewBox="0 0 32 16" className="h-6 w-12 shrink-0">
              <path d={sketch} fill="none" stroke="var(--tail)" strokeWidth={1.5} strokeLinejoin="round" />
            </svg>
            <span>
              <span className="block font-medium">{name}</span>
              <span className="block text-sm text-ink-2">{says}</span>
            </span>
          </li>
        ))}
      </ul>
    </Part>
    <Part id="names" title="Names">
      <dl className="grid grid-cols-[100px_1fr] gap-x-4 gap-y-1">
        {[...NAMES.values()].map(({ name, says }) => (
          <div key={name} className="contents">
            <dt>
              <Code>{name}</Code>
            </dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
    </Part>
    <Part id="functions" title="Functions">
      <table className="border-collapse text-left">
        <thead className="text-sm text-ink-2">
          <tr>
            <th className="py-1 pr-4 font-medium">Function</th>
            <th className="py-1 pr-4 font-medium">What it does</th>
            <th className="py-1 font-medium">For example</th>
          </tr>
        </thead>
        <tbody>
          {[...FUNCTIONS.values()].map(({ name, takes, says, example }) => (
            <tr key={name} className="border-t border-line align-top">
              <td className="py-1.5 pr-4">
                <span className="font-mono text-sm whitespace-nowrap text-tail">{name}</span>
                <span className="block text-sm text-ink-2">{takes}</span>
              </td>
              <td className="py-1.5 pr-4">{says}</td>
              <td className="py-1.5">
                <Code>{example}</Code>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-ink-2">
        Arguments with a ? may be left out. Ready eases: {Object.keys(READY_EASES).join(', ')}; eases that you keep are{' '}
        <Code>{'{Eases / Name}'}</Code>.
      </p>
    </Part>
    <Part id="wrong" title="When something is wrong">
      <p>
        The field says what and underlines where; the property plays its keyframes meanwhile, and the sign with a count
        at the top of the editor lists it. Two properties that read each other go round in a circle, which is named in
        order; reading oneself at another time is a circle too. Randomness and drift are the same on every run and in
        every file that is rendered.
      </p>
    </Part>
  </HelpFrame>
);
