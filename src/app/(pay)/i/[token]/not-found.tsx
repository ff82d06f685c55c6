/** A link that opens nothing: mistyped, or cut off by a mail program. */
export default function NoSuchLink() {
  return (
    <main className="mx-auto mt-[12vh] max-w-[560px] px-4">
      <div className="sheet p-8">
        <h1 className="title-screen">This link opens nothing</h1>
        <p className="mt-2 text-[15px]/[22px]">
          Perhaps it was cut off on its way. Open it from the e-mail again, or ask whoever sent it to you.
        </p>
      </div>
    </main>
  );
}
