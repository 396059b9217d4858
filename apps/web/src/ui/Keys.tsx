export const Key = ({ children }: { children: string }) => (
  <kbd className="rounded-sm bg-paper-2 px-1.5 font-sans text-sm whitespace-nowrap">{children}</kbd>
);

/** What keys are for, by subject. */
export const KeyTable = ({
  subjects,
}: {
  subjects: readonly (readonly [string, readonly { readonly label: string; readonly keys: readonly string[] }[]])[];
}) => (
  <div className="columns-2 gap-8">
    {subjects.map(([subject, shortcuts]) => (
      <section key={subject} className="mb-4 break-inside-avoid">
        <h2 className="mb-1 font-semibold">{subject}</h2>
        <dl>
          {shortcuts.map(({ label, keys }) => (
            <div key={label} className="flex items-baseline justify-between gap-3 border-b border-line py-0.5">
              <dt className="min-w-0 truncate" title={label}>
                {label}
              </dt>
              <dd className="flex shrink-0 gap-1">
                {keys.map((key) => (
                  <Key key={key}>{key}</Key>
                ))}
              </dd>
            </div>
          ))}
        </dl>
      </section>
    ))}
  </div>
);
