import { MODEL_EXTENSIONS } from '@eskovan/core/format';
import { Upload } from 'lucide-react';
import { useDropzone } from 'react-dropzone';
import { Button, cx } from '../../kit/index.ts';

interface DropModelProps {
  onFile: (file: File) => void;
  compact?: boolean;
}

/** Takes a model by drop or picker. What it is is decided by reading it, not by its name. */
export function DropModel({ onFile, compact }: DropModelProps) {
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDrop: ([file]) => file && onFile(file),
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
          ASCII grid or GeoTIFF, or a zip of a model with its textures. It is measured, cut into plans and lit while you
          wait.
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
