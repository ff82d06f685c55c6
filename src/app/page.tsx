import { redirect } from 'next/navigation';

export default function Door(): never {
  redirect('/today');
}
