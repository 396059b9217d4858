import { CHECKS } from '@kite/core/proof/table';
import { DEFAULT_RULES, type Rules } from '@kite/core/proof/types';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { useEditor, useSlice } from '../store/context';
import { keepRules } from '../store/rules';
import { FindingList } from './FindingList';

interface RuleField {
  readonly key: keyof Rules;
  readonly label: string;
  /** What is shown for one of the rule's own. */
  readonly times: number;
  readonly min: number;
  readonly max: number;
  readonly decimals: number;
  readonly unit: string;
}

const FIELDS: readonly RuleField[] = [
  { key: 'wordsPerSecond', label: 'Words read in a second', times: 1, min: 0.5, max: 20, decimals: 1, unit: '' },
  {
    key: 'leastText',
    label: 'Smallest text, of the shorter side',
    times: 100,
    min: 0,
    max: 50,
    decimals: 1,
    unit: '%',
  },
  { key: 'contrast', label: 'Least contrast', times: 1, min: 1, max: 21, decimals: 1, unit: ': 1' },
  { key: 'edge', label: 'Edge that text stays out of', times: 100, min: 0, max: 40, decimals: 1, unit: '%' },
];

const RulesForm = () => {
  const editor = useEditor();
  const rules = useSlice((s) => s.rules);
  const set = (next: Rules) => {
    keepRules(next);
    editor.set({ rules: next });
  };
  return (
    <details className="border-t border-line px-3 py-2">
      <summary className="cursor-pointer text-ink-2">What is looked for, and how strictly</summary>
      <div className="flex flex-col gap-1.5 pt-2">
        {FIELDS.map(({ key, label, times, min, max, decimals, unit }) => (
          <div key={key} className="grid grid-cols-[1fr_88px] items-center gap-2">
            <span className="text-ink-2">{label}</span>
            <NumberField
              label={label}
              value={rules[key] * times}
              min={min}
              max={max}
              decimals={decimals}
              {...(unit && { unit })}
              onChange={(v) => set({ ...rules, [key]: v / times })}
            />
          </div>
        ))}
        <Button className="!h-[26px] self-start" onClick={() => set(DEFAULT_RULES)}>
          As it was at first
        </Button>
        <ul className="list-disc pt-1 pl-4 text-sm text-ink-2">
          {CHECKS.map(({ kind, about }) => (
            <li key={kind}>{about}</li>
          ))}
        </ul>
      </div>
    </details>
  );
};

/** What there is to look at, scene by scene, and what is looked for; `onLeave` is called where one goes to look at it. */
export const CheckList = ({ onLeave }: { onLeave: () => void }) => {
  const { findings, doc } = useSlice((s) => ({ findings: s.findings, doc: s.doc }));
  const scenes = doc.order.flatMap((id) => doc.scenes[id] ?? []);
  return (
    <>
      <div className="min-h-0 overflow-y-auto p-1">
        {!findings?.length && (
          <p className="px-2 py-1.5 text-ink-2">
            {findings ? 'Nothing to look at: every check passes in every scene.' : 'Looking through the scenes …'}
          </p>
        )}
        {scenes.map((scene) => {
          const own = (findings ?? []).filter((finding) => finding.scene === scene.id);
          return (
            own.length > 0 && (
              <section key={scene.id} aria-label={scene.name}>
                <h3 className="px-2 pt-1.5 text-sm font-medium text-ink-2">{scene.name}</h3>
                <FindingList findings={own} onShow={onLeave} />
              </section>
            )
          );
        })}
      </div>
      <RulesForm />
    </>
  );
};
