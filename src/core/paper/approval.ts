import type { Approver, PaperFile } from './paper';

/** The latest word on a file: of a named approver, or (null) of whoever has the invoice's link. `at` ISO 8601. */
export type FileDecision = {
  readonly fileId: string;
  readonly approverId: string | null;
  readonly decision: 'approved' | 'change';
  readonly byName: string;
  readonly at: string;
};

/** How a file stands: what was said of it, by whom it still waits, and whether it holds the payment up. */
export type FileStanding = {
  readonly said: readonly FileDecision[];
  readonly waitsFor: readonly Approver[];
  readonly isOpen: boolean;
};

/**
 * How a file stands. With named approvers each of them has to approve, and nobody else's word counts; without, one word of whoever
 * has the link does.
 */
export function fileStanding(
  file: Pick<PaperFile, 'id' | 'approve' | 'approvers'>,
  decisions: readonly FileDecision[],
): FileStanding {
  const { approvers = [] } = file;
  const counts = new Set<string | null>(approvers.length > 0 ? approvers.map(({ id }) => id) : [null]);
  const said = decisions.filter(({ fileId, approverId }) => fileId === file.id && counts.has(approverId));
  const approved = new Set(said.filter(({ decision }) => decision === 'approved').map(({ approverId }) => approverId));
  return {
    said,
    waitsFor: file.approve ? approvers.filter(({ id }) => !approved.has(id)) : [],
    isOpen: file.approve && [...counts].some((one) => !approved.has(one)),
  };
}

/** Who of a document's approvers is asked about which files. */
export const filesByApprover = (
  files: readonly PaperFile[],
): { readonly approver: Approver; readonly files: readonly PaperFile[] }[] => {
  const asked = new Map<string, { approver: Approver; files: PaperFile[] }>();
  for (const file of files.filter(({ approve }) => approve))
    for (const approver of file.approvers ?? [])
      asked.set(approver.id, { approver, files: [...(asked.get(approver.id)?.files ?? []), file] });
  return [...asked.values()];
};
