import { Button, Tooltip } from 'antd';
import { useBench } from '../../store/bench.ts';
import { type Command, keyText } from '../commands/command.ts';
import { STAGE_VIEWS, stageNamed } from '../stages/index.ts';
import type { StageView } from '../stages/stage.ts';
import { takeTool, toolNamed } from '../tools/index.ts';
import type { Tool } from '../tools/tool.ts';
import './rail.css';

/** The six stages, a guide and not a gate: the open one shows its tools and commands. */
export function Rail() {
  const open = useBench((s) => s.stage);
  return (
    <div className="rail">
      <nav className="rail-stages" aria-label="Stages">
        {STAGE_VIEWS.map((stage, i) => (
          <div key={stage.name} className="rail-stage" data-open={stage.name === open}>
            <button
              type="button"
              className="rail-name"
              aria-expanded={stage.name === open}
              onClick={() => useBench.setState({ stage: stage.name })}
            >
              <span className="rail-number">{i + 1}</span>
              {stage.label}
              <Mark stage={stage} />
            </button>
            {stage.name === open && <Content stage={stage} />}
          </div>
        ))}
      </nav>
      <InHand />
    </div>
  );
}

function Content({ stage: { tools, commands, Panel } }: { readonly stage: StageView }) {
  return (
    <div className="rail-tools">
      {tools.map((tool) => (
        <ToolButton key={tool.name} tool={tool} />
      ))}
      {commands.map((command) => !command.small && <CommandButton key={command.name} command={command} />)}
      {commands.some(({ small }) => small) && (
        <div className="rail-small">
          {commands.map((command) => command.small && <SmallButton key={command.name} command={command} />)}
        </div>
      )}
      {Panel && <Panel />}
    </div>
  );
}

/** The tool in hand, where the open stage does not show it. */
function InHand() {
  const tool = toolNamed(useBench((s) => s.tool));
  const isShown = useBench((s) => stageNamed(s.stage).tools.some(({ name }) => name === s.tool));
  if (isShown) return null;
  const { label, icon: Icon } = tool;
  return (
    <section className="rail-hand" aria-label="Tool in hand">
      <Icon size={15} aria-hidden />
      <span title={`In hand: ${label}`}>{label}</span>
      {tool.name !== 'pick' && (
        <Button size="small" type="text" onClick={() => takeTool('pick')}>
          Put away
        </Button>
      )}
    </section>
  );
}

/** A word where a stage has something to say. */
function Mark({ stage }: { readonly stage: StageView }) {
  const text = useBench((s) => stage.mark(s));
  return text ? <span className="rail-mark">{text}</span> : null;
}

function ToolButton({ tool: { name, label, key, icon: Icon, Settings } }: { readonly tool: Tool }) {
  const inHand = useBench((s) => s.tool === name);
  return (
    <>
      <Button
        block
        className="tool"
        icon={<Icon size={16} />}
        aria-pressed={inHand}
        data-pressed={inHand}
        onClick={() => takeTool(name)}
      >
        <span className="tool-label">{label}</span>
        <kbd aria-hidden>{keyText(key)}</kbd>
      </Button>
      {inHand && Settings && <Settings />}
    </>
  );
}

function CommandButton({ command }: { readonly command: Command }) {
  const label = useBench((s) => command.label(s));
  const pressed = useBench((s) => command.pressed?.(s));
  const { icon: Icon, key, main } = command;
  return (
    <Button
      block
      className="tool"
      type={main ? 'primary' : 'default'}
      icon={<Icon size={16} />}
      aria-pressed={pressed}
      data-pressed={pressed}
      onClick={() => command.act(useBench.getState())}
    >
      <span className="tool-label">{label}</span>
      {key && <kbd aria-hidden>{keyText(key)}</kbd>}
    </Button>
  );
}

function SmallButton({ command }: { readonly command: Command }) {
  const label = useBench((s) => command.label(s));
  const { icon: Icon } = command;
  return (
    <Tooltip title={label}>
      <Button
        className="tool"
        icon={<Icon size={16} />}
        aria-label={label}
        onClick={() => command.act(useBench.getState())}
      />
    </Tooltip>
  );
}
