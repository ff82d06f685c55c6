import { Empty } from '@/ui/kit/empty';

/** An address that leads nowhere. */
export default function NotHere() {
  return (
    <main className="mx-auto mt-[12vh] max-w-[640px] px-4">
      <div className="sheet">
        <Empty words="There is nothing at this address.">
          <a href="/today" className="btn btn-go">
            Go to Today
          </a>
        </Empty>
      </div>
    </main>
  );
}
