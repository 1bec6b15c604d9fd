/** The way to the dossier: one page for an inspector. */
import styled from 'styled-components';

const Own = styled.a`
  color: inherit;
  text-underline-offset: var(--s3);
  font: var(--w-firm) var(--t-text) / var(--read) var(--text);
`;
export const DossierLink = ({ job, setup }: { job: number; setup: string }) => (
  <Own className="noprint" href={`/api/jobs/${job}/dossier.pdf?setup=${encodeURIComponent(setup)}`} download>
    One page for an inspector
  </Own>
);
