'use client';
import { useEffect, useRef } from 'react';
import SignaturePad from 'signature_pad';
import { signaturePath } from '@/core/parcel/signature';
import { Button } from '../kit/button';

/** A place to sign with pen, finger or mouse. @param onSigned hears of the picture and of its lines, or null once it is wiped away */
export function SignatureField({
  label,
  onSigned,
}: {
  label: string;
  onSigned: (png: Blob | null, path: string) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  const told = useRef(onSigned);
  told.current = onSigned;
  useEffect(() => {
    const area = canvas.current;
    if (!area) return;
    // As many dots as the screen has, or the line is blurred.
    const ratio = Math.max(window.devicePixelRatio, 1);
    area.width = area.offsetWidth * ratio;
    area.height = area.offsetHeight * ratio;
    area.getContext('2d')?.scale(ratio, ratio);
    const made = new SignaturePad(area, { penColor: '#241a26', backgroundColor: '#ffffff' });
    pad.current = made;
    const end = () => {
      const path = signaturePath(
        made.toData().map(({ points }) => points),
        { width: area.offsetWidth, height: area.offsetHeight },
      );
      area.toBlob((png) => told.current(png, path), 'image/png');
    };
    made.addEventListener('endStroke', end);
    return () => {
      made.removeEventListener('endStroke', end);
      made.off();
    };
  }, []);
  return (
    <div>
      <span className="label mb-1 flex items-baseline justify-between">
        {label}
        <Button
          look="small-link"
          onClick={() => {
            pad.current?.clear();
            onSigned(null, '');
          }}
        >
          Clear
        </Button>
      </span>
      <canvas
        ref={canvas}
        aria-label={label}
        role="img"
        className="h-[120px] w-full touch-none rounded-control border border-edge bg-white"
      />
    </div>
  );
}
