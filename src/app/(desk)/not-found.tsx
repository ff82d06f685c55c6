import Link from 'next/link';
import { Empty } from '@/ui/kit/empty';

export default function NotHere() {
  return (
    <div className="mx-auto mt-10 max-w-[640px] px-4">
      <div className="sheet">
        <Empty words="This is not here any more, or never was.">
          <Link href="/ask/invoices" className="btn btn-go">
            Go to the invoices
          </Link>
        </Empty>
      </div>
    </div>
  );
}
