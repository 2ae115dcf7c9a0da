/** Ends a form that is opened in place. */
export const FormButtons = ({ act, onClose }: { act: string; onClose: () => void }) => (
  <div className="mt-3 flex gap-2">
    <button className="btn btn-primary btn-sm">{act}</button>
    <button type="button" className="btn btn-sm" onClick={onClose}>
      Cancel
    </button>
  </div>
);
