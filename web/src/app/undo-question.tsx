import { answerUndo, useUndo } from '../data/undo.ts';
import { Button, Dialog } from '../kit/index.ts';
import { facetInWords, valueInWords } from '../stage/shared/describe-change.ts';

/** Undo would overwrite what somebody has done since: says who and what, and does nothing until the person chooses. */
export function UndoQuestionDialog() {
  const question = useUndo((state) => state.question);
  if (!question) return null;
  const { direction, label, clashes, since } = question;
  const [first] = clashes;
  const word = direction === 'undo' ? 'Undo' : 'Redo';
  const gone = first?.reason === 'deleted' || first?.reason === 'missing';
  return (
    <Dialog
      open
      onClose={() => answerUndo(false)}
      title={`${word} “${label}”?`}
      description={
        since
          ? `${since.by.name} has ${gone ? 'deleted it' : 'changed it'} since: “${since.label}”, at ${new Date(since.at).toLocaleTimeString()}.`
          : `Somebody has ${gone ? 'deleted it' : 'changed it'} since.`
      }
    >
      {!gone && (
        <ul className="mb-4 text-ink-soft">
          {clashes.map((clash, i) => (
            <li key={i} className="break-words">
              {clash.facet
                ? `${facetInWords(clash.facet)} is now: ${valueInWords(clash.current)}`
                : 'It is there again.'}
            </li>
          ))}
        </ul>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={() => answerUndo(false)}>Leave it as it is</Button>
        {first?.reason !== 'missing' && first?.reason !== 'there' && (
          <Button tone="primary" onClick={() => answerUndo(true)}>
            {word} anyway
          </Button>
        )}
      </div>
    </Dialog>
  );
}
