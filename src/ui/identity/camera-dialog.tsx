'use client';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../kit/button';
import { Dialog } from '../kit/dialog';
import { FieldError } from '../kit/field';

/** Takes a picture with the computer's own camera. @param facing `user` for a face, `environment` for a document */
export function CameraDialog({
  title,
  facing,
  onTaken,
  onClose,
}: {
  title: string;
  facing: 'user' | 'environment';
  onTaken: (picture: Blob) => void;
  onClose: () => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  const [ready, setReady] = useState(false);
  const [trouble, setTrouble] = useState('');
  useEffect(() => {
    let stream: MediaStream | null = null;
    let left = false;
    const begin = async () => {
      try {
        const size = { width: { ideal: 1920 }, height: { ideal: 1080 } };
        stream = await navigator.mediaDevices.getUserMedia({ video: { facingMode: facing, ...size } });
        if (left || !video.current) return stream.getTracks().forEach((track) => track.stop());
        video.current.srcObject = stream;
        await video.current.play();
        setReady(true);
      } catch {
        setTrouble('The camera cannot be used. Allow it in the browser, or choose a file instead.');
      }
    };
    void begin();
    return () => {
      left = true;
      for (const track of stream?.getTracks() ?? []) track.stop();
    };
  }, [facing]);
  const take = () => {
    const from = video.current;
    if (!from) return;
    const canvas = document.createElement('canvas');
    canvas.width = from.videoWidth;
    canvas.height = from.videoHeight;
    canvas.getContext('2d')?.drawImage(from, 0, 0);
    canvas.toBlob((blob) => blob && onTaken(blob), 'image/jpeg', 0.92);
  };
  return (
    <Dialog open title={title} onOpenChange={(open) => open || onClose()}>
      <video ref={video} muted playsInline className="aspect-video w-full bg-wash" aria-label="What the camera sees" />
      {trouble ? <FieldError>{trouble}</FieldError> : null}
      <Button look="go" className="mt-4" disabled={!ready} onClick={take}>
        Take the picture
      </Button>
    </Dialog>
  );
}
