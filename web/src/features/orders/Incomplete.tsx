/** What is not known: no list, label or cost is whole while anything stands here. On paper too. */
export function Incomplete({ of }: { of: string[] }) {
  if (of.length === 0) return null
  return (
    <section
      role="alert"
      aria-label="Incomplete"
      className="my-2 border-[3px] border-hot px-3 py-1.5 print:border-black"
    >
      <b className="block text-lead text-hot print:text-black">
        INCOMPLETE: allergens, lists and cost are not whole
      </b>
      <ul>
        {of.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </section>
  )
}
