/** What the claimant said to something that was asked; nothing where they said nothing. */
export const ClaimantsWord = ({ word }: { word: string | null }) =>
  word === null ? null : (
    <span className="text-base-content">
      <span className="quiet">The claimant:</span> “{word}”
    </span>
  );
