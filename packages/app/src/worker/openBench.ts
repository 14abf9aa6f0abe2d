/** What the document worker needs once a project is open. */
export { modelBuffers } from './buffers.ts';
export { healthReport } from './healthRows.ts';
export { sessionController } from './sessionController.ts';
