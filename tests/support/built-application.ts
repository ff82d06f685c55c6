import { buildApplication } from '../../bin/stack/build';

/** Where the tests' build of the application lies. */
export const DIST = '.next-test';

/** Builds the application once for all files, unless these very sources were built before. */
export default function setup(): void {
  buildApplication(DIST);
}
