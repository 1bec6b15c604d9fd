/** Which of the setups kept are shown: in the plot and in the list alike. */
import styled from 'styled-components';
import type { Found } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { ANY, partsOf } from './filter';
import { Tick } from '../../ui/Tick';
import type { Matching } from './useMatch';
import { inChosenUnits } from '../../units/sentences';

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  .react-aria-Label {
    display: inline;
    padding-right: var(--s4);
  }
  gap: var(--s4) var(--s16);
  padding-bottom: var(--s4);
`;

export function Filters({ found, matching }: { found: Found; matching: Matching }) {
  const { filter, onFilter } = matching;
  return (
    <Row className="noprint">
      <Tick on={filter.reasoned} onChange={(reasoned) => onFilter({ ...filter, reasoned })}>
        only those worth telling apart
      </Tick>
      {partsOf(found.kept).map(({ part, words }) => (
        <Choose
          key={part}
          label={part}
          value={filter.made[part] ?? ANY}
          options={[{ id: ANY, label: ANY }, ...words.map((w) => ({ id: w, label: inChosenUnits(w) }))]}
          onChange={(to) => {
            const rest = Object.fromEntries(Object.entries(filter.made).filter(([name]) => name !== part));
            onFilter({ ...filter, made: to === ANY ? rest : { ...rest, [part]: to } });
          }}
        />
      ))}
    </Row>
  );
}
