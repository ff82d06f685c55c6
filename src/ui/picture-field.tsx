'use client';
import { useRef, useState } from 'react';
import ReactCrop, { type Crop } from 'react-image-crop';
import { Button } from './kit/button';
import 'react-image-crop/dist/ReactCrop.css';
import { FileDrop } from './import/file-drop';
import { Dialog } from './kit/dialog';
import { FieldError } from './kit/field';
import { upload } from './kit/send-file';

const MOST_WIDTH = 800;

/** The marked part of a picture as a file of its own, at most 800 pixels wide. */
function cropped(image: HTMLImageElement, crop: Crop): Promise<File | null> {
  const scale = image.naturalWidth / image.width;
  const [x, y, width, height] = [crop.x, crop.y, crop.width, crop.height].map((part) => part * scale) as [
    number,
    number,
    number,
    number,
  ];
  const shrink = Math.min(1, MOST_WIDTH / width);
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(width * shrink);
  canvas.height = Math.round(height * shrink);
  canvas.getContext('2d')?.drawImage(image, x, y, width, height, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve) =>
    canvas.toBlob((blob) => resolve(blob && new File([blob], 'picture.png', { type: 'image/png' })), 'image/png'),
  );
}

/** A picture of the business's own: chosen or dropped, cut to what should be seen. @param name as `logo`, in sentences */
export function PictureField({
  name,
  purpose,
  fileId,
  onPicture,
}: {
  name: string;
  purpose: 'logo' | 'seal' | 'picture';
  fileId: string | null;
  onPicture: (id: string | null) => void;
}) {
  const [picture, setPicture] = useState('');
  const [crop, setCrop] = useState<Crop>();
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const image = useRef<HTMLImageElement>(null);

  async function use() {
    if (!image.current) return;
    setBusy(true);
    const { width, height } = image.current;
    const file = await cropped(
      image.current,
      crop?.width && crop.height ? crop : { unit: 'px', x: 0, y: 0, width, height },
    );
    const answer = file ? await upload(file, purpose, file.name) : null;
    setBusy(false);
    if (!answer?.ok) return setTrouble(answer?.words ?? 'This picture cannot be read. Choose another.');
    setPicture('');
    onPicture(answer.value.id);
  }

  return (
    <div>
      <span className="label mb-1 first-letter:uppercase">{name}</span>
      {fileId ? (
        <div className="flex items-center gap-4">
          {/* biome-ignore lint/performance/noImgElement: a picture of the business's own, already small */}
          <img
            src={`/files/own/${fileId}`}
            alt={`The ${name}`}
            className="h-14 w-auto border border-rule bg-[#fffdf9] p-1"
          />
          <Button look="link" onClick={() => onPicture(null)}>
            Without a {name}
          </Button>
        </div>
      ) : (
        <FileDrop
          label={`Choose a ${name}`}
          accept="image/png,image/jpeg,image/webp,image/gif"
          onFile={(file) => {
            setTrouble('');
            setCrop(undefined);
            const reader = new FileReader();
            reader.onload = () => setPicture(String(reader.result));
            reader.readAsDataURL(file);
          }}
        />
      )}
      <Dialog
        open={picture !== ''}
        onOpenChange={(open) => !open && setPicture('')}
        title={`Cut the ${name}`}
        about="Draw around what should be seen, or take all of it."
      >
        <ReactCrop {...(crop ? { crop } : {})} onChange={setCrop}>
          {/* biome-ignore lint/performance/noImgElement: a picture that was just chosen, from this computer */}
          <img ref={image} src={picture} alt="" className="max-h-[46vh] w-auto" />
        </ReactCrop>
        {trouble ? <FieldError>{trouble}</FieldError> : null}
        <div className="mt-4 flex justify-end gap-3">
          <Button onClick={() => setPicture('')}>Cancel</Button>
          <Button look="go" busy={busy} onClick={() => void use()} busyWords="Sending it up">
            Use it
          </Button>
        </div>
      </Dialog>
    </div>
  );
}
