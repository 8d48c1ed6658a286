/** Who and what bears a line of the journal: its cost centre, then the company's own dimensions. */
export function Bearer({ of: { costCentre, dimensions } }: { of: { costCentre: string | null; dimensions: readonly string[] } }) {
  const said = dimensions.join(' · ');
  return (
    <span title={[costCentre, said].filter(Boolean).join(' · ') || undefined}>
      {costCentre}
      {said && <span className="quiet text-[12px]"> {said}</span>}
    </span>
  );
}
