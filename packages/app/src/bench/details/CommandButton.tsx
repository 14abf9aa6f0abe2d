import { Button } from 'antd';
import { useBench } from '../../store/bench.ts';
import { type Command, keyText } from '../commands/command.ts';

/** A command as a button of the details, with its key. */
export function CommandButton({ command }: { readonly command: Command }) {
  const label = useBench((s) => command.label(s));
  const { key } = command;
  return (
    <Button size="small" onClick={() => command.act(useBench.getState())}>
      {label}
      {key && <kbd>{keyText(key)}</kbd>}
    </Button>
  );
}
