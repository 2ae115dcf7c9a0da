/** The codings that most claims of the demo carry. */
export const field = { costCentre: '410', fund: '10', project: 'REED-11' };
export const science = { costCentre: '420', fund: '20', project: 'TIDE-04' };
export const flats = { costCentre: '420', fund: '10', project: 'FLAT-07' };
