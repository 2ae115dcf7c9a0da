/** A claim as files: its lines for a spreadsheet, and a cover with its papers behind it. */
export function Downloads({ number, className = '' }: { number: string; className?: string }) {
  const path = `/api/claims/${encodeURIComponent(number)}`;
  return (
    <p className={`flex gap-4 text-sm ${className}`}>
      <a className="link inline-block py-1" href={`${path}/lines.csv`} download>
        Lines as CSV
      </a>
      <a className="link inline-block py-1" href={`${path}/cover.pdf`} download>
        Cover sheet with papers
      </a>
    </p>
  );
}
