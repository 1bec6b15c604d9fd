/** Single instruments for a phone, and the findings with what may be supposed to fail. */
import { memo, useState } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { Choose } from '../../ui/Choose';
import { AsTable } from '../../ui/DataTable';
import type { SetupView } from '../../api/types';
import { Findings, tally } from './Findings';
import { VIEWS } from './Instruments';
import { Panel, Tool } from './Panel';
import { INSTRUMENTS, type Instrument } from './instrumentChoice';
import type { Acts, Reading } from './useSize';

const PHONE_PLOT = 300;
/** One instrument as a part of a page. */
export const InstrumentPanel = memo(function InstrumentPanel({ reading, id }: { reading: Reading; id: Instrument }) {
  const known = INSTRUMENTS.find((k) => k.id === id);
  const View = VIEWS[id];
  const [table, setTable] = useState(false);
  return (
    <Panel
      id={id}
      name={known?.label ?? id}
      title={known?.label ?? id}
      note={known?.note() ?? ''}
      tools={<Tool onPress={() => setTable(!table)}>{table ? 'plot' : 'table'}</Tool>}
    >
      <AsTable value={table}>
        <View {...reading} height={PHONE_PLOT} />
      </AsTable>
    </Panel>
  );
});

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: var(--s4) var(--s6);
  padding: var(--s4) 0;
  > span {
    color: var(--ink-2);
  }
  .which {
    display: contents;
  }
  .which button {
    border: var(--r-hair) solid var(--ink);
    background: var(--paper);
    min-height: var(--s24);
    padding: 0 var(--s6);
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  }
  button[data-selected] {
    background: var(--danger);
    border-color: var(--danger);
    color: var(--on-state);
  }
  @media (pointer: coarse) {
    .which button {
      min-height: var(--target);
    }
  }
`;
const AS_BUTTONS = 8; // more of them would take the room of the findings
interface WhatIfProps {
  failures: readonly { name: string; words: string }[];
  failure: string | null;
  onFailure: (failure: string | null) => void;
}
/** What if something fails: the line is drawn again with it. */
const WhatIf = memo(function WhatIf({ failures, failure, onFailure }: WhatIfProps) {
  if (failures.length === 0) return null;
  if (failures.length > AS_BUTTONS)
    return (
      <Row className="noprint">
        <span aria-hidden="true">What if:</span>
        <Choose
          label="What if"
          quiet
          value={failure ?? ''}
          options={[{ id: '', label: 'nothing fails' }, ...failures.map((f) => ({ id: f.name, label: f.words }))]}
          onChange={(id) => onFailure(id === '' ? null : id)}
        />
      </Row>
    );
  return (
    <Row className="noprint">
      <span id="what-if">What if:</span>
      <ToggleButtonGroup
        className="which"
        aria-labelledby="what-if"
        selectionMode="single"
        selectedKeys={failure === null ? [] : [failure]}
        onSelectionChange={(keys) => {
          const [key] = keys;
          onFailure(key === undefined ? null : String(key));
        }}
      >
        {failures.map((f) => (
          <ToggleButton key={f.name} id={f.name}>
            {f.words}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Row>
  );
});

const NONE: WhatIfProps['failures'] = [];
interface PanelProps extends Pick<Acts, 'onMend' | 'onFailure'> {
  setup: SetupView;
  failure: string | null;
}
/** The findings of a setup; they do not move with the push. */
export const FindingsPanel = memo(function FindingsPanel({ setup, failure, onMend, onFailure }: PanelProps) {
  const { findings, solved } = setup;
  return (
    <Panel id="findings" name="Findings" title="Findings" note={tally(findings)}>
      <WhatIf failures={solved?.failures ?? NONE} failure={failure} onFailure={onFailure} />
      <Findings findings={findings} onMend={onMend} />
    </Panel>
  );
});
