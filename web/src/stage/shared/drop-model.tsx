import { MODEL_EXTENSIONS } from '@eskovan/core/format';
import { Upload } from 'lucide-react';
import { useDropzone } from 'react-dropzone';
import { Button, cx } from '../../kit/index.ts';
import { gatherFiles } from '../../site/gather-files.ts';

interface DropModelProps {
  /** Each a model of its own; see `gatherFiles`. */
  onFiles: (files: File[]) => void;
  compact?: boolean;
}

/** Takes a model by drop or picker. What it is is decided by reading it, not by its name. */
export function DropModel({ onFiles, compact }: DropModelProps) {
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    onDrop: (dropped) => void gatherFiles(dropped).then((files) => files.length > 0 && onFiles(files)),
  });
  return (
    <div
      {...getRootProps()}
      className={cx(
        'flex flex-col items-center justify-center rounded-[10px] border border-dashed text-center transition-colors duration-150',
        compact ? 'gap-1.5 p-2.5' : 'h-full gap-3 p-10',
        isDragActive ? 'border-lagoon bg-lagoon-wash' : 'border-ink-faint/50 bg-paper',
      )}
    >
      <input {...getInputProps()} aria-label="Model file" />
      {!compact && <h2 className="text-xl font-semibold">Bring a model in</h2>}
      {!compact && (
        <p className="max-w-110 text-ink-soft">
          Drop a building, an interior, a landscape or a product here: glTF and GLB, OBJ, STL, PLY, IFC, heights as
          ASCII grid or GeoTIFF. A model of several files comes with all of them: together, as a folder or as a zip. It
          is measured, cut into plans and lit while you wait.
        </p>
      )}
      <Button tone={compact ? 'plain' : 'primary'} small={compact ?? false} icon={<Upload size={14} />} onClick={open}>
        {compact ? 'Add a model' : 'Choose a file'}
      </Button>
      {compact && <p className="text-sm text-ink-faint">or drop one here</p>}
      <span className="sr-only">Read are {MODEL_EXTENSIONS.join(', ')}.</span>
    </div>
  );
}
