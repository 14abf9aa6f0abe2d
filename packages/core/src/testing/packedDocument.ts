import type { HemDocument } from '../document/document.ts';
import { shellBoxes } from '../document/layout.ts';
import type { LayoutFinding } from '../inspect/inspection.ts';
import { localJobs } from '../jobs/index.ts';
import type { ParamsOf } from '../operations/catalogue.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import type { UvBox } from '../surface/uvBox.ts';
import { after } from './acts.ts';

/** Where shells lie, six digits. */
export const boxes = (document: HemDocument): number[][] =>
  shellBoxes(document).map((box) => [...(box as UvBox)].map((x) => Number(x.toFixed(6))));
/** The column of tiles in which each lies. */
export const columns = (document: HemDocument): number[] =>
  shellBoxes(document).map((box) => Math.floor((box as UvBox)[0]));
/** What is wrong; a shell that was turned may stand on its head, which is a hint and no fault. */
export const findings = async (document: HemDocument): Promise<readonly LayoutFinding[]> =>
  (await answerQuestion(document, 'inspection', {}, { ...unattended, jobs: localJobs })).findings.filter(
    ({ kind }) => kind !== 'upside-down',
  );

export const packed = (document: HemDocument, params: ParamsOf<'pack'> = {}) =>
  after(document, request('pack', params));
