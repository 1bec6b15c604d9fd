/** The job as a file of the open format, asked for as any link would. */
export function saveAsFile(job: number): void {
  const link = document.createElement('a');
  link.href = `/api/jobs/${job}/file`;
  link.download = '';
  link.click();
}
