/** Under which this browser keeps what is typed into the form of a check of a job. */
export const formKey = (jobId: number, checkId: string) => `job:${jobId}:form:${checkId}`;
