import { saveAs } from 'file-saver';
import { useNavigate } from 'react-router';
import { bench, unwrap } from '../store/worker.ts';

/**
 * Hands a project file to the browser.
 *
 * @returns what of the project is not in it, being damaged
 */
export async function exportProject(id: string): Promise<string | undefined> {
  const { fileName, bytes, loss } = unwrap(await bench.exportProject(id));
  saveAs(new Blob([bytes as Uint8Array<ArrayBuffer>]), fileName);
  return loss;
}

/** Opens what is whole of a damaged project, as a project of its own. */
export function useRescue(): (id: string) => Promise<void> {
  const navigate = useNavigate();
  return async (id) => {
    const copy = unwrap(await bench.rescue(id));
    const note =
      'This is what is whole, as a project of its own. The damaged one stays on the Rack as it is.';
    navigate(`/project/${copy}`, { state: { note } });
  };
}
