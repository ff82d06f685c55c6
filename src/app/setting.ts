import { cookies } from 'next/headers';

/** How the person set this desk, on this computer: kept in cookies, so that the first picture is already right. */
export async function deskSetting(): Promise<{ night: boolean; covered: boolean }> {
  const jar = await cookies();
  return { night: jar.get('dahlia_setting')?.value === 'night', covered: jar.get('dahlia_cover')?.value === 'yes' };
}
